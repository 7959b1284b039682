import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { recipeOf } from '../bench/recipes.ts';
import { FAMILIES } from './families.ts';
import { FAMILY_RECORDS, recordOf } from './family-records.ts';

/** Words that name a family and other things as well: they count beside the word family only. */
const AMBIGUOUS = new Set(['cylinder', 'airline']);

function sourcesIn(folder: string): { file: string; text: string }[] {
	return readdirSync(folder, { recursive: true, encoding: 'utf8' })
		.filter((file) => /\.(ts|svelte)$/.test(file) && !/\.test\.|^demo|db.migrations/.test(file))
		.map((file) => ({
			file: join(folder, file),
			text: readFileSync(join(folder, file), 'utf8')
		}));
}

describe('the record of each family', () => {
	it('is one, and names stations of its own airway and recipes that there are', () => {
		expect(FAMILY_RECORDS.map((r) => r.family)).toEqual(FAMILIES.map((f) => f.family));
		for (const record of FAMILY_RECORDS) {
			const stations = FAMILIES.find((f) => f.family === record.family)?.stations ?? [];
			const known = stations.map((s) => s.key);
			const named = [
				...Object.values(record.partStations),
				...record.filterStations,
				record.bench?.station ?? known[0]
			];
			for (const station of named) expect(known).toContain(station);
			for (const key of record.bench?.recipes ?? []) expect(recipeOf(key).key).toBe(key);
			expect(record.inlets.length > 0).toBe(record.straps.length > 0);
			if (!record.takesParts) expect(record.partStations).toEqual({});
		}
	});

	it('says of a family that is not known that it can nothing', () => {
		const unknown = recordOf('kite');
		expect(unknown).toMatchObject({ carries: null, takesParts: false, bench: null, inlets: [] });
	});

	it('is asked: no page and no service names a family', () => {
		const names = FAMILIES.map((f) => f.family);
		const plain = names.filter((name) => !AMBIGUOUS.has(name)).join('|');
		const beside = [...AMBIGUOUS].join('|');
		const naming = new RegExp(
			`['"](${plain})['"]|family\\s*(?:===|!==|,|:)\\s*['"](${beside})['"]`
		);
		const guilty = ['src/routes', 'src/lib']
			.flatMap(sourcesIn)
			.filter(({ file, text }) => !file.includes('/demo/') && naming.test(text))
			.map(({ file }) => file);
		expect(guilty).toEqual([]);
	});
});
