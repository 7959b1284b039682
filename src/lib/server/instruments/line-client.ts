import { connect, type Socket } from 'node:net';

/** An instrument did not answer as it should; said so that a person can act. */
export class InstrumentError extends Error {
	override name = 'InstrumentError';
}

const ANSWER_MS = 2000;
const LONGEST_ANSWER = 200_000;

interface Asked {
	resolve: (line: string) => void;
	reject: (error: Error) => void;
	timer: ReturnType<typeof setTimeout>;
}

/** A plain line protocol over TCP: one line out, one line back, in order. Connects anew after a dropped line. */
export class LineClient {
	private socket: Socket | undefined;
	private rest = '';
	private readonly asked: Asked[] = [];

	constructor(
		private readonly host: string,
		private readonly port: number
	) {}

	/** A line to an address such as 127.0.0.1:4100. */
	static to(address: string): LineClient {
		const [host = '127.0.0.1', port = '0'] = address.split(':');
		return new LineClient(host, Number(port));
	}

	/** Sends a line and waits for its answer. @throws InstrumentError when none comes in time. */
	ask(line: string): Promise<string> {
		// A value with a line break in it would be a second order to the instrument.
		if (/[\p{Cc}\u2028\u2029]/u.test(line))
			return Promise.reject(new InstrumentError('A line to an instrument holds one line of text.'));
		return new Promise((resolve, reject) => {
			const socket = this.open();
			const timer = setTimeout(
				() =>
					this.fail(new InstrumentError(`The instrument did not answer ${line.split(' ')[0]}.`)),
				ANSWER_MS
			);
			this.asked.push({ resolve, reject, timer });
			socket.write(`${line}\n`);
		});
	}

	/** Sends a line that is to be obeyed. @throws InstrumentError with what the instrument says against it. */
	async order(line: string): Promise<void> {
		if ((await this.ask(line)) === 'OK') return;
		throw new InstrumentError(`The instrument refused ${line}: ${await this.ask('SYST:ERR?')}.`);
	}

	close(): void {
		this.fail(new InstrumentError('The connection was closed.'));
	}

	private open(): Socket {
		if (this.socket && !this.socket.destroyed) return this.socket;
		const socket = connect(this.port, this.host);
		socket.setEncoding('utf8');
		socket.setNoDelay(true);
		socket.on('data', (chunk: string) => this.heard(chunk));
		const lost = () => {
			if (this.socket === socket)
				this.fail(new InstrumentError('The instrument cannot be reached.'));
		};
		socket.on('error', lost);
		socket.on('close', lost);
		this.rest = '';
		this.socket = socket;
		return socket;
	}

	private heard(chunk: string): void {
		this.rest += chunk;
		if (this.rest.length > LONGEST_ANSWER)
			return this.fail(new InstrumentError('The instrument sends without end.'));
		for (let end = this.rest.indexOf('\n'); end >= 0; end = this.rest.indexOf('\n')) {
			const line = this.rest.slice(0, end).trim();
			this.rest = this.rest.slice(end + 1);
			const first = this.asked.shift();
			if (!first) continue;
			clearTimeout(first.timer);
			first.resolve(line);
		}
	}

	private fail(error: Error): void {
		const { socket } = this;
		this.socket = undefined;
		socket?.destroy();
		for (const asked of this.asked.splice(0)) {
			clearTimeout(asked.timer);
			asked.reject(error);
		}
	}
}
