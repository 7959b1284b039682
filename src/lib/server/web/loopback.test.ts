import { describe, expect, it } from 'vitest';
import { isLoopback } from './loopback.ts';

describe('this very machine', () => {
	it.each(['localhost', 'LOCALHOST', '127.0.0.1', '127.8.9.1', '::1', '[::1]', '::ffff:127.0.0.1'])(
		'is %s',
		(host) => expect(isLoopback(host)).toBe(true)
	);
	it.each([
		'',
		'127.0.0.1.example',
		'localhost.example',
		'192.168.1.4',
		'10.127.0.0',
		'::2',
		'1127.0.0.1',
		'grevan.example'
	])('is not %j', (host) => expect(isLoopback(host)).toBe(false));
});
