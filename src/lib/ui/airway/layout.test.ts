import { describe, expect, it } from 'vitest';
import type { Station } from '../../../core/airway/airway.ts';
import { FAMILIES } from '../../../core/data/families.ts';
import { layOut, STROKES } from './layout.ts';

const x = (column: number) => column * 100;

describe('the drawing of the airway', () => {
	it.each(FAMILIES.map((f) => [f.name, f.stations] as const))(
		'%s: every station once, none on another, in order',
		(_, stations) => {
			const { placed, columns, height } = layOut(stations);
			expect(placed.map((p) => p.station.key).sort()).toEqual(stations.map((s) => s.key).sort());
			expect(new Set(placed.map((p) => `${p.column.toFixed(2)}/${p.y}`)).size).toBe(placed.length);
			for (const p of placed) {
				expect(p.column).toBeGreaterThan(0);
				expect(p.column).toBeLessThan(columns);
				expect(p.y).toBeGreaterThan(0);
				expect(p.y).toBeLessThan(height);
			}
			const single = placed.filter((p) => !p.station.side).map((p) => p.column);
			expect(single).toEqual([...single].sort((a, b) => a - b));
		}
	);

	it('mirrors left above and right below at the same column', () => {
		const { placed } = layOut(FAMILIES[0]?.stations ?? []);
		for (const left of placed.filter((p) => p.station.side === 'left')) {
			const right = placed.find((p) => p.station.key === left.station.key.replace('left', 'right'));
			expect(right?.column).toBe(left.column);
			expect(right?.y).toBeGreaterThan(left.y);
			expect(left.above && !right?.above).toBe(true);
		}
	});

	it('takes less room where the line does not part', () => {
		const heightOf = (key: string) =>
			layOut(FAMILIES.find((f) => f.family === key)?.stations ?? []).height;
		expect(heightOf('ba-set')).toBeLessThan(heightOf('half-mask'));
	});

	it('is one line without gaps but for what holds it', () => {
		const { strokes } = layOut(FAMILIES[0]?.stations ?? []);
		const flat = strokes
			.map((s) => /^M([\d.]+) 76H([\d.]+)$/.exec(s.d(x)))
			.filter((m) => m !== null)
			.map((m) => [Number(m[1]), Number(m[2])] as const);
		for (const [from, to] of flat) expect(to).toBeGreaterThanOrEqual(from);
		const breaks = flat.slice(1).filter(([from], i) => from - (flat[i]?.[1] ?? 0) > 1);
		// One where it parts into branches, one before what holds it.
		expect(breaks).toHaveLength(2);
	});

	it('strokes high pressure double and medium pressure thick, whatever the family', () => {
		const stations: Station[] = [
			{ key: 'a', name: 'a', short: 'a', zone: 'high pressure', faults: '' },
			{ key: 'b', name: 'b', short: 'b', zone: 'medium pressure', faults: '' },
			{ key: 'c', name: 'c', short: 'c', zone: 'mask', faults: '' }
		];
		const zones = layOut(stations).strokes.map((s) => s.zone);
		expect(zones).toContain('high pressure');
		expect(STROKES['high pressure'].double).toBe(true);
		expect(STROKES['medium pressure'].width).toBeGreaterThan(STROKES.mask.width);
		expect(STROKES.ambient.dash).toBeDefined();
	});
});
