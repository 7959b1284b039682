import { circle, type Mark, mark, rect, smooth } from './mark.ts';

/** A head from the side, its face to the left. */
export const HEAD: Mark[] = [
	mark(
		'body',
		'M84 44C92 22 116 12 140 14C174 18 190 46 184 78C180 98 168 108 166 124L168 152H112L110 132C98 134 88 130 86 120L84 108L74 94L84 78C80 66 80 54 84 44Z'
	),
	mark('thin', circle(142, 82, 8))
];
/** A mask on it. */
export const MASK_ON: Mark[] = [
	mark(
		'shade',
		smooth(
			[
				[88, 66],
				[62, 76],
				[54, 96],
				[66, 116],
				[92, 118],
				[98, 92]
			],
			true
		)
	),
	mark('line', rect(46, 98, 18, 24, 4))
];
