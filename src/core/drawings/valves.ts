import {
	arc,
	circle,
	crack,
	ellipse,
	mark,
	type Mark,
	onCircle,
	path,
	rect,
	shut,
	smooth,
	specks,
	type Subject
} from './mark.ts';

/** A valve disc: from above at the left, cut through at the right. */
const disc: Subject = {
	name: 'Valve disc',
	good: 'Seen from above round and whole on its post; cut through, it lies flat on its seat all round.',
	faults: {
		CURL: 'Its edge is curled up on one side: cut through, a gap stands between disc and seat.',
		SEAT: 'It hangs beside its post: cut through, one side rides up on the seat.',
		TEAR: 'A tear runs from its edge inward.',
		STIFF: 'Lifted, it stays standing open and does not fall back.',
		MISS: 'There is no disc: only the seat and its post.',
		DIRTY: 'A hair and grains lie across the seat under it.',
		DUST: 'Fine dust lies on top of it; the edge is flat.',
		AGE: 'Fine cracks run round its edge; it is still flat.'
	},
	near: 'A drop of water stands on it; it lies flat all round.',
	draw: (what, { amount, at }) => {
		const [x, y] = [66, 80];
		const seat: Mark[] = [
			mark('body', circle(x, y, 54)),
			mark('thin', circle(x, y, 20)),
			...[0, 0.25, 0.5, 0.75].map((turn) =>
				mark('thin', path(onCircle(x, y, 20, turn), onCircle(x, y, 8, turn)))
			),
			// Cut through: the seat with its post.
			mark('solid', rect(136, 104, 12, 16)),
			mark('solid', rect(216, 104, 12, 16)),
			mark('line', path([136, 120], [228, 120])),
			mark('solid', rect(179, 84, 6, 36))
		];
		if (what === 'MISS') return [...seat, mark('solid', circle(x, y, 5))];
		const lift = 10 + 26 * amount;
		const flat = 101;
		const outline = Array.from({ length: 24 }, (_, i) => {
			const turn = i / 24;
			const near = Math.max(0, 1 - Math.abs(((turn - at + 1.5) % 1) - 0.5) * 7);
			const r = 46 - (what === 'CURL' ? near * (8 + 16 * amount) : 0);
			return onCircle(x + (what === 'SEAT' ? 14 : 0), y, r, turn);
		});
		const top: Mark[] = [mark('shade', smooth(outline, true))];
		if (what === 'CURL') {
			const [a, b] = [at - 0.09, at + 0.09];
			top.push(
				mark(
					'line',
					smooth([
						onCircle(x, y, 43, a),
						onCircle(x, y, 30 - 6 * amount, at - 0.03),
						onCircle(x, y, 30 - 6 * amount, at + 0.03),
						onCircle(x, y, 43, b)
					])
				),
				mark('thin', smooth([onCircle(x, y, 40, a), onCircle(x, y, 24, at), onCircle(x, y, 40, b)]))
			);
		}
		if (what === 'TEAR')
			top.push(
				mark(
					'body',
					shut(
						onCircle(x, y, 48, at - 0.025 - 0.02 * amount),
						onCircle(x, y, 46 - 24 * amount - 6, at),
						onCircle(x, y, 48, at + 0.02)
					)
				)
			);
		if (what === 'AGE')
			top.push(
				...Array.from({ length: 16 }, (_, i) =>
					mark(
						'line',
						path(onCircle(x, y, 46, i / 16), onCircle(x, y, 35 - (i % 3) * 3, i / 16 + 0.012))
					)
				)
			);
		if (what === 'DUST') top.push(...specks(46, x - 32, y - 32, 64, 64, 1));
		if (what === 'DIRTY')
			top.push(
				mark(
					'line',
					smooth([
						[x - 58, y - 8],
						[x - 20, y + 22],
						[x + 20, y + 18],
						[x + 60, y + 40]
					])
				),
				...specks(9, x + 8, y + 26, 38, 16, 3)
			);
		if (what === 'near')
			top.push(
				mark('body', ellipse(x - 16, y - 18, 9, 7)),
				mark('thin', arc(x - 16, y - 18, 5, 0.75, 1, 4))
			);
		top.push(mark('solid', circle(x, y, 5)));
		// Cut through.
		const left: [number, number] =
			what === 'CURL'
				? [136, flat - lift]
				: what === 'STIFF'
					? [142, flat - 38]
					: what === 'SEAT'
						? [150, flat + 2]
						: [136, what === 'DIRTY' ? flat - 7 : flat];
		const right: [number, number] =
			what === 'STIFF' ? [222, flat - 38] : what === 'SEAT' ? [234, flat - 9] : [228, flat];
		const section =
			what === 'CURL'
				? smooth([
						left,
						[148, flat - lift * 0.35],
						[164, flat - 1],
						[182, flat],
						[206, flat],
						right
					])
				: what === 'STIFF'
					? smooth([left, [160, flat - 26], [182, flat - 2], [204, flat - 26], right])
					: what === 'TEAR'
						? `${path(left, [196 - 18 * amount, flat])}${path([206, flat], right)}`
						: smooth([
								left,
								[160, (left[1] + flat) / 2],
								[182, flat],
								[204, (right[1] + flat) / 2],
								right
							]);
		const cut: Mark[] = [mark('bold', section)];
		if (what === 'DIRTY')
			cut.push(mark('solid', circle(141, 100, 4)), mark('solid', circle(147, 102, 2)));
		if (what === 'DUST') cut.push(...specks(18, 142, 95, 80, 4, 1));
		if (what === 'near') cut.push(mark('body', arc(164, 100, 9, 0.75, 1.25, 7)));
		if (what === 'AGE')
			cut.push(...[140, 146, 218, 224].map((at) => mark('line', path([at, 98], [at + 2, 104]))));
		return [...seat, ...top, ...cut];
	}
};

/** The mount of a filter, looked at from where the filter goes on. */
const cup: Subject = {
	name: 'Inner cup and its valves',
	good: 'The cup sits in its groove all round; both small discs lie flat.',
	faults: {
		CUP: 'The cup has come out of its groove on one side: a gap stands between cup and mask.',
		MISS: 'One of the small discs is not there: an open hole.',
		LOOSE: 'The cup hangs askew, held at one side only.',
		CURL: 'The edge of one small disc is curled up.'
	},
	near: 'The cup is slightly clouded; it sits in its groove all round.',
	draw: (what, { amount }) => {
		const turned = what === 'LOOSE' ? 16 : 0;
		const gap = what === 'CUP' ? 10 + 14 * amount : 0;
		const valve = (x: number, kind: 'good' | 'MISS' | 'CURL'): Mark[] =>
			kind === 'MISS'
				? [mark('line', circle(x, 84, 12)), mark('solid', circle(x, 84, 9))]
				: [
						mark('line', circle(x, 84, 14)),
						kind === 'CURL'
							? mark(
									'body',
									smooth(
										[
											[x - 11, 84],
											[x - 4, 74],
											[x + 6, 80],
											[x + 4, 92],
											[x - 6, 94]
										],
										true
									)
								)
							: mark('shade', circle(x, 84, 11)),
						...(kind === 'CURL' ? [mark('line', arc(x + 3, 82, 8, 0.02, 0.3))] : []),
						mark('solid', circle(x, 84, 2))
					];
		return [
			mark(
				'body',
				smooth(
					[
						[120, 8],
						[186, 34],
						[206, 90],
						[164, 146],
						[76, 146],
						[34, 90],
						[54, 34]
					],
					true
				)
			),
			mark(
				'bold',
				smooth(
					[
						[120 + turned, 40],
						[164 + turned - gap, 74 + turned / 2],
						[158 - gap / 2, 120 + turned],
						[120, 134],
						[82 - turned, 120 - turned],
						[76 + turned / 2, 74 - turned]
					],
					true
				)
			),
			mark(
				'thin',
				smooth(
					[
						[120, 34],
						[170, 72],
						[164, 124],
						[120, 140],
						[76, 124],
						[70, 72]
					],
					true
				)
			),
			mark('thin', path([120, 62], [112, 92], [128, 92])),
			...(what === 'near'
				? [0, 1, 2, 3].map((i) => mark('thin', path([92 + i * 6, 112], [100 + i * 6, 104])))
				: []),
			...valve(96, what === 'MISS' ? 'MISS' : what === 'CURL' ? 'CURL' : 'good'),
			...valve(144 - gap / 2, 'good')
		];
	}
};

const diaphragm: Subject = {
	name: 'Speech diaphragm',
	good: 'The thin sheet is whole and tight; its ring is screwed home.',
	faults: {
		DIAPH: 'The thin sheet is torn across.',
		MISS: 'There is no sheet in the ring: one looks straight through.'
	},
	draw: (what, { at, amount }) => [
		mark('body', circle(120, 80, 62)),
		mark('line', circle(120, 80, 50)),
		...Array.from({ length: 12 }, (_, i) =>
			mark('line', path(onCircle(120, 80, 52, i / 12), onCircle(120, 80, 60, i / 12)))
		),
		...(what === 'MISS'
			? [mark('solid', circle(120, 80, 47))]
			: [
					mark('shade', circle(120, 80, 48)),
					...[38, 28, 18, 8].map((r) => mark('thin', circle(120, 80, r)))
				]),
		...(what === 'DIAPH'
			? [
					mark(
						'solid',
						shut(
							[86, 60 + 20 * at],
							[118, 74 + 10 * at],
							[152, 60 + 30 * at],
							[120, 84 + 10 * amount + 10 * at]
						)
					),
					crack([152, 60 + 30 * at], [164, 84])
				]
			: [])
	]
};

const cover: Subject = {
	name: 'Valve cover',
	good: 'The cover sits home all round: no gap, both clips closed.',
	faults: {
		CLICK: 'One side stands off: the clip has not closed and a gap is seen.',
		MISS: 'There is no cover: the disc lies open.',
		CRK: 'A crack runs across the cover.'
	},
	draw: (what, { amount, at }) => {
		const up = what === 'CLICK' ? 12 + 14 * amount : 0;
		const base: Mark[] = [
			mark('body', rect(40, 100, 160, 26, 6)),
			mark('line', path([52, 100], [52, 90], [60, 90])),
			mark('line', path([188, 100], [188, 90], [180, 90]))
		];
		if (what === 'MISS')
			return [
				...base,
				mark('bold', path([70, 96], [170, 96])),
				mark('solid', rect(117, 84, 6, 14))
			];
		return [
			...base,
			mark(
				'shade',
				smooth(
					[
						[58, 98],
						[62, 62 - up * 0.2],
						[120, 44 - up * 0.6],
						[178, 62 - up],
						[182, 98 - up]
					],
					false
				)
			),
			mark('bold', path([58, 98], [182, 98 - up])),
			...[0, 1, 2, 3].map((i) =>
				mark('thin', path([84 + i * 24, 60 - up * 0.6], [84 + i * 24, 84 - up * 0.5]))
			),
			...(up
				? [mark('dash', path([182, 98 - up], [182, 98]))]
				: [mark('line', path([180, 90], [174, 96]))]),
			...(what === 'CRK' ? [crack([76 + 30 * at, 92], [128 + 30 * at, 48], 6)] : [])
		];
	}
};

/** Where a mask breathes out, and what lies in its way. */
export const VALVES = { disc, cup, diaphragm, cover } as const;
