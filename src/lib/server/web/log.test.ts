import { describe, expect, it } from 'vitest';
import { logged } from './log.ts';

/** As the database layer wraps what the driver threw. */
const failed = () => {
	const driver = Object.assign(new Error('duplicate key: Key (email)=(ilse@osmund.example)'), {
		code: '23505',
		table: 'user',
		constraint: 'user_email_unique',
		detail: 'Key (email)=(ilse@osmund.example) already exists.'
	});
	return new Error('Failed query: insert into user\nparams: Ilse Norrby,ilse@osmund.example', {
		cause: driver
	});
};

describe('what is logged of an error', () => {
	it('is its kind, the code of the database and the place, and no value of it', () => {
		const said = logged(failed());
		expect(said).toMatchObject({
			kind: 'Error < Error',
			code: '23505',
			table: 'user',
			constraint: 'user_email_unique'
		});
		expect(said.at.length).toBeGreaterThan(0);
		expect(JSON.stringify(said)).not.toMatch(/ilse|Norrby|params|Failed query/i);
	});

	it('is something for whatever was thrown, and ends in a circle of causes', () => {
		expect(logged('a word')).toEqual({ kind: 'string', at: [] });
		const self = new RangeError('x');
		self.cause = self;
		expect(logged(self).kind.startsWith('RangeError')).toBe(true);
	});
});
