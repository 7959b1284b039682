import { type AddressInfo, connect, createServer } from 'node:net';

/**
 * A line to an instrument on which one command waits until something else was done.
 * @param command the first word of the line that waits
 */
export async function heldUp(
	target: string,
	command: string,
	meanwhile: (itself: string) => Promise<unknown>
): Promise<{ address: string; close: () => void }> {
	const [host = '', port = ''] = target.split(':');
	let address = '';
	const server = createServer((near) => {
		const far = connect(Number(port), host);
		far.pipe(near);
		near.setEncoding('utf8');
		near.on('data', (line: string) => {
			const waits = line.startsWith(command) ? meanwhile(address) : Promise.resolve();
			void waits.then(() => far.write(line));
		});
		for (const [socket, other] of [
			[near, far],
			[far, near]
		] as const) {
			socket.on('error', () => other.destroy());
			socket.on('close', () => other.destroy());
		}
	});
	await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
	address = `127.0.0.1:${(server.address() as AddressInfo).port}`;
	return { address, close: () => server.close() };
}
