import { randomUUID as id } from 'node:crypto';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import type { Role } from '../../src/lib/server/kernel/permissions.ts';
import { endAuthorisation, giveAuthorisation } from '../../src/lib/server/people/authorisations.ts';
import { moveFit, startFit, stopFit } from '../../src/lib/server/people/fit-live.ts';
import {
	beginTasting,
	noticed,
	noticedNothing,
	screened
} from '../../src/lib/server/people/fit-taste.ts';
import { saveFitTest, signSession } from '../../src/lib/server/people/fit-tests.ts';
import {
	eraseWearer,
	exportOf,
	keepOwnItem,
	matchNames
} from '../../src/lib/server/people/own-data.ts';
import { importWearers, previewWearers } from '../../src/lib/server/people/tables.ts';
import { reportChange, saveWearer } from '../../src/lib/server/people/wearers.ts';

const step = () => ({ requestId: id(), id: id() });

/** Every write about people that a service offers, with the least role that may do it. */
export const PEOPLE_WRITES: [name: string, least: Role, write: (c: Context) => Promise<unknown>][] =
	[
		[
			'take a wearer in',
			'technician',
			(c) =>
				saveWearer(c, {
					requestId: id(),
					id: id(),
					version: 0,
					number: id().slice(0, 8),
					name: 'Someone',
					userId: null,
					eyewear: false,
					beard: false,
					clearedUntil: null,
					trainedUntil: null,
					placeIds: []
				})
		],
		[
			'report a change of a face',
			'viewer',
			(c) => reportChange(c, { id: id(), wearerId: id(), what: 'dental' })
		],
		[
			'sign a fit test from paper',
			'technician',
			(c) =>
				saveFitTest(c, {
					id: id(),
					wearerId: id(),
					modelId: id(),
					size: 'M',
					method: 'qualitative',
					protocol: null,
					agent: 'sweet',
					factors: {},
					noticedNothing: true,
					worn: '',
					testedOn: '2026-01-05',
					tester: ''
				})
		],
		[
			'begin a fit test',
			'technician',
			(c) =>
				startFit(c, [], {
					id: id(),
					wearerId: id(),
					number: '1',
					tag: '',
					modelId: id(),
					size: 'M',
					method: 'qualitative',
					protocol: null,
					agent: 'sweet',
					worn: '',
					before: [],
					againAfter: null
				})
		],
		[
			'make a movement again',
			'technician',
			(c) => moveFit(c, [], { ...step(), exercise: 'bend', how: 'again' })
		],
		['stop a fit test', 'technician', (c) => stopFit(c, [], step())],
		['note what was noticed before', 'technician', (c) => screened(c, { ...step(), squeezes: 10 })],
		['begin the movements', 'technician', (c) => beginTasting(c, step())],
		['note that it was noticed', 'technician', (c) => noticed(c, step())],
		['note that nothing was', 'technician', (c) => noticedNothing(c, step())],
		['sign a fit test', 'technician', (c) => signSession(c, step())],
		[
			'look at a table of wearers',
			'technician',
			(c) => previewWearers(c, new TextEncoder().encode('number,name\n1,A'))
		],
		[
			'take wearers in',
			'technician',
			(c) =>
				importWearers(c, {
					id: id(),
					file: new TextEncoder().encode('number\nX'),
					leaveOutBad: false
				})
		],
		['match names', 'supervisor', (c) => matchNames(c, { requestId: id(), matches: [] })],
		[
			'make an item somebody’s own',
			'technician',
			(c) => keepOwnItem(c, { requestId: id(), wearerId: id(), tag: 'HM-0001', own: true })
		],
		['write a person’s data out', 'technician', (c) => exportOf(c, id())],
		[
			'erase who somebody is',
			'admin',
			(c) => eraseWearer(c, { ...step(), version: 1, reason: 'their own request' })
		],
		[
			'authorise somebody',
			'supervisor',
			(c) =>
				giveAuthorisation(c, {
					id: id(),
					userId: 'nobody',
					job: 'repair',
					families: [],
					modelIds: [],
					from: '2026-01-01',
					until: null,
					evidence: 'Course'
				})
		],
		[
			'take an authorisation back',
			'supervisor',
			(c) => endAuthorisation(c, { ...step(), why: 'Left.' })
		]
	];
