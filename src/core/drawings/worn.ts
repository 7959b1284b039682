import type { Done } from './hands.ts';
import { HEAD, MASK_ON } from './head.ts';
import { arc, circle, type Mark, mark, path, rect, smooth, specks } from './mark.ts';

const HELMET: Mark[] = [
	mark('body', 'M72 50C72 18 100 2 136 4C174 6 196 26 194 52Z'),
	mark('line', path([62, 52], [198, 52]))
];
/** A dust mask without a housing. */
const CUP: Mark[] = [
	mark(
		'shade',
		smooth(
			[
				[88, 62],
				[60, 80],
				[56, 102],
				[70, 120],
				[94, 122],
				[98, 92]
			],
			true
		)
	),
	mark(
		'thin',
		smooth([
			[80, 72],
			[70, 94],
			[80, 116]
		])
	)
];

/** A cup from the front, with a clip at its top or at its bottom. */
const cupFront = (clipUp: boolean): Mark[] => [
	mark(
		'body',
		'M76 44C76 18 96 6 120 6C144 6 164 18 164 44L162 88C160 120 140 138 120 138C100 138 80 120 78 88Z'
	),
	mark('line', path([92, 50], [108, 50])),
	mark('line', path([132, 50], [148, 50])),
	mark(
		'shade',
		smooth(
			[
				[120, 62],
				[98, 74],
				[86, 100],
				[98, 126],
				[120, 134],
				[142, 126],
				[154, 100],
				[142, 74]
			],
			true
		)
	),
	mark('bold', clipUp ? arc(120, 82, 16, -0.17, 0.17) : arc(120, 114, 16, 0.33, 0.67)),
	mark('thin', path([88, 92], [78, 78])),
	mark('thin', path([152, 92], [162, 78]))
];

/** Two filters seen from their faces on one mask. */
const twins = (alike: boolean): Mark[] => [
	mark(
		'shade',
		smooth(
			[
				[120, 26],
				[92, 58],
				[84, 112],
				[120, 134],
				[156, 112],
				[148, 58]
			],
			true
		)
	),
	mark('line', circle(120, 104, 14)),
	mark('body', circle(58, 84, 36)),
	mark('thin', circle(58, 84, 27)),
	...(alike
		? [mark('body', circle(182, 84, 36)), mark('thin', circle(182, 84, 27))]
		: [mark('body', rect(148, 54, 66, 60, 8)), mark('thin', rect(156, 62, 50, 44, 5))])
];

/** What comes from the left through a filter in section, or stays in it. */
const through = (what: 'vapour' | 'dust', passes: boolean): Mark[] => {
	const filter: Mark[] =
		what === 'vapour'
			? passes
				? [
						mark('body', rect(104, 22, 18, 116, 4)),
						...[32, 50, 68, 86, 104, 122].map((y) =>
							mark('thin', path([106, y], [120, y + 9], [106, y + 14]))
						)
					]
				: [mark('body', rect(96, 22, 54, 116, 4)), ...specks(60, 100, 26, 46, 108, 3)]
			: passes
				? [mark('body', rect(96, 22, 54, 116, 4)), ...specks(26, 100, 28, 46, 104, 4)]
				: [
						mark('body', rect(82, 22, 14, 116, 4)),
						...[32, 50, 68, 86, 104, 122].map((y) =>
							mark('thin', path([84, y], [94, y + 9], [84, y + 14]))
						),
						mark('body', rect(100, 22, 50, 116, 4)),
						...specks(50, 104, 28, 42, 104, 3)
					];
	const wave = (x: number, y: number, length: number) =>
		smooth(
			Array.from({ length: length / 8 + 1 }, (_, i): [number, number] => [
				x + i * 8,
				y + (i % 2 ? 6 : -6)
			])
		);
	const behind = (draw: Mark[]) => (passes ? draw : []);
	return what === 'vapour'
		? [
				...filter,
				...[46, 80, 114].map((y) => mark('line', wave(16, y, 72))),
				...behind([46, 80, 114].map((y) => mark('line', wave(140, y, 72))))
			]
		: [...filter, ...specks(22, 12, 30, 62, 100, 3), ...behind(specks(18, 160, 30, 62, 100, 3))];
};

const strap = (...points: [number, number][]): Mark => mark('bold', smooth(points));

/** How breathing protection is worn, rightly and as it is often worn. Common practice. */
export const WORN = {
	'upside-down': {
		right: 'The clip of the dust mask lies over the nose.',
		wrong: 'The dust mask is worn upside down: its clip is at the chin.',
		draw: cupFront
	},
	'one-strap': {
		right: 'One strap high, one low.',
		wrong: 'The upper strap hangs down: one alone pulls the mask to one edge.',
		draw: (rightly: boolean) => [
			...HEAD,
			...CUP,
			strap([94, 110], [128, 116], [166, 114]),
			rightly
				? strap([92, 74], [126, 46], [172, 34])
				: strap([92, 74], [60, 60], [40, 84], [44, 128])
		]
	},
	'over-helmet': {
		right: 'The straps lie on the head, the helmet over them.',
		wrong: 'The straps run over the helmet: knocked off, it takes the mask along.',
		draw: (rightly: boolean) =>
			rightly
				? [
						...HEAD,
						...MASK_ON,
						strap([92, 76], [126, 66], [180, 60]),
						strap([92, 108], [128, 114], [166, 114]),
						...HELMET
					]
				: [
						...HEAD,
						...MASK_ON,
						...HELMET,
						strap([92, 72], [112, 40], [150, 18], [182, 18]),
						strap([92, 108], [128, 114], [166, 114])
					]
	},
	'two-kinds': {
		right: 'Both filters are of one kind and class.',
		wrong: 'One filter is another kind: the weaker decides.',
		draw: twins
	},
	'prefilter-alone': {
		right: 'The pre-filter lies before the cartridge.',
		wrong: 'There is the pre-filter alone: nothing holds the vapour or fine dust.',
		draw: (rightly: boolean): Mark[] => [
			mark(
				'shade',
				smooth(
					[
						[196, 34],
						[168, 58],
						[164, 110],
						[196, 138],
						[226, 120],
						[226, 52]
					],
					true
				)
			),
			...(rightly
				? [mark('body', rect(96, 46, 68, 76, 6)), ...specks(44, 102, 52, 56, 64, 3)]
				: [mark('dash', rect(96, 46, 68, 76, 6))]),
			mark('body', rect(rightly ? 78 : 150, 42, 14, 84, 4)),
			...[52, 70, 88, 106].map((y) =>
				mark(
					'thin',
					path([rightly ? 80 : 152, y], [rightly ? 90 : 162, y + 9], [rightly ? 80 : 152, y + 14])
				)
			)
		]
	},
	'dust-filter-vapour': {
		right: 'A bed of sorbent holds the vapour.',
		wrong: 'Vapour goes through the dust filter as if nothing were there.',
		draw: (rightly: boolean) => through('vapour', !rightly)
	},
	'cartridge-dust': {
		right: 'A particle filter before the bed holds the dust.',
		wrong: 'Dust passes between the grains of the bed.',
		draw: (rightly: boolean) => through('dust', !rightly)
	},
	stubble: {
		right: 'The skin is smooth where the edge lies.',
		wrong: 'Stubble lies under the edge: air goes through it.',
		draw: (rightly: boolean): Mark[] => [
			...HEAD,
			...(rightly ? [] : specks(60, 84, 92, 46, 40, 1.6)),
			...MASK_ON,
			strap([92, 76], [126, 66], [180, 62])
		]
	}
} as const satisfies Record<string, Done>;
export type WornKey = keyof typeof WORN;
