import {
	createServer,
	type IncomingMessage,
	request,
	type Server,
	type ServerResponse
} from 'node:http';
import type { AddressInfo } from 'node:net';

/** What happens to a request on its way. */
export type HttpFault =
	| 'none'
	/** The connection breaks before the server hears anything. */
	| 'cut'
	/** The server does it, and its answer never arrives. */
	| 'answer lost'
	/** A network in between answers with a page of its own. */
	| 'portal'
	/** A proxy in between says that the server is being worked at. */
	| 'maintenance'
	/** Nothing is heard until the fault is another. */
	| 'stalled';

const PORTAL = '<!doctype html><title>Guest network</title><h1>Sign in to the guest network</h1>';

/** Stands between a browser and the app, and does to its requests what networks do. */
export class HttpFaults {
	fault: HttpFault = 'none';
	/** Counts up with each update of the app: its service worker is another one then. */
	version = 0;
	private readonly stalled = new Set<ServerResponse>();
	private constructor(
		private readonly server: Server,
		readonly address: string
	) {}

	/** @param port of the app on loopback; given once it is known */
	static async open(): Promise<HttpFaults & { target: number }> {
		const server = createServer();
		await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
		const { port } = server.address() as AddressInfo;
		const faults = Object.assign(new HttpFaults(server, `http://127.0.0.1:${port}`), { target: 0 });
		server.on('request', (asked, answer) => faults.take(faults.target, asked, answer));
		return faults;
	}

	/** Changes what happens; what was stalled breaks. */
	set(fault: HttpFault): void {
		this.fault = fault;
		for (const answer of this.stalled) answer.destroy();
		this.stalled.clear();
	}

	async close(): Promise<void> {
		this.set('cut');
		this.server.closeAllConnections();
		await new Promise((resolve) => this.server.close(resolve));
	}

	private take(port: number, asked: IncomingMessage, answer: ServerResponse): void {
		const { fault } = this;
		if (fault === 'cut') asked.destroy();
		else if (fault === 'portal') answer.writeHead(200, { 'content-type': 'text/html' }).end(PORTAL);
		else if (fault === 'maintenance')
			answer.writeHead(503, { 'content-type': 'text/html' }).end('<h1>Back at ten.</h1>');
		else if (fault === 'stalled') this.stalled.add(answer);
		else this.pass(port, asked, answer, fault === 'answer lost');
	}

	private pass(port: number, asked: IncomingMessage, answer: ServerResponse, lose: boolean): void {
		const { method, url, headers } = asked;
		const on = request({ host: '127.0.0.1', port, method, path: url, headers }, (response) => {
			const plain = { ...response.headers };
			const worker = url === '/service-worker.js' && response.statusCode === 200;
			if (worker) delete plain['content-length'];
			if (lose) {
				response.on('end', () => answer.destroy()).resume();
				return;
			}
			answer.writeHead(response.statusCode ?? 502, plain);
			if (!worker) response.pipe(answer);
			else {
				response.pipe(answer, { end: false });
				response.on('end', () => answer.end(`\n// ${this.version}\n`));
			}
			response.on('error', () => answer.destroy());
		});
		on.on('error', () => answer.destroy());
		answer.on('close', () => on.destroy());
		asked.pipe(on);
	}
}
