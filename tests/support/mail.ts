import { createServer, type Server, type Socket } from 'node:net';
import { SMTPServer } from 'smtp-server';

/** A mail as a mail server took it. */
export interface TakenMail {
	to: string[];
	text: string;
}

/** A mail server of its own on loopback, that takes everything or refuses one address. */
export async function mailServer(refuse = ''): Promise<{
	url: string;
	taken: TakenMail[];
	close: () => Promise<void>;
}> {
	const taken: TakenMail[] = [];
	const server = new SMTPServer({
		authOptional: true,
		disabledCommands: ['STARTTLS'],
		onRcptTo: ({ address }, _, done) =>
			done(address === refuse ? new Error('No such mailbox here') : null),
		onData(stream, session, done) {
			const parts: Buffer[] = [];
			stream.on('data', (part: Buffer) => parts.push(part));
			stream.on('end', () => {
				taken.push({
					to: session.envelope.rcptTo.map(({ address }) => address),
					text: Buffer.concat(parts).toString('utf8')
				});
				done();
			});
		}
	});
	await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
	return {
		url: `smtp://127.0.0.1:${portOf(server.server)}`,
		taken,
		close: () => new Promise((done) => server.close(() => done()))
	};
}

/** Something that listens where a mail server should and answers nonsense. */
export async function nonsenseServer(): Promise<{ url: string; close: () => Promise<void> }> {
	const open = new Set<Socket>();
	const server = createServer((socket) => {
		open.add(socket);
		socket.on('error', () => undefined);
		socket.on('data', () => socket.write('<html>404</html>\r\n'));
		socket.write('<html>Welcome</html>\r\n');
	});
	await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
	return {
		url: `smtp://127.0.0.1:${portOf(server)}`,
		close: () =>
			new Promise((done) => {
				for (const socket of open) socket.destroy();
				server.close(() => done());
			})
	};
}

function portOf(server: Pick<Server, 'address'>): number {
	const address = server.address();
	if (address === null || typeof address === 'string') throw new RangeError('no port');
	return address.port;
}
