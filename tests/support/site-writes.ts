import { randomUUID as id } from 'node:crypto';
import {
	countParts,
	disposeParts,
	receiveParts,
	setPartLevel
} from '../../src/lib/server/faults/parts.ts';
import { startPlannedJob } from '../../src/lib/server/faults/planned.ts';
import { openScreen } from '../../src/lib/server/access/screens.ts';
import { noteEvent } from '../../src/lib/server/register/events.ts';
import { fitLayer, removeLayer } from '../../src/lib/server/filters/layers.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import type { Role } from '../../src/lib/server/kernel/permissions.ts';
import { chooseNotices, tryAgain } from '../../src/lib/server/notices/own.ts';
import { setUse } from '../../src/lib/server/register/register.ts';
import { importFilters, importParts, previewStore } from '../../src/lib/server/register/tables.ts';
import { takeTemplates } from '../../src/lib/server/register/templates.ts';
import { closePlace, savePlace } from '../../src/lib/server/site/places.ts';
import { endRule, previewRule, type RuleInput, saveRule } from '../../src/lib/server/site/rules.ts';
import { endSetUp } from '../../src/lib/server/site/set-up.ts';
import { saveSite } from '../../src/lib/server/site/settings.ts';
import { startFromFile } from '../../src/lib/server/site/settings-file.ts';
import { PAST_KINDS } from '../../src/core/records/past-tables.ts';
import { archiveSite } from '../../src/lib/server/records/archive.ts';
import { dropRetained, setRetention } from '../../src/lib/server/records/retention.ts';
import { takePast } from '../../src/lib/server/records/take-in.ts';
import { saveTestHouse } from '../../src/lib/server/site/test-houses.ts';

const NOTHING = new Uint8Array();
const EMPTY_SETTINGS = {
	format: 'grevan settings',
	version: 1,
	site: {
		timeZone: 'Europe/Oslo',
		ruleSet: 'uk',
		codeScheme: 'en',
		sealWays: 'both',
		setSchool: 'either',
		workDays: [1],
		benchMinutes: 60,
		holidays: []
	},
	places: [],
	models: [],
	rules: [],
	testHouses: []
};
const rule = (): RuleInput => ({
	requestId: id(),
	id: id(),
	version: 0,
	reason: '',
	meant: false,
	rule: {
		what: 'inspection',
		detail: '',
		every: { days: 7 },
		window: 1,
		families: [],
		modelId: null,
		usePattern: null,
		placeId: null,
		replaces: null
	}
});

/** Writes about the site and its stores, each with the least role that may do it. */
export const SITE_WRITES: [string, Role, (context: Context) => Promise<unknown>][] = [
	[
		'open a second screen',
		'technician',
		(c) =>
			openScreen(c, {
				id: id(),
				shows: { about: 'x', title: 'x', text: '', lines: [], figure: null, until: null }
			})
	],
	[
		'choose messages',
		'viewer',
		(c) => chooseNotices(c, { requestId: id(), digest: true, urgent: false })
	],
	['send a message again', 'supervisor', (c) => tryAgain(c, { requestId: id(), noticeId: id() })],
	[
		'take parts in',
		'technician',
		(c) =>
			receiveParts(c, {
				id: id(),
				part: 'gasket',
				lot: 'G1',
				useBy: null,
				quantity: 1,
				location: ''
			})
	],
	[
		'say when a part is bought',
		'technician',
		(c) => setPartLevel(c, { requestId: id(), part: 'gasket', level: 2 })
	],
	[
		'count parts',
		'technician',
		(c) =>
			countParts(c, {
				requestId: id(),
				counts: [{ lotId: id(), seen: 1, counted: 1 }],
				note: ''
			})
	],
	[
		'take parts out',
		'technician',
		(c) => disposeParts(c, { requestId: id(), lotId: id(), seen: 1, why: 'Cut' })
	],
	[
		'note what happened',
		'viewer',
		(c) => noteEvent(c, { id: id(), tag: 'HM-0001', what: 'drop', note: '' })
	],
	[
		'begin a planned job',
		'technician',
		(c) => startPlannedJob(c, { id: id(), tag: 'HM-0001', repair: 'replace-disc' })
	],
	['fit a layer', 'technician', (c) => fitLayer(c, { id: id(), tag: 'FP-0001', lotId: id() })],
	[
		'take a layer off',
		'technician',
		(c) => removeLayer(c, { requestId: id(), tag: 'FP-0001', layerId: id() })
	],
	[
		'set the use of items',
		'technician',
		(c) => setUse(c, { requestId: id(), tags: [], usePattern: 'shared' })
	],
	['look at a table of parts', 'technician', (c) => previewStore(c, 'parts', NOTHING)],
	[
		'take filters in from a table',
		'technician',
		(c) => importFilters(c, { id: id(), file: NOTHING, leaveOutBad: false })
	],
	[
		'take parts in from a table',
		'technician',
		(c) => importParts(c, { id: id(), file: NOTHING, leaveOutBad: false })
	],
	[
		'take models by construction',
		'supervisor',
		(c) =>
			takeTemplates(c, {
				requestId: id(),
				taken: [{ template: 'kite', name: 'Kite', maker: '' }]
			})
	],
	[
		'save the site',
		'supervisor',
		(c) => saveSite(c, { requestId: id(), version: 99, choices: { name: 'Other' } })
	],
	[
		'start from a file',
		'supervisor',
		(c) =>
			startFromFile(c, {
				requestId: id(),
				bytes: new TextEncoder().encode(JSON.stringify(EMPTY_SETTINGS))
			})
	],
	['end the set-up', 'supervisor', (c) => endSetUp(c, id(), true)],
	[
		'save a place',
		'supervisor',
		(c) =>
			savePlace(c, {
				requestId: id(),
				id: id(),
				version: 9,
				name: 'Hut',
				kind: 'room',
				storage: [],
				responsible: null,
				floors: {},
				above: false
			})
	],
	['close a place', 'supervisor', (c) => closePlace(c, { requestId: id(), id: id() })],
	[
		'save a test house',
		'supervisor',
		(c) =>
			saveTestHouse(c, {
				requestId: id(),
				id: id(),
				version: 9,
				name: 'House',
				takes: ['suits'],
				turnaroundDays: 3,
				closed: false
			})
	],
	['look at a rule', 'supervisor', (c) => previewRule(c, rule())],
	['save a rule', 'supervisor', (c) => saveRule(c, { ...rule(), version: 9 })],
	[
		'end a rule',
		'supervisor',
		(c) => endRule(c, { requestId: id(), id: id(), version: 0, reason: 'gone' })
	],
	[
		'say how long messages are kept',
		'admin',
		(c) => setRetention(c, { requestId: id(), kind: 'messages', keepMonths: 12, version: 0 })
	],
	[
		'let go of old messages',
		'admin',
		(c) => dropRetained(c, { requestId: id(), kind: 'messages', version: 0 })
	],
	['take the whole site out', 'admin', (c) => archiveSite(c, id(), 'postgres://nowhere')],
	...PAST_KINDS.map((kind): [string, Role, (c: Context) => Promise<unknown>] => [
		`take a table of ${kind} in`,
		kind === 'rules' ? 'supervisor' : 'technician',
		(c) => takePast(c, kind, { id: id(), file: NOTHING, leaveOutBad: false })
	])
];
