// The line protocol of every simulated instrument: plain lines over TCP on loopback, in the style of the open SCPI
// standard. One line in, one line out, in order; ERR refuses, and SYST:ERR? says why.
import { createServer, type AddressInfo, type Socket } from 'node:net';

/** What stands behind a line: it answers commands. */
export interface Device {
	/** Answers a command; undefined for an empty one. */
	command(head: string, rest: string): string | undefined;
}

/** What devices have in common: errors by name, numbers as arguments. */
export abstract class Simulated implements Device {
	private error = '';

	command(head: string, rest: string): string | undefined {
		if (head === '') return undefined;
		if (head === 'SYST:ERR?') {
			const said = this.error || '0,"No error"';
			this.error = '';
			return said;
		}
		return this.answer(head, rest) ?? this.fail('-113,"Undefined header"');
	}

	/** Answers a command that it knows. */
	protected abstract answer(head: string, rest: string): string | undefined;

	protected fail(error: string): string {
		this.error = error;
		return 'ERR';
	}

	/** Takes numbers where there are as many as there must be. */
	protected set(rest: string, count: number, take: (numbers: number[]) => unknown): string {
		const numbers = rest.split(',').map(Number);
		if (rest === '' || numbers.length !== count || numbers.some((n) => !Number.isFinite(n)))
			return this.fail('-104,"Data type error"');
		take(numbers);
		return 'OK';
	}

	/** Takes a word of a list. */
	protected choose<T extends string>(
		rest: string,
		known: readonly T[],
		take: (w: T) => unknown
	): string {
		const word = known.find((one) => one === rest);
		if (word === undefined) return this.fail('-224,"Illegal parameter value"');
		take(word);
		return 'OK';
	}
}

/**
 * Listens for a device on loopback. Every connection speaks to the same one.
 * @param port a free one without it
 * @returns the port
 */
export function listen(device: Device, port = 0): Promise<number> {
	const server = createServer((socket) => hear(device, socket));
	return new Promise((resolve, reject) => {
		server.once('error', reject);
		server.listen(port, '127.0.0.1', () => resolve((server.address() as AddressInfo).port));
	});
}

function hear(device: Device, socket: Socket): void {
	let rest = '';
	socket.setEncoding('utf8');
	socket.on('error', () => socket.destroy());
	socket.on('data', (chunk: string) => {
		rest += chunk;
		for (let end = rest.indexOf('\n'); end >= 0; end = rest.indexOf('\n')) {
			const [head = '', ...words] = rest.slice(0, end).trim().split(/\s+/);
			rest = rest.slice(end + 1);
			const answer = device.command(head.toUpperCase(), words.join(' '));
			if (answer !== undefined) socket.write(`${answer}\n`);
		}
	});
}
