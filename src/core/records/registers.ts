/** What a cell of a register holds. A moment is in UTC, a day by the calendar of the site. */
export type CellKind = 'text' | 'number' | 'day' | 'moment' | 'yes or no';

/** A register or a record as others read it: as CSV, by the interface, in the bundle of an auditor. */
export interface Register {
	/** What it is called, in words. */
	name: string;
	what: string;
	/** Who may read it beside the ones who keep it. */
	see: 'view' | 'see wearers';
	/** Heading of each column, with its unit where it has one; the field of the interface is the same in one word. */
	columns: Readonly<Record<string, CellKind>>;
	/** The column by which a row belongs to a period; null: it holds until it is changed. */
	period: string | null;
}

const WHO = { see: 'see wearers' } as const;
const ALL = { see: 'view' } as const;

/** Everything that goes out as a table. */
export const REGISTERS = {
	items: {
		...ALL,
		name: 'Items',
		what: 'Equipment with where it is, what it is and until when it counts.',
		period: null,
		columns: {
			tag: 'text',
			family: 'text',
			model: 'text',
			size: 'text',
			serial: 'text',
			place: 'text',
			'in use since': 'day',
			use: 'text',
			held: 'text',
			'due on': 'day',
			'due what': 'text',
			'last inspected on': 'day',
			'retired on': 'day'
		}
	},
	models: {
		...ALL,
		name: 'Models',
		what: 'Models of equipment.',
		period: null,
		columns: {
			name: 'text',
			maker: 'text',
			family: 'text',
			mount: 'text',
			'rated bar': 'number',
			'withdrawn on': 'day',
			'withdrawn why': 'text'
		}
	},
	places: {
		...ALL,
		name: 'Places',
		what: 'Where equipment is kept.',
		period: null,
		columns: { name: 'text', kind: 'text', 'closed on': 'day' }
	},
	inspections: {
		...ALL,
		name: 'Inspections',
		what: 'Inspections that were signed.',
		period: 'signed at',
		columns: {
			id: 'text',
			tag: 'text',
			list: 'text',
			version: 'number',
			'started at': 'moment',
			'signed at': 'moment',
			'signed by': 'text',
			'done on paper at': 'moment',
			outcome: 'text',
			reasons: 'text'
		}
	},
	answers: {
		...ALL,
		name: 'Answers',
		what: 'Each answer of each inspection.',
		period: 'answered at',
		columns: {
			id: 'text',
			inspection: 'text',
			position: 'number',
			step: 'text',
			value: 'text',
			code: 'text',
			note: 'text',
			readings: 'text',
			'answered at': 'moment',
			'answered by': 'text'
		}
	},
	'bench-tests': {
		...ALL,
		name: 'Bench tests',
		what: 'Pressure tests on the bench that came to their end.',
		period: 'ended at',
		columns: {
			id: 'text',
			tag: 'text',
			recipe: 'text',
			version: 'number',
			instrument: 'text',
			'started at': 'moment',
			'ended at': 'moment',
			by: 'text',
			outcome: 'text',
			'start Pa': 'number',
			'end corrected Pa': 'number',
			'leak Pa per min': 'number'
		}
	},
	faults: {
		...ALL,
		name: 'Faults',
		what: 'Faults as they were found, and how each ended.',
		period: 'reported at',
		columns: {
			id: 'text',
			tag: 'text',
			station: 'text',
			code: 'text',
			severity: 'text',
			note: 'text',
			'reported at': 'moment',
			'reported by': 'text',
			'closed at': 'moment',
			'closed how': 'text',
			'closed by': 'text',
			'closed why': 'text'
		}
	},
	repairs: {
		...ALL,
		name: 'Repairs',
		what: 'Repairs from their begin to the release.',
		period: 'started at',
		columns: {
			id: 'text',
			tag: 'text',
			repair: 'text',
			'started at': 'moment',
			'started by': 'text',
			'done at': 'moment',
			'done by': 'text',
			'released at': 'moment',
			'released by': 'text',
			minutes: 'number',
			note: 'text'
		}
	},
	cylinders: {
		...ALL,
		name: 'Cylinders',
		what: 'What is stamped on each cylinder, and its last test and pressure.',
		period: null,
		columns: {
			tag: 'text',
			'water volume L': 'number',
			'rated bar': 'number',
			'maximum bar': 'number',
			material: 'text',
			'empty kg': 'number',
			thread: 'text',
			'manufactured on': 'day',
			'life ends on': 'day',
			'test years': 'number',
			where: 'text',
			'pressure bar': 'number',
			'pressure at': 'moment',
			'tested on': 'day',
			stamp: 'text'
		}
	},
	fills: {
		...ALL,
		name: 'Fills',
		what: 'Fills of cylinders that came to their end.',
		period: 'ended at',
		columns: {
			id: 'text',
			tag: 'text',
			batch: 'number',
			source: 'text',
			'air test': 'text',
			instrument: 'text',
			'started at': 'moment',
			'ended at': 'moment',
			by: 'text',
			'start bar': 'number',
			'end bar': 'number',
			'end °C': 'number',
			'settled bar at 15 °C': 'number',
			outcome: 'text'
		}
	},
	'air-tests': {
		...ALL,
		name: 'Tests of air',
		what: 'Tests of the air of each source, as judged when they were entered.',
		period: 'taken at',
		columns: {
			id: 'text',
			source: 'text',
			'taken at': 'moment',
			laboratory: 'text',
			'sampled at': 'text',
			'pressure bar': 'number',
			'oxygen percent': 'number',
			'CO ppm': 'number',
			'CO2 ppm': 'number',
			'oil mg per m3': 'number',
			'water mg per m3': 'number',
			odour: 'yes or no',
			outcome: 'text',
			'entered by': 'text',
			'entered at': 'moment'
		}
	},
	entries: {
		...WHO,
		name: 'Entries',
		what: 'Who went in with which set, and how they came out.',
		period: 'started at',
		columns: {
			id: 'text',
			team: 'number',
			task: 'text',
			place: 'text',
			wearer: 'text',
			set: 'text',
			'started at': 'moment',
			'ended at': 'moment',
			'start bar': 'number',
			'end bar': 'number',
			'water volume L': 'number'
		}
	},
	wearers: {
		...WHO,
		name: 'Wearers',
		what: 'Who wears equipment, with until when they are cleared and trained.',
		period: null,
		columns: {
			number: 'text',
			name: 'text',
			glasses: 'yes or no',
			beard: 'yes or no',
			'cleared until': 'day',
			'trained until': 'day',
			'left on': 'day'
		}
	},
	'fit-tests': {
		...WHO,
		name: 'Fit tests',
		what: 'Fit tests that were signed.',
		period: 'signed at',
		columns: {
			id: 'text',
			session: 'text',
			number: 'text',
			model: 'text',
			size: 'text',
			mask: 'text',
			method: 'text',
			way: 'text',
			overall: 'number',
			passed: 'yes or no',
			'tested on': 'day',
			'from paper': 'yes or no',
			tester: 'text',
			'signed by': 'text',
			'signed at': 'moment'
		}
	},
	exams: {
		...WHO,
		name: 'Exams',
		what: 'Exams of the trainer.',
		period: 'ended at',
		columns: {
			id: 'text',
			who: 'text',
			family: 'text',
			list: 'text',
			passed: 'yes or no',
			'ended at': 'moment'
		}
	},
	'hand-outs': {
		...WHO,
		name: 'Hand-outs',
		what: 'What went over the counter to whom, what the gate said, and when each piece came back.',
		period: 'handed at',
		columns: {
			id: 'text',
			number: 'text',
			tag: 'text',
			task: 'text',
			gate: 'text',
			'against the gate because': 'text',
			'handed at': 'moment',
			'handed by': 'text',
			'back at': 'moment'
		}
	},
	'wash-batches': {
		...ALL,
		name: 'Wash batches',
		what: 'Baths that came to their end.',
		period: 'ended at',
		columns: {
			id: 'text',
			number: 'number',
			'started at': 'moment',
			'ended at': 'moment',
			agent: 'text',
			'dose ppm': 'number',
			'contact min': 'number',
			outcome: 'text',
			decision: 'text',
			items: 'number'
		}
	},
	filters: {
		...ALL,
		name: 'Filters in the store',
		what: 'Lots of filters.',
		period: null,
		columns: {
			filter: 'text',
			lot: 'text',
			'use by': 'day',
			sealed: 'number',
			location: 'text',
			'recalled at': 'moment'
		}
	},
	parts: {
		...ALL,
		name: 'Parts in the store',
		what: 'Lots of spare parts.',
		period: null,
		columns: { part: 'text', lot: 'text', quantity: 'number', 'use by': 'day', location: 'text' }
	},
	rules: {
		...ALL,
		name: 'Rules of the site',
		what: 'Intervals that the site set itself.',
		period: null,
		columns: {
			id: 'text',
			what: 'text',
			detail: 'text',
			'every months': 'number',
			'every days': 'number',
			'every uses': 'number',
			'every hours': 'number',
			'every cycles': 'number',
			after: 'text',
			window: 'number',
			families: 'text',
			model: 'text',
			use: 'text',
			place: 'text',
			replaces: 'text',
			reason: 'text',
			'ended on': 'day'
		}
	},
	log: {
		...WHO,
		name: 'The log',
		what: 'Every entry of the log with its hash and the one before it.',
		period: 'at',
		columns: {
			entry: 'number',
			at: 'moment',
			who: 'text',
			action: 'text',
			subject: 'text',
			tag: 'text',
			payload: 'text',
			'previous hash': 'text',
			hash: 'text'
		}
	}
} as const satisfies Record<string, Register>;

export type RegisterKey = keyof typeof REGISTERS;
export const REGISTER_KEYS = Object.keys(REGISTERS) as RegisterKey[];

/** Rows of a page of the interface, where it is not asked for others, and at most. Site. */
export const REGISTER_PAGE = { usual: 200, most: 1000 };

/** A row with a cell for each column; null: nothing is known. */
export type RegisterRow = Record<string, string | number | boolean | null>;

/** A heading as a field of the interface: "water volume L" is waterVolumeL. */
export const fieldOf = (heading: string): string =>
	heading
		.replaceAll('°', '')
		.split(' ')
		.map((word, i) =>
			i === 0
				? word.charAt(0).toLowerCase() + word.slice(1)
				: word.charAt(0).toUpperCase() + word.slice(1)
		)
		.join('');

const CELL_SCHEMAS: Record<CellKind, object> = {
	text: { type: ['string', 'null'] },
	number: { type: ['number', 'null'] },
	'yes or no': { type: ['boolean', 'null'] },
	day: { type: ['string', 'null'], format: 'date' },
	moment: { type: ['string', 'null'], format: 'date-time' }
};

/** JSON schema of a row of a register, as the interface gives it. */
export const rowSchema = ({ columns }: Register): object => ({
	type: 'object',
	properties: Object.fromEntries(
		Object.entries(columns).map(([heading, kind]) => [fieldOf(heading), CELL_SCHEMAS[kind]])
	),
	required: Object.keys(columns).map(fieldOf)
});
