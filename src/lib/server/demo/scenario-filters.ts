/** Lots: days until the use-by date, sealed filters left. */
export const FILTERS = [
	{
		name: 'Tesselow A2',
		bed: { carbonMassG: 52, faceAreaCm2: 44 },
		reorder: 20,
		mount: 'quarter turn',
		en: 'A2',
		us: 'OV',
		massG: 85,
		openedMonths: 6,
		lots: [
			[610, 48],
			[-12, 6]
		]
	},
	{
		name: 'Tesselow A2-P3',
		bed: { carbonMassG: 48, faceAreaCm2: 44 },
		reorder: 16,
		mount: 'quarter turn',
		en: 'A2-P3',
		us: 'OV-P100',
		massG: 118,
		openedMonths: 6,
		lots: [[540, 36]]
	},
	{
		name: 'Tesselow K2',
		bed: null,
		reorder: 12,
		mount: 'quarter turn',
		en: 'K2',
		us: 'AM',
		massG: 92,
		openedMonths: 6,
		lots: [[420, 30]]
	},
	{
		name: 'Tesselow ABEK',
		bed: { carbonMassG: 26, microporeVolumeCm3PerG: 0.42 },
		reorder: 12,
		mount: 'quarter turn',
		en: 'A1B1E1K1',
		us: 'OV/AG/AM',
		massG: 110,
		openedMonths: 6,
		lots: [[300, 24]]
	},
	{
		name: 'Tesselow ABEK2-P3',
		bed: { carbonMassG: 46, microporeVolumeCm3PerG: 0.42, faceAreaCm2: 52 },
		reorder: 20,
		mount: 'quarter turn',
		en: 'A2B2E2K2-P3',
		us: 'OV/AG/AM/HS-P100',
		massG: 164,
		openedMonths: 6,
		lots: [[300, 16]]
	},
	{
		name: 'Tesselow AX',
		bed: null,
		reorder: 8,
		mount: 'quarter turn',
		en: 'AX',
		us: 'OV',
		massG: 98,
		openedMonths: null,
		lots: [[380, 12]]
	},
	{
		name: 'Tesselow P3 pad',
		bed: null,
		reorder: 40,
		mount: 'quarter turn',
		en: 'P3',
		us: 'P100',
		massG: 22,
		openedMonths: null,
		lots: [[900, 80]]
	},
	{
		name: 'Brannick P2 disc',
		bed: null,
		reorder: 30,
		mount: 'press ring',
		en: 'P2',
		us: 'N95',
		massG: 18,
		openedMonths: null,
		lots: [[700, 60]]
	},
	{
		name: 'Brannick A1',
		bed: null,
		reorder: 12,
		mount: 'press ring',
		en: 'A1',
		us: 'OV',
		massG: 74,
		openedMonths: 4,
		lots: [[250, 20]]
	},
	{
		name: 'Brannick B2-P3',
		bed: null,
		reorder: 6,
		mount: 'press ring',
		en: 'B2-P3',
		us: 'AG-P100',
		massG: 126,
		openedMonths: 6,
		lots: [[200, 1]]
	}
] as const;

/** What hangs on hoses and sits on blowers: the same, and how many an item takes. */
export const CANISTERS = [
	{
		name: 'Tesselow Harbour ABEK2-P3',
		bed: null,
		carries: 'hose',
		filters: 1,
		reorder: 4,
		mount: 'thread',
		en: 'A2B2E2K2-P3',
		us: 'OV/AG/AM/HS-P100',
		massG: 480,
		openedMonths: 6,
		lot: { name: 'HRB-4410', days: 420, sealed: 8 }
	},
	{
		name: 'Tesselow Breeze A2-P3',
		bed: null,
		carries: 'blower',
		filters: 2,
		reorder: 12,
		mount: 'blower',
		en: 'A2-P3',
		us: 'OV-P100',
		massG: 210,
		openedMonths: 6,
		lot: { name: 'BRZ-2207', days: 510, sealed: 24 }
	},
	{
		name: 'Brannick Flee A1B1E1K1-P2',
		bed: null,
		carries: 'pouch',
		filters: 1,
		reorder: 4,
		mount: 'hood',
		en: 'A1B1E1K1-P2',
		us: 'OV/AG/AM-P100',
		massG: 190,
		openedMonths: null,
		lot: { name: 'FLE-1180', days: 730, sealed: 10 }
	}
] as const;

/** Escape sets that carry a filter instead of air: their model, and the tags of those that are of it. */
export const FILTER_HOODS = {
	maker: 'Brannick',
	name: 'Brannick Way Out F',
	tags: ['ES-0231', 'ES-0232', 'ES-0233', 'ES-0234', 'ES-0235', 'ES-0236']
} as const;

/** What goes over filters and is none alone. */
export const OVER_FILTERS = [
	{ name: 'Tesselow dust pad', role: 'pre-filter', mount: 'quarter turn', en: 'P2', massG: 9 },
	{ name: 'Tesselow snap ring', role: 'adapter', mount: 'quarter turn', en: null, massG: 6 }
] as const;
