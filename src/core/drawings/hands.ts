import type { Inlet } from '../data/blocking.ts';
import { circle, ellipse, type Mark, mark, path, rect, smooth } from './mark.ts';

type Point = [number, number];

/** What is drawn of something done rightly, and of how it is done wrongly. */
export interface Done {
	/** What is done rightly, in words. */
	right: string;
	wrong: string;
	/** @param rightly whether as it should be */
	draw(rightly: boolean): Mark[];
}

/** Puts points that were drawn about nought where they belong. */
const placed = (points: readonly Point[], [x, y]: Point, turn: number, side: 1 | -1): Point[] => {
	const [sin, cos] = [Math.sin(turn), Math.cos(turn)];
	return points.map(([a, b]) => [x + side * (a * cos - b * sin), y + a * sin + b * cos]);
};

const PALM: Point[] = [
	[-9, 46],
	[-13, 18],
	[-13, -6],
	[-10, -26],
	[-3, -31],
	[4, -30],
	[10, -24],
	[13, -3],
	[21, -10],
	[24, -4],
	[16, 11],
	[11, 22],
	[9, 46]
];
const FINGERS: [Point, Point][] = [
	[
		[-5, -28],
		[-5, -6]
	],
	[
		[1, -29],
		[1, -6]
	],
	[
		[6, -27],
		[6, -5]
	]
];

/** A flat hand, its palm towards the face. */
const palm = (at: Point, turn: number, side: 1 | -1): Mark[] => [
	mark('body', smooth(placed(PALM, at, turn, side))),
	...FINGERS.map((line) => mark('thin', path(...placed(line, at, turn, side))))
];

/** A fist with one finger or thumb put out; its tip is at the point. */
const tip = (at: Point, turn: number, side: 1 | -1): Mark[] => [
	mark(
		'body',
		smooth(
			placed(
				[
					[-5, 8],
					[-4, -4],
					[0, -7],
					[4, -4],
					[6, 10],
					[16, 14],
					[20, 28],
					[14, 46],
					[-8, 46],
					[-12, 28],
					[-5, 8]
				],
				at,
				turn,
				side
			)
		)
	),
	mark(
		'thin',
		path(
			...placed(
				[
					[6, 20],
					[16, 20]
				],
				at,
				turn,
				side
			)
		)
	)
];

/** Arrows that push or pull, each from one point to another. */
const arrows = (...pairs: [Point, Point][]): Mark[] =>
	pairs.flatMap(([from, to]) => {
		const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
		const length = Math.hypot(dx, dy) || 1;
		const back = (side: number): Point => [
			to[0] - (10 * dx) / length - (side * 7 * dy) / length,
			to[1] - (10 * dy) / length + (side * 7 * dx) / length
		];
		return [mark('bold', path(from, to)), mark('bold', path(back(1), to, back(-1)))];
	});

/** A face from the front. */
const FACE: Mark[] = [
	mark(
		'body',
		'M76 44C76 18 96 6 120 6C144 6 164 18 164 44L162 88C160 120 140 138 120 138C100 138 80 120 78 88Z'
	),
	mark('line', path([92, 56], [108, 56])),
	mark('line', path([132, 56], [148, 56])),
	mark('thin', path([104, 136], [104, 158])),
	mark('thin', path([136, 136], [136, 158]))
];
/** A half mask on it. */
const HALF: Mark[] = [
	mark(
		'shade',
		smooth(
			[
				[120, 64],
				[102, 84],
				[90, 112],
				[104, 132],
				[120, 136],
				[136, 132],
				[150, 112],
				[138, 84]
			],
			true
		)
	),
	mark('thin', path([92, 100], [76, 86])),
	mark('thin', path([148, 100], [164, 86]))
];
const OUTLET: Mark[] = [mark('line', circle(120, 116, 11)), mark('thin', circle(120, 116, 6))];
const CARTRIDGES: Mark[] = [
	mark('body', circle(84, 106, 18)),
	mark('thin', circle(84, 106, 12)),
	mark('body', circle(156, 106, 18)),
	mark('thin', circle(156, 106, 12))
];
const PADS: Mark[] = [
	mark('body', circle(84, 106, 20)),
	mark('dash', circle(84, 106, 15)),
	mark('body', circle(156, 106, 20)),
	mark('dash', circle(156, 106, 15))
];
const FLAT: Mark[] = [
	mark('body', rect(60, 92, 40, 30, 10)),
	mark('body', rect(140, 92, 40, 30, 10)),
	mark('thin', path([66, 107], [94, 107])),
	mark('thin', path([146, 107], [174, 107]))
];
/** A full face mask with a port in front. */
const FULL: Mark[] = [
	mark('shade', 'M82 34C90 22 150 22 158 34L160 96C156 122 138 136 120 136C102 136 84 122 80 96Z'),
	mark('body', 'M90 42C98 34 142 34 150 42L150 80C140 92 100 92 90 80Z')
];
const pressed: [Point, Point][] = [
	[
		[38, 62],
		[64, 88]
	],
	[
		[202, 62],
		[176, 88]
	]
];

/** Where the hands are when a mask is tried on its wearer, by what its air comes in through. Common practice. */
export const HANDS: Readonly<Record<Inlet | 'out', Done>> = {
	cartridges: {
		right: 'A palm lies lightly over each cartridge.',
		wrong: 'The palms press: the mask is pushed onto the face.',
		draw: (rightly) => [
			...FACE,
			...HALF,
			...OUTLET,
			...CARTRIDGES,
			...palm([80, 108], 0.35, 1),
			...palm([160, 108], 0.35, -1),
			...(rightly ? [] : arrows(...pressed))
		]
	},
	'round-pads': {
		right: 'A thumb in the middle of each pad.',
		wrong: 'The thumbs are at the rim: the pad bends and lifts the mask.',
		draw: (rightly) => [
			...FACE,
			...HALF,
			...OUTLET,
			...PADS,
			...(rightly
				? [...tip([84, 108], 0.5, 1), ...tip([156, 108], 0.5, -1)]
				: [
						...tip([68, 112], 0.5, 1),
						...tip([172, 112], 0.5, -1),
						mark('bold', path([98, 92], [110, 84])),
						mark('bold', path([142, 92], [130, 84]))
					])
		]
	},
	'flat-pads': {
		right: 'Each pad is squeezed flat between thumb and fingers.',
		wrong: 'The pads are pulled: the mask comes off the face.',
		draw: (rightly) => [
			...FACE,
			...HALF,
			...OUTLET,
			...FLAT,
			...([1, -1] as const).flatMap((side) => {
				const x = side === 1 ? 78 : 162;
				return [
					mark(
						'body',
						smooth([
							[x - side * 52, 150],
							[x - side * 34, 96],
							[x - side * 10, 82],
							[x + side * 8, 84],
							[x + side * 9, 91],
							[x - side * 8, 93],
							[x - side * 22, 107],
							[x - side * 8, 121],
							[x + side * 7, 122],
							[x + side * 6, 130],
							[x - side * 12, 132],
							[x - side * 30, 156]
						])
					),
					mark('thin', path([x - side * 14, 88], [x + side * 4, 88]))
				];
			}),
			...(rightly
				? []
				: arrows(
						[
							[54, 66],
							[24, 60]
						],
						[
							[186, 66],
							[216, 60]
						]
					))
		]
	},
	'prefilter-cap': {
		right: 'The palm covers the hole of each cap; no finger on the mask.',
		wrong: 'The fingers lie on the mask and hold it to the face.',
		draw: (rightly) => [
			...FACE,
			...HALF,
			...OUTLET,
			...CARTRIDGES,
			mark('solid', circle(84, 106, 4)),
			mark('solid', circle(156, 106, 4)),
			...(rightly
				? [...palm([62, 118], -0.1, 1), ...palm([178, 118], -0.1, -1)]
				: [...palm([92, 116], 0.6, 1), ...palm([148, 116], 0.6, -1)])
		]
	},
	hose: {
		right: 'The hose is pinched near the canister.',
		wrong: 'The hose is pinched at the mask: the pull bends its edge.',
		draw: (rightly) => {
			const [x, y] = rightly ? [178, 112] : [116, 92];
			return [
				mark(
					'body',
					'M28 30C34 12 60 4 78 12C98 22 100 48 96 68L92 92L76 96L72 158H34L32 92C26 74 24 50 28 30Z'
				),
				mark(
					'shade',
					smooth(
						[
							[74, 30],
							[100, 44],
							[112, 74],
							[104, 96],
							[84, 100],
							[74, 66]
						],
						true
					)
				),
				mark(
					'line',
					smooth([
						[104, 84],
						[126, 94],
						[150, 116],
						[176, 118],
						[196, 106]
					])
				),
				mark(
					'line',
					smooth([
						[106, 70],
						[132, 78],
						[158, 100],
						[176, 103],
						[190, 94]
					])
				),
				mark('body', rect(190, 74, 34, 46, 5)),
				mark('thin', path([190, 88], [224, 88])),
				mark(
					'body',
					smooth(
						[
							[x - 6, y - 18],
							[x + 4, y - 20],
							[x + 8, y + 2],
							[x + 22, y + 20],
							[x + 26, y + 46],
							[x - 6, y + 48],
							[x - 12, y + 20],
							[x - 2, y + 4]
						],
						true
					)
				),
				mark('line', path([x - 2, y - 12], [x + 4, y + 8])),
				...(rightly
					? []
					: arrows([
							[134, 60],
							[160, 46]
						]))
			];
		}
	},
	port: {
		right: 'The palm lies over the port, without pressing.',
		wrong: 'The palm presses: the mask is pushed onto the face.',
		draw: (rightly) => [
			...FACE,
			...FULL,
			mark('line', circle(120, 112, 15)),
			...palm([124, 118], 0.25, 1),
			...(rightly
				? []
				: arrows(
						[
							[60, 132],
							[92, 120]
						],
						[
							[186, 100],
							[154, 106]
						]
					))
		]
	},
	out: {
		right: 'The palm lies lightly over the exhalation cover; breathe out gently.',
		wrong: 'The palm presses: nothing can leave at the edge.',
		draw: (rightly) => [
			...FACE,
			...HALF,
			...CARTRIDGES,
			...OUTLET,
			...palm([122, 124], 0.2, 1),
			mark('dash', ellipse(120, 100, 40, 42)),
			...(rightly
				? []
				: arrows(
						[
							[62, 146],
							[94, 130]
						],
						[
							[186, 128],
							[154, 122]
						]
					))
		]
	}
};
