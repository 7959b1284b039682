import { type AddressInfo, createServer, type Server, type Socket } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { InstrumentError, LineClient } from '../../src/lib/server/instruments/line-client.ts';
import { pressureBenchAt } from '../../src/lib/server/instruments/pressure-bench.ts';

let server: Server | undefined;
const sockets = new Set<Socket>();

/** An instrument that answers as it is told. */
async function instrument(answer: (line: string, socket: Socket) => void): Promise<number> {
	server = createServer((socket) => {
		sockets.add(socket);
		socket.setEncoding('utf8');
		socket.on('error', () => {});
		socket.on('data', (text: string) => {
			for (const line of text.split('\n').filter(Boolean)) answer(line, socket);
		});
	});
	await new Promise<void>((resolve) => server?.listen(0, '127.0.0.1', resolve));
	return (server.address() as AddressInfo).port;
}
afterEach(() => {
	for (const socket of sockets) socket.destroy();
	sockets.clear();
	server?.close();
});

describe('a line to an instrument', () => {
	it('brings answers in the order of the questions, however they are cut up', async () => {
		const port = await instrument((line, socket) => {
			socket.write(`${line.slice(0, 2)}`);
			setTimeout(() => socket.write(`${line.slice(2)}\n`), 5);
		});
		const client = new LineClient('127.0.0.1', port);
		expect(await client.ask('one')).toBe('one');
		expect(await client.ask('two')).toBe('two');
		client.close();
	});

	it('connects anew after the instrument dropped it', async () => {
		let asked = 0;
		const port = await instrument((line, socket) => {
			if (++asked === 1) socket.destroy();
			else socket.write(`${line}!\n`);
		});
		const client = new LineClient('127.0.0.1', port);
		await expect(client.ask('first')).rejects.toThrow(InstrumentError);
		expect(await client.ask('again')).toBe('again!');
		client.close();
	});

	it.each([['SIM:LEAK 1\nINIT'], ['FETC? 0\r'], ['CONF:HOLD 1,\0'], ['x\u2028y']])(
		'sends no line %j that is more than one',
		async (line) => {
			const heard: string[] = [];
			const port = await instrument((one, socket) => {
				heard.push(one);
				socket.write('OK\n');
			});
			const client = new LineClient('127.0.0.1', port);
			await expect(client.order(line)).rejects.toThrow(/holds one line/);
			expect(await client.ask('INIT')).toBe('OK');
			expect(heard).toEqual(['INIT']);
			client.close();
		}
	);

	it('does not wait for ever, and says which question had no answer', async () => {
		const port = await instrument(() => {});
		const client = new LineClient('127.0.0.1', port);
		await expect(client.ask('FETC? 7')).rejects.toThrow(/did not answer FETC\?/);
	});

	it.each(['1,2', 'x,1650.00,20.000,101325.0', '1,1650.00,20.000,101325.0;##', '1;1650'])(
		'“%s” is no reading and is not taken',
		async (words) => {
			const port = await instrument((_, socket) => socket.write(`${words}\n`));
			const bench = pressureBenchAt(`127.0.0.1:${port}`);
			await expect(bench.fetch(0)).rejects.toThrow(/The instrument sent/);
			bench.close();
		}
	);

	it('takes readings with and without temperature and barometer as they were sent', async () => {
		const port = await instrument((_, socket) =>
			socket.write('0,1650.10,20.001,101325.2;0.5,-1649.00,,;1,1648.00,19.9,\n')
		);
		const bench = pressureBenchAt(`127.0.0.1:${port}`);
		expect(await bench.fetch(0)).toEqual([
			{ s: 0, pa: 1650.1, temperatureC: 20.001, barometerPa: 101325.2 },
			{ s: 0.5, pa: -1649 },
			{ s: 1, pa: 1648, temperatureC: 19.9 }
		]);
		bench.close();
	});
});
