import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { DEFAULT_FACTS } from '../../src/core/hazards/facts.ts';
import { gaugeStep, simulateSet } from '../../src/lib/server/bench/gauge.ts';
import { importTrace, startTest } from '../../src/lib/server/bench/tests.ts';
import { finishJob, releaseJob, startJob } from '../../src/lib/server/faults/jobs.ts';
import { openPair } from '../../src/lib/server/filters/opening.ts';
import { addWear, discardPair } from '../../src/lib/server/filters/pairs.ts';
import {
	disposeLot,
	recallLot,
	receiveLot,
	saveModel
} from '../../src/lib/server/filters/store.ts';
import { factsSchema, planSchema } from '../../src/lib/server/hazards/plan-form.ts';
import { approvePlan, clearFlag, savePlan } from '../../src/lib/server/hazards/plans.ts';
import { importSubstances, saveSubstance } from '../../src/lib/server/hazards/substances.ts';
import { answer } from '../../src/lib/server/inspection/answers.ts';
import { nameAssistant } from '../../src/lib/server/inspection/assistant.ts';
import {
	closeMuster,
	exception,
	present,
	startMuster
} from '../../src/lib/server/inspection/musters.ts';
import { keepPaper } from '../../src/lib/server/inspection/paper.ts';
import { addPhoto } from '../../src/lib/server/inspection/photos.ts';
import { saveEdition } from '../../src/lib/server/inspection/procedures.ts';
import { signRun, startRun } from '../../src/lib/server/inspection/runs.ts';
import { saveSealCheck } from '../../src/lib/server/inspection/seal-checks.ts';
import { startTimer } from '../../src/lib/server/inspection/timers.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import { may, type Role } from '../../src/lib/server/kernel/permissions.ts';
import { asRefusal } from '../../src/lib/server/kernel/refusal.ts';
import {} from '../../src/lib/server/kernel/write.ts';
import { saveItemModel, withdrawModel } from '../../src/lib/server/register/models.ts';
import { addItem, importItems, moveItems } from '../../src/lib/server/register/register.ts';
import { movePart } from '../../src/lib/server/register/sets.ts';
import { AIR_WRITES } from '../support/air-writes.ts';
import { DRILL_WRITES } from '../support/drill-writes.ts';
import { FAULT_WRITES } from '../support/fault-writes.ts';
import { CUSTODY_WRITES } from '../support/custody-writes.ts';
import { PEOPLE_WRITES } from '../support/people-writes.ts';
import { PLAN_WRITES } from '../support/plan-writes.ts';
import { SITE_WRITES } from '../support/site-writes.ts';
import { openYard } from '../support/database.ts';

const own = openYard();

const id = () => randomUUID();
const text = (words: string) => new TextEncoder().encode(words);
/** Every write that a service offers, with the least role that may do it. */
const WRITES: [name: string, least: Role, write: (c: Context) => Promise<unknown>][] = [
	['start an inspection', 'technician', (c) => startRun(c, { id: id(), tag: 'HM-0001' })],
	[
		'answer a step',
		'technician',
		(c) => answer(c, { id: id(), runId: id(), step: 'x', value: 'good', seen: 0 })
	],
	[
		'type a sheet in',
		'technician',
		(c) =>
			keepPaper(c, {
				id: id(),
				tag: 'HM-0001',
				procedure: 'half-mask-pre-use',
				version: 1,
				day: '2026-01-01',
				doneBy: 'x',
				typed: {}
			})
	],
	[
		'keep a picture',
		'technician',
		(c) => addPhoto(c, { id: id(), runId: id(), step: 'x', bytes: text('x') })
	],
	[
		'keep a seal check',
		'viewer',
		(c) => saveSealCheck(c, { id: id(), tag: 'HM-0001', wearer: '', attempts: [] })
	],
	[
		'begin a muster',
		'technician',
		(c) => startMuster(c, { id: id(), placeId: id(), family: null })
	],
	[
		'present an item',
		'technician',
		(c) => present(c, { id: id(), musterId: id(), tag: 'HM-0001' })
	],
	[
		'note an exception',
		'technician',
		(c) =>
			exception(c, {
				requestId: randomUUID(),
				musterId: id(),
				tag: 'HM-0001',
				step: 'x',
				code: 'X'
			})
	],
	[
		'close a muster',
		'technician',
		(c) => closeMuster(c, { requestId: randomUUID(), musterId: id() })
	],
	[
		'move a part',
		'technician',
		(c) => movePart(c, { requestId: randomUUID(), tag: 'HM-0001', set: 'HM-0002' })
	],
	[
		'move items',
		'technician',
		(c) => moveItems(c, { requestId: randomUUID(), tags: [], placeId: id() })
	],
	[
		'add an item',
		'technician',
		(c) => addItem(c, { id: id(), tag: 'x', modelId: id(), size: '', serial: '', placeId: id() })
	],
	[
		'import items',
		'technician',
		(c) => importItems(c, { id: id(), file: text('tag,model,place\nx,y,z'), leaveOutBad: false })
	],
	[
		'change a procedure',
		'supervisor',
		(c) =>
			saveEdition(c, {
				requestId: randomUUID(),
				key: 'x',
				from: 1,
				name: 'x',
				steps: [],
				reason: ''
			})
	],
	[
		'change a model',
		'supervisor',
		(c) =>
			saveItemModel(c, {
				version: 0,
				card: {},
				requestId: randomUUID(),
				id: id(),
				family: 'x',
				maker: '',
				name: '',
				mount: '',
				ratedBar: null,
				holdDropBar: null,
				donning: null,
				filterCount: 2,
				approved: [],
				makerLines: []
			})
	],
	[
		'withdraw a model',
		'supervisor',
		(c) => withdrawModel(c, { requestId: randomUUID(), id: id(), why: '' })
	],
	[
		'name a second person',
		'technician',
		(c) => nameAssistant(c, { id: randomUUID(), runId: id(), assistant: own.yard.people.second })
	],
	['sign an inspection', 'technician', (c) => signRun(c, { requestId: randomUUID(), runId: id() })],
	[
		'save a plan',
		'technician',
		(c) =>
			savePlan(c, {
				requestId: randomUUID(),
				id: id(),
				task: 'T',
				placeId: own.yard.place,
				version: 0,
				facts: { ...DEFAULT_FACTS, ruleSet: 'uk', contaminants: [] }
			})
	],
	[
		'open filters',
		'technician',
		(c) =>
			openPair(c, {
				id: id(),
				lotId: id(),
				itemTag: 'HM-0001',
				planId: id(),
				initials: 'T',
				discardReason: ''
			})
	],
	[
		'start a repair',
		'technician',
		(c) => startJob(c, { id: id(), itemId: id(), repair: 'clean', defectIds: [id()] })
	],
	[
		'end a repair',
		'technician',
		(c) =>
			finishJob(c, {
				requestId: randomUUID(),
				jobId: id(),
				version: 1,
				proof: [],
				parts: [],
				note: ''
			})
	],
	[
		'release',
		'supervisor',
		(c) => releaseJob(c, { requestId: randomUUID(), jobId: id(), version: 1 })
	],
	[
		'start the clock of a hold',
		'technician',
		(c) => startTimer(c, { id: id(), runId: id(), step: 'x', start: 290 })
	],
	[
		'read the BA bench',
		'technician',
		(c) =>
			gaugeStep(c, '127.0.0.1:9', {
				requestId: randomUUID(),
				runId: id(),
				step: 'x',
				connect: false
			})
	],
	[
		'tell the simulated BA bench',
		'technician',
		(c) =>
			simulateSet(c, '127.0.0.1:9', {
				fillBar: 1,
				leakBarPerMin: 0,
				whistleBar: 1,
				bleedBarPerS: 1,
				fault: 'none'
			})
	],
	[
		'start a bench test',
		'technician',
		(c) => startTest(c, [], { id: id(), tag: 'HM-0001', recipe: 'suit-en', volumeL: null })
	],
	[
		'import a trace',
		'technician',
		(c) =>
			importTrace(c, {
				id: id(),
				tag: 'HM-0001',
				recipe: 'suit-en',
				volumeL: null,
				file: 'x.csv',
				bytes: text('s,Pa\n0,1650\n')
			})
	],
	[
		'enter wear',
		'technician',
		(c) =>
			addWear(c, {
				id: id(),
				tag: 'FP-0001',
				planId: id(),
				wornOn: '2026-11-24',
				minutes: 10
			})
	],
	[
		'discard a pair',
		'technician',
		(c) => discardPair(c, { requestId: randomUUID(), tag: 'FP-0001', reason: 'damage' })
	],
	[
		'save a filter model',
		'technician',
		(c) =>
			saveModel(c, {
				requestId: randomUUID(),
				id: id(),
				version: 0,
				maker: 'T',
				name: `T ${id()}`,
				mount: 'none',
				codeEn: 'P3',
				codeUs: null,
				massG: 100,
				bed: null,
				openedMonths: null,
				reorderLevel: 0
			})
	],
	[
		'receive a lot',
		'technician',
		(c) =>
			receiveLot(c, {
				id: id(),
				modelId: id(),
				lot: 'L',
				useBy: '2099-01-01',
				quantity: 1,
				location: ''
			})
	],
	[
		'recall a lot',
		'technician',
		(c) => recallLot(c, { requestId: randomUUID(), id: id(), reason: 'r' })
	],
	[
		'dispose of a lot',
		'technician',
		(c) => disposeLot(c, { requestId: randomUUID(), id: id(), seen: 1, why: 'w' })
	],
	[
		'approve a plan',
		'supervisor',
		(c) =>
			approvePlan(c, {
				id: id(),
				planId: id(),
				version: 1,
				reviewOn: '2099-01-01',
				expiresOn: '2099-06-01',
				note: ''
			})
	],
	[
		'clear a flag',
		'supervisor',
		(c) => clearFlag(c, { requestId: randomUUID(), id: id(), why: 'w' })
	],
	[
		'correct a substance',
		'supervisor',
		(c) =>
			saveSubstance(c, { id: id(), key: 'styrene', edit: { note: id() }, why: 'w', version: -1 })
	],
	[
		'import substances',
		'supervisor',
		(c) =>
			importSubstances(c, {
				id: id(),
				file: text('name,form\n'),
				why: 'w',
				leaveOutBad: false
			})
	]
];
const ROLES: Role[] = ['viewer', 'technician', 'supervisor', 'admin'];

describe('who may do what', () => {
	for (const [name, least, write] of [
		...WRITES,
		...AIR_WRITES,
		...CUSTODY_WRITES,
		...DRILL_WRITES,
		...FAULT_WRITES,
		...PEOPLE_WRITES,
		...PLAN_WRITES,
		...SITE_WRITES
	])
		it.each(ROLES)(`${name}, as a %s`, async (role) => {
			const allowed = ROLES.indexOf(role) >= ROLES.indexOf(least);
			const error: unknown = await write(own.yard.as(own.yard.people[role])).then(
				() => undefined,
				(e: unknown) => e
			);
			// Where it is allowed it may still find nothing to do it to; it must never be forbidden.
			expect(asRefusal(error)?.kind === 'forbidden').toBe(!allowed);
		});

	it('each role holds what the one before it holds', () => {
		for (const deed of [
			...(['view', 'plan', 'inspect', 'open filters', 'repair', 'release'] as const),
			...(['keep the stores', 'recall a lot', 'approve plans', 'edit substances'] as const),
			...(['fill cylinders', 'test air', 'control entries'] as const)
		]) {
			const held = ROLES.map((role) => may(role, deed));
			expect(held).toEqual([...held].sort((a, b) => Number(a) - Number(b)));
		}
	});
});

describe('what a page may send', () => {
	const facts = { ...DEFAULT_FACTS, ruleSet: 'uk', contaminants: [] };
	const plan = { requestId: id(), task: 'T', placeId: id(), facts, version: 0 };
	const path = (input: unknown) => {
		const parsed = planSchema.safeParse(input);
		return parsed.success ? 'accepted' : parsed.error.issues[0]?.path.join('.');
	};
	it.each([
		['accepted', plan],
		['task', { ...plan, task: '   ' }],
		['task', { ...plan, task: 'x'.repeat(121) }],
		['placeId', { ...plan, placeId: 'shed' }],
		['version', { ...plan, version: -1 }],
		[
			'facts.relativeHumidityPercent',
			{ ...plan, facts: { ...facts, relativeHumidityPercent: 120 } }
		],
		['facts.temperatureC', { ...plan, facts: { ...facts, temperatureC: null } }],
		['facts.exposureMin', { ...plan, facts: { ...facts, exposureMin: 0 } }],
		['facts.workRate', { ...plan, facts: { ...facts, workRate: 'sprint' } }],
		[
			'facts.contaminants.0.concentration.value',
			{
				...plan,
				facts: {
					...facts,
					contaminants: [{ name: 'x', form: 'gas', concentration: { value: -1, unit: 'ppm' } }]
				}
			}
		],
		[
			'facts.contaminants.0.limit',
			{
				...plan,
				facts: {
					...facts,
					contaminants: [
						{ name: 'x', form: 'gas', concentration: null, limit: { value: 0, unit: 'ppm' } }
					]
				}
			}
		],
		[
			'facts.contaminants.0.concentration.unit',
			{
				...plan,
				facts: {
					...facts,
					contaminants: [{ name: 'x', form: 'gas', concentration: { value: 1, unit: 'ppb' } }]
				}
			}
		]
	])('%s', (expected, input) => expect(path(input)).toBe(expected));

	it('takes the defaults of the core as they are', () =>
		expect(factsSchema.parse(facts)).toEqual(facts));
});
