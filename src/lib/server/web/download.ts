import { Readable } from 'node:stream';
import type { ReadableStream as NodeStream } from 'node:stream/web';

/** A ZIP that is sent while it is read or written; a browser keeps it as a file. */
export const zipFile = (from: Readable, name: string): Response =>
	new Response(
		Readable.toWeb(from) as NodeStream<Uint8Array> as unknown as ReadableStream<Uint8Array>,
		{
			headers: {
				'content-type': 'application/zip',
				'content-disposition': `attachment; filename="${name}"`
			}
		}
	);
