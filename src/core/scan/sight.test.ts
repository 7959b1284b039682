import { describe, expect, it } from 'vitest';
import { ScanSight, type SightedCode } from './sight.ts';

const FRAME = { width: 640, height: 480 };
const at = (text: string | null, x: number, y = 240, kind: 'qr' | 'bar' = 'qr'): SightedCode => ({
	text,
	kind,
	corners: [
		{ x: x - 30, y: y - 30 },
		{ x: x + 30, y: y - 30 },
		{ x: x + 30, y: y + 30 },
		{ x: x - 30, y: y + 30 }
	]
});

/** Looks in a row, so many seconds apart. */
function looks(rows: readonly (readonly SightedCode[])[], every = 0.2) {
	const sight = new ScanSight();
	return rows.map((seen, i) => sight.look(seen, FRAME, i * every));
}

describe('what a camera is held over', () => {
	it('is taken once while it is held there, and again when it comes back', () => {
		const one = [at('HM-0101', 320)];
		const away = Array.from({ length: 9 }, () => []);
		const said = looks([one, one, one, ...away, one]);
		expect(said.map(({ taken }) => taken?.text ?? null)).toEqual([
			'HM-0101',
			null,
			null,
			...away.map(() => null),
			'HM-0101'
		]);
	});
	it('is not taken again for a hand that shook', () => {
		const one = [at('HM-0101', 320)];
		expect(looks([one, [], [], one]).filter(({ taken }) => taken)).toHaveLength(1);
	});
	it('is one label for both of its codes', () => {
		const both = [at('HM-0101', 300), at('HM-0101', 300, 320, 'bar')];
		const [first] = looks([both]);
		expect(first?.labels).toHaveLength(1);
		expect(first?.says).toBe('one');
	});
	it('is a bar code only when two looks read the same', () => {
		const said = looks([
			[at('HM-0101', 320, 240, 'bar')],
			[at('HM-0107', 320, 240, 'bar')],
			[at('HM-0107', 320, 240, 'bar')]
		]);
		expect(said.map(({ taken }) => taken?.text ?? null)).toEqual([null, null, 'HM-0107']);
	});
	it('is of several the one in the middle, and none when none is', () => {
		const [clear] = looks([[at('HM-0101', 330), at('HM-0102', 560)]]);
		expect(clear?.taken?.text).toBe('HM-0101');
		const [unclear] = looks([[at('HM-0101', 230), at('HM-0102', 410)]]);
		expect(unclear).toMatchObject({ taken: null, says: 'several' });
		expect(unclear?.labels.map(({ text }) => text).sort()).toEqual(['HM-0101', 'HM-0102']);
	});
	it('is the next one beside it without leaving the view', () => {
		const said = looks([
			[at('HM-0101', 320), at('HM-0102', 560)],
			[at('HM-0101', 80), at('HM-0102', 320)],
			[at('HM-0101', 320), at('HM-0102', 560)]
		]);
		expect(said.map(({ taken }) => taken?.text ?? null)).toEqual(['HM-0101', 'HM-0102', null]);
	});
	it('says that it is hidden when it stays so, and not for a moment', () => {
		const hidden = [at(null, 320)];
		expect(looks([hidden, hidden, hidden, []]).map(({ says }) => says)).toEqual([
			'nothing',
			'nothing',
			'hidden',
			'nothing'
		]);
	});
	it('takes what was touched once', () => {
		const sight = new ScanSight();
		const two = [at('HM-0101', 230), at('HM-0102', 410)];
		sight.look(two, FRAME, 0);
		sight.take('HM-0102', 0.1);
		expect(sight.look([at('HM-0102', 410)], FRAME, 0.2).taken).toBeNull();
	});
});
