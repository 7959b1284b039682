import { type AddressInfo, connect, createServer, type Server, type Socket } from 'node:net';

/** Stands between the app and its database, and can be cut, or left half dead. */
export class TcpCut {
	private readonly sockets = new Set<Socket>();
	private stalled = false;
	private server: Server;
	private constructor(
		private target: URL,
		private port: number
	) {
		this.server = createServer();
	}

	static async before(url: string): Promise<TcpCut> {
		const cut = new TcpCut(new URL(url), 0);
		await cut.mend();
		return cut;
	}

	get url(): string {
		const url = new URL(this.target);
		url.hostname = '127.0.0.1';
		url.port = String(this.port);
		return url.href;
	}

	/** Leads to another server from here on; the address before it stays. */
	turnTo(url: string): void {
		this.target = new URL(url);
	}

	/** Drops every connection and takes no new one. */
	sever(): void {
		this.server.close();
		for (const socket of this.sockets) socket.destroy();
		this.sockets.clear();
	}

	/** Holds every connection open and lets nothing through, as a half-dead link does. */
	stall(): void {
		this.stalled = true;
		for (const socket of this.sockets) socket.pause();
	}

	/** What was held goes on. */
	flow(): void {
		this.stalled = false;
		for (const socket of this.sockets) socket.resume();
	}

	async mend(): Promise<void> {
		this.server = createServer((near) => {
			const far = connect(Number(this.target.port), this.target.hostname);
			for (const [socket, other] of [
				[near, far],
				[far, near]
			] as const) {
				this.sockets.add(socket);
				socket.pipe(other);
				socket.on('error', () => other.destroy());
				socket.on('close', () => {
					this.sockets.delete(socket);
					other.destroy();
				});
				if (this.stalled) socket.pause();
			}
		});
		await new Promise<void>((resolve) => this.server.listen(this.port, '127.0.0.1', resolve));
		this.port = (this.server.address() as AddressInfo).port;
	}

	close(): Promise<void> {
		this.sever();
		return Promise.resolve();
	}
}
