import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

const FOLDER = 'src/lib/server/db/migrations';
const files = readdirSync(FOLDER).filter((name) => name.endsWith('.sql'));
const sums = new Map(
	readFileSync(join(FOLDER, 'SUMS'), 'utf8')
		.trim()
		.split('\n')
		.map((line) => {
			const [sum = '', name = ''] = line.split(/\s+/);
			return [name, sum] as const;
		})
);

describe('migrations', () => {
	it.each(files)('%s is as it was committed: a database somewhere has it already', (name) => {
		const sum = createHash('sha256')
			.update(readFileSync(join(FOLDER, name)))
			.digest('hex');
		// A new one is added to the list by: (cd src/lib/server/db/migrations && sha256sum *.sql > SUMS)
		expect(sums.get(name), `${name} is not in SUMS, or was changed`).toBe(sum);
	});

	it('are all there that were ever committed', () => {
		expect([...sums.keys()].sort()).toEqual([...files].sort());
	});
});
