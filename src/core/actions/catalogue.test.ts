import { describe, expect, it } from 'vitest';
import {
	ACTIONS,
	actionsOf,
	checkPayload,
	DETAILS,
	RECORD_GROUPS,
	subjectOf,
	tell,
	type ActionName
} from './catalogue.ts';

/** A payload of each action, as its write makes it. */
const PAYLOADS: { [N in ActionName]: Parameters<typeof checkPayload<N>>[1] } = {
	'inspection.started': { procedure: 'half-mask', version: 1 },
	'inspection.answered': { step: 'gasket', value: 'reject', code: 'CURL', note: null },
	'inspection.assisted': { assistant: 'Odd Kessmer', account: 'user-odd' },
	'inspection.hold-started': { step: 'hold', start: 295, seconds: 60 },
	'drill.exam-begun': { procedure: 'Half mask', who: 'Ilse', beside: 'Tove' },
	'drill.exam-ended': {
		procedure: 'Half mask',
		who: 'Ilse',
		points: 90,
		passed: true,
		why: '90 of 100 points; 75 are asked.'
	},
	'defect.photo': { sha256: 'ab', width: 10, height: 10 },
	'inspection.photo': { step: 'lens', sha256: 'ab', width: 10, height: 10 },
	'inspection.signed': {
		procedure: 'half-mask',
		version: 1,
		outcome: 'pass',
		paper: { day: '2026-11-24', by: 'Odd Kessmer' }
	},
	'instrument.read': { step: 'whistle', bar: 55, instrument: 'BA bench' },
	'procedure.edition': { version: 101, from: 1, reason: 'Shorter', changes: [] },
	'muster.started': { place: null, family: null },
	'muster.presented': { expected: false },
	'muster.exception': { station: 'harness', code: 'ELAS' },
	'muster.closed': { presented: 3, missing: ['HM-0001'] },
	'seal.checked': { outcome: 'seals', attempts: 1, leaks: 0 },
	'defect.opened': { station: 'exhalation', code: 'CURL', severity: 'stop', note: 'Out of wash.' },
	'defect.reported-again': { station: 'exhalation', code: 'CURL' },
	'defect.withdrawn': { station: 'exhalation', code: 'CURL' },
	'defect.report-withdrawn': { station: 'exhalation', code: 'CURL' },
	'repair.started': { repair: 'clean', defects: ['CURL'] },
	'repair.done': { repair: 'clean', proof: ['looked'], parts: [], note: '' },
	'repair.closed': { repair: 'wipe', defects: ['DIRTY'] },
	'repair.released': { repair: 'clean', defects: [] },
	'item.retired': { repair: 'retire', defects: [] },
	'filters.opened': { pair: 'FP-0001', filter: 'A2', changeOn: '2026-12-03' },
	'filters.worn': {
		pair: 'FP-0001',
		task: 'Laying up',
		minutes: 60,
		on: '2026-11-24',
		lifeMin: 120,
		used: 0.5
	},
	'filters.discarded': { pair: 'FP-0001', why: 'smell' },
	'item.use-changed': { from: 'shared', to: 'emergency' },
	'backup.taken': { file: 'grevan-x.backup', sha256: 'ab', entries: 12, encrypted: false },
	'retention.set': { kind: 'drills', keepMonths: 24, before: null },
	'retention.dropped': { kind: 'messages', rows: 40, before: '2026-05-01' },
	'site.archived': { bytes: 1_200_000, sha256: 'b'.repeat(64) },
	'records.bundled': {
		from: '2026-11-01',
		to: '2026-11-30',
		files: 12,
		sha256: 'a'.repeat(64)
	},
	'backup.restored': { takenAt: '2026-11-24T02:00:00.000Z', entries: 12 },
	'site.begun': { by: 'Nora' },
	'site.set-up': { lacks: ['Write the first hazard plan'], twoStep: true },
	'site.copied': { places: 2, models: 5, rules: 1, testHouses: 0 },
	'site.changed': { changes: [{ what: 'name', from: 'A', to: 'B' }] },
	'rule.made': { rule: 'Inspection every 7 days', reason: 'Dust', before: null },
	'rule.ended': { rule: 'Inspection every 7 days', reason: 'Dust is gone' },
	'place.added': { name: 'Shed' },
	'place.changed': { name: 'Shed', changes: [{ what: 'kind', from: 'room', to: 'store' }] },
	'place.closed': { name: 'Shed' },
	'test-house.added': { name: 'House' },
	'test-house.changed': { name: 'House', changes: [{ what: 'name', from: 'A', to: 'B' }] },
	'part.received': { part: 'O-ring', lot: 'L1', quantity: 10, useBy: null },
	'part.level-set': { part: 'O-ring', from: 0, to: 5 },
	'part.counted': { part: 'O-ring', lot: 'L1', from: 10, to: 9, note: 'One under the bench.' },
	'parts.counted': { lots: 4, differ: 1, note: '' },
	'part.disposed': { part: 'O-ring', lot: 'L1', quantity: 2, why: 'Cut.' },
	'work-plan.kept': { number: 3, way: 'moved', jobs: 412, changes: 2, peakMin: 250, boundMin: 246 },
	'work-plan.pinned': {
		tag: 'GS-1',
		title: 'Bench test',
		day: '2026-12-10',
		person: 'Ilse Norrby'
	},
	'work-plan.unpinned': { tag: 'GS-1', title: 'Bench test' },
	'work-plan.day-barred': { day: '2026-12-10', person: null, why: 'Stock-take' },
	'work-plan.day-opened': { day: '2026-12-10', person: 'Ilse Norrby' },
	'work-hours.set': { person: 'Ilse Norrby', minutes: [240, 240, 240, 240, 120, 0, 0] },
	'plan-feed.made': { of: 'Grain quay' },
	'plan-feed.revoked': { of: 'Grain quay' },
	'defect.taken-back': { station: 'exhalation', code: 'CURL', why: 'Wrong mask.', stays: false },
	'defect.not-confirmed': { station: 'exhalation', code: 'CURL', why: 'Disc is flat.' },
	'parts.recalled': {
		part: 'Exhalation disc',
		lot: 'L-2',
		why: 'Too soft.',
		held: 3,
		had: 1,
		fromStore: 8
	},
	'cluster.alarm': { name: 'Exhalation disc, lot L-2', faults: 9, expected: 1.4 },
	'cluster.looked': { name: 'Exhalation disc, lot L-2', found: 'Too soft. Called back.' },
	'recall.looked': { found: 'Nothing.' },
	'item.sealed': { number: '004512' },
	'item.seal-broken': { number: '004512', why: 'Handed out.' },
	'item.brought': { from: 'returned', to: 'shelf', place: 'Bay', note: 'wiped' },
	'item.handed-out': {
		wearer: 'W101',
		task: 'Laying up',
		outcome: 'do not',
		reasons: ['No fit test.'],
		override: 'Rescue',
		because: 'handed on',
		offline: true
	},
	'item.returned': {
		wearer: 'W101',
		used: true,
		minutes: 40,
		bar: 90,
		noticed: ['smell'],
		contaminatedWith: ['styrene'],
		next: 'returned'
	},
	'item.wiped': { wipes: 2 },
	'item.looked-over': { good: true, looked: ['Discs flat'] },
	'batch.begun': { number: 3 },
	'batch.item': { number: 3, in: true },
	'batch.read': { number: 3, celsius: 41.5, measured: true },
	'batch.step': { number: 3, step: 'disinfect', agent: 'chlorine', dosePpm: 52 },
	'batch.ended': {
		number: 3,
		outcome: 'fail',
		items: 4,
		reasons: ['Washed at 47 °C.'],
		decision: 'inspect discs'
	},
	'stock.opened': { name: 'C 1', agent: 'chlorine', leftMl: 5000 },
	'stock.changed': { name: 'C 1', what: 'taken away' },
	'wearer.added': { number: '41' },
	'wearer.changed': { number: '41' },
	'wearer.change-reported': { number: '41', what: 'dental' },
	'fit-test.begun': { number: '41', model: 'T1', size: 'M', way: 'UK, seven exercises' },
	'fit-test.step': { number: '41', step: 'bend, once more' },
	'fit-test.ended': { number: '41', ended: 'lost' },
	'wearers.imported': { wearers: 60 },
	'wearer.names-matched': { number: '41', names: 2 },
	'wearer.own-item': { number: '41', tag: 'HM-0101', own: true },
	'wearer.exported': { number: '41' },
	'wearer.erased': { number: '41', reason: 'their own request' },
	'authorisation.given': {
		person: 'Someone',
		job: 'repair',
		scope: 'everything',
		from: '2026-11-24',
		until: null,
		evidence: 'Course'
	},
	'authorisation.taken-back': { person: 'Someone', job: 'repair', why: 'Left the bench.' },
	'fit-test.signed': {
		number: '41',
		model: 'T1',
		size: 'M',
		method: 'quantitative',
		passed: true,
		overall: 1560.4,
		on: '2026-11-27'
	},
	'records.taken-in': { kind: 'air-tests', rows: 12, sha256: 'c'.repeat(64) },
	'store.imported': { kind: 'filters', lots: 3, models: 1 },
	'table.taken-back': { kind: 'items', rows: 200 },
	'filter-layer.fitted': { pair: 'FP-0001', what: 'Ring', lot: 'R1', quantity: 2 },
	'filter-layer.removed': { pair: 'FP-0001', what: 'Ring', lot: 'R1', quantity: 2 },
	'filters.recalled': { lot: 'L1', reason: 'Notice of the maker.' },
	'filter-lot.received': { filter: 'A2', lot: 'L1', useBy: '2029-02-23', quantity: 4 },
	'filter-lot.recalled': { lot: 'L1', reason: 'Notice of the maker.', items: [] },
	'filter-lot.disposed': { lot: 'L1', quantity: 4, why: 'Wet.' },
	'filter-model.added': { name: 'A2' },
	'filter-model.changed': { name: 'A2' },
	'plan.made': { task: 'Spray', placeId: 'p', facts: {}, version: 1, outcome: 'filter' },
	'plan.changed': { task: 'Spray', placeId: 'p', facts: {}, version: 2, outcome: 'filter' },
	'plan.approved': { task: 'Spray', edition: 1, expiresOn: '2029-02-23' },
	'plan.flagged': { pair: 'p', text: 'Smelled.' },
	'plan.flag-cleared': { flag: 'Smelled.', why: 'Measured anew.' },
	'substance.added': { name: 'Own', changed: [], why: 'Sheet.' },
	'substance.corrected': { name: 'Own', changed: [], why: 'Sheet.' },
	'substances.imported': { rows: 3, leftOut: 0, why: 'Sheet.' },
	'register.filled': { items: 2, site: 'Yard' },
	'register.imported': { items: 2, first: 'HM-0001', last: 'HM-0002' },
	'item.added': { tag: 'HM-0001', model: 'T1', serial: '' },
	'item.moved': { from: 'Shed', to: 'Store' },
	'item.event-noted': { what: 'drop', note: 'Off the bench.' },
	'set.moved': { what: 'onto BA-0001', from: null, to: 'BA-0001' },
	'model.added': { name: 'T1' },
	'model.changed': { name: 'T1' },
	'model.withdrawn': { model: 'T1', why: 'Valve.' },
	'account.made': { role: 'technician' },
	'account.changed': { role: 'technician' },
	'account.key-made': { name: 'laboratory' },
	'account.role-changed': { from: 'viewer', to: 'technician' },
	'account.renamed': {},
	'account.disabled': { why: 'Left the site.' },
	'account.enabled': {},
	'account.link-made': { purpose: 'invite' },
	'account.password-chosen': { by: 'link' },
	'account.pin-chosen': {},
	'account.pin-taken': { failures: 8 },
	'account.card-given': {},
	'screen.opened': { about: 'BA-0208' },
	'screen.lit': { about: 'BA-0208' },
	'account.notices': { digest: true, urgent: false },
	'notice.tried-again': { subject: 'Yard: 2 overdue', address: 'tech@example.test' },
	'account.two-step': { on: true },
	'account.key-revoked': { name: 'laboratory' },
	'session.begun': { way: 'pin', shared: true, from: null },
	'session.refused': { way: 'password', why: 'wrong', failures: 2 },
	'session.ended': { why: 'by hand', count: 2 },
	'device.shared': { shared: true, name: 'Bench tablet' },
	'site.secret-renewed': { pins: 4, twoStep: 1 },
	'site.access': {
		twoPeople: true,
		idleMinutes: 30,
		wholeHours: 12,
		proofMinutes: 10,
		twoStepRoles: []
	},
	'bench.started': { recipe: 'suit-en', version: 1, instrument: 'Bench 1', bench: 1 },
	'bench.read-in': { recipe: 'suit-en', version: 1, file: 'trace.csv' },
	'bench.judged': { recipe: 'suit-en', outcome: 'pass', leakPaPerMin: 12 },
	'cylinder.entered': { waterVolumeL: 6.8, ratedBar: 300 },
	'cylinder.corrected': { waterVolumeL: 6.8, ratedBar: 300 },
	'cylinder.tested': { testedOn: '2026-11-01', passed: true, stamp: 'TH 3' },
	'cylinder.pressure': { bar: 200, why: 'read by hand', entered: '2900 psi' },
	'cylinder.looked-inside': {},
	'cylinder.brought': { tag: 'CY-0001', from: 'rack', to: 'filling' },
	'fill.started': { batch: 1, startBar: 40, instrument: 'Panel', looked: true },
	'fill.bank': { bank: 1 },
	'fill.pumped': { bank: 1 },
	'fill.ended': { endBar: 310, endC: 30, settledBar: 294, outcome: 'full', source: 'Compressor' },
	'air-source.added': { name: 'Compressor', kind: 'compressor', banks: [] },
	'air.tested': { source: 'Compressor', test: 't', outcome: 'fail', held: ['CY-0001'] },
	'air.failed': { source: 'Compressor', test: 't' },
	'air.worked-on': { source: 'Compressor', what: 'Valve plate.' },
	'rig.changed': {},
	'rig.sorbent-changed': { on: '2026-11-01', passed: true, note: '' },
	'rig.alarm-tested': { on: '2026-11-01', passed: false, note: 'Silent.' },
	'entry.team-in': { task: 'Tank 4', marginMin: 10, wearers: [] },
	'entry.worn': { wearer: 'Someone', task: 'Tank 4' },
	'entry.pressure': { wearer: 'Someone', bar: 200, corrects: false },
	'entry.turned': { task: 'Tank 4' },
	'entry.alarm': { wearer: 'Someone', alarm: 'turn back', due: '2026-11-24T10:00:00.000Z' },
	'entry.alarm-seen': { wearer: 'Someone', alarm: 'turn back' },
	'entry.clock-set': { seconds: 3600 },
	'entry.out': { wearer: 'Someone', startBar: 300, endBar: 80, minutes: 25, lPerMin: null }
};
const NAMES = Object.keys(ACTIONS) as ActionName[];

describe('the catalogue of what is recorded', () => {
	it.each(NAMES)('%s reads as a sentence without an ISO date, and leads to its subject', (name) => {
		const payload = checkPayload(name, PAYLOADS[name] as never);
		const subject = subjectOf(name, 'some-id');
		const { says, links } = tell(name, subject, payload);
		expect(says).not.toBe(name);
		expect(says).toMatch(/^\S.{3,}/);
		expect(says).not.toMatch(/\d{4}-\d{2}-\d{2}|undefined|null|NaN|\[object/);
		expect(links[0]).toEqual({ to: ACTIONS[name].subject, id: 'some-id' });
	});

	it('says days as people read them', () => {
		const says = (name: ActionName) => tell(name, 'x:1', PAYLOADS[name]).says;
		expect(says('filters.opened')).toContain('last day 3 Dec 2026');
		expect(says('plan.approved')).toContain('until 23 Feb 2029');
		expect(says('filter-lot.received')).toContain('use by 23 Feb 2029');
	});

	it('leads from an inspection to the one that it replaces', () => {
		const payload = { procedure: 'p', version: 1, supersedes: 'old', reason: 'Wrong mask.' };
		const { links } = tell('inspection.started', 'run:new', payload);
		expect(links.map((link) => link.id)).toEqual(['new', 'old']);
	});

	it('refuses a payload that is not as declared', () => {
		expect(() => checkPayload('fill.bank', { bank: 'two' } as never)).toThrow();
		expect(() => checkPayload('item.moved', { from: 'Shed' } as never)).toThrow();
	});

	it('tells an entry that it does not know, or knows otherwise, by its name', () => {
		expect(tell('wash.begun', 'batch:1', {})).toEqual({ says: 'wash.begun', links: [] });
		expect(tell('fill.bank', 'fill:1', { valve: 2 })).toEqual({
			says: 'fill.bank',
			links: [{ to: 'fill', id: '1' }]
		});
	});

	it('leaves only steps on the way out of histories', () =>
		expect(DETAILS).toEqual([
			'inspection.answered',
			'inspection.hold-started',
			'session.begun',
			'session.refused',
			'session.ended',
			'fit-test.step',
			'batch.read',
			'batch.step'
		]));
});

it('every action is found in one group of the search', () => {
	const grouped = RECORD_GROUPS.flatMap(actionsOf);
	expect([...grouped].sort()).toEqual(Object.keys(ACTIONS).sort());
});
