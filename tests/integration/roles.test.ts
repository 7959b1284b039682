import { randomUUID } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { DEFAULT_FACTS } from '../../src/core/hazards/facts.ts';
import { gaugeStep, simulateSet } from '../../src/lib/server/ba-bench.ts';
import { importTrace, startTest } from '../../src/lib/server/bench.ts';
import { may, type Context, type Role } from '../../src/lib/server/context.ts';
import { asFault } from '../../src/lib/server/errors.ts';
import { startJob, finishJob, releaseJob } from '../../src/lib/server/faults.ts';
import { addWear, discardPair } from '../../src/lib/server/filter-pairs.ts';
import { disposeLot, recallLot, receiveLot, saveModel } from '../../src/lib/server/filter-store.ts';
import { openPair } from '../../src/lib/server/filters.ts';
import { factsSchema, planSchema } from '../../src/lib/server/hazard-form.ts';
import { approvePlan, clearFlag, savePlan } from '../../src/lib/server/hazards.ts';
import { answer, signRun, startRun, startTimer } from '../../src/lib/server/inspections.ts';
import { saveItemModel, withdrawModel } from '../../src/lib/server/models.ts';
import { closeMuster, exception, present, startMuster } from '../../src/lib/server/musters.ts';
import { addPhoto } from '../../src/lib/server/photos.ts';
import { saveEdition } from '../../src/lib/server/procedures.ts';
import { addItem, importItems, moveItems } from '../../src/lib/server/register.ts';
import { saveSealCheck } from '../../src/lib/server/seal-checks.ts';
import { movePart } from '../../src/lib/server/sets.ts';
import { importSubstances, saveSubstance } from '../../src/lib/server/substances.ts';
import { historySentence } from '../../src/lib/ui/history.ts';
import { AIR_WRITES } from '../support/air-writes.ts';
import { SITE, openYard } from '../support/database.ts';

const own = openYard();

const id = () => randomUUID();
const text = (words: string) => new TextEncoder().encode(words);
/** Every write that a service offers, with the least role that may do it. */
const WRITES: [name: string, least: Role, write: (c: Context) => Promise<unknown>][] = [
	['start an inspection', 'technician', (c) => startRun(c, { id: id(), tag: 'HM-0001' })],
	[
		'answer a step',
		'technician',
		(c) => answer(c, SITE, { id: id(), runId: id(), step: 'x', value: 'good', seen: 0 })
	],
	[
		'keep a picture',
		'technician',
		(c) => addPhoto(c, { id: id(), runId: id(), step: 'x', bytes: text('x') })
	],
	[
		'keep a seal check',
		'technician',
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
		(c) => exception(c, SITE, { musterId: id(), tag: 'HM-0001', step: 'x', code: 'X' })
	],
	['close a muster', 'technician', (c) => closeMuster(c, id())],
	['move a part', 'technician', (c) => movePart(c, SITE, { tag: 'HM-0001', set: 'HM-0002' })],
	['move items', 'technician', (c) => moveItems(c, { tags: [], placeId: id() })],
	[
		'add an item',
		'technician',
		(c) =>
			addItem(c, SITE, { id: id(), tag: 'x', modelId: id(), size: '', serial: '', placeId: id() })
	],
	[
		'import items',
		'technician',
		(c) =>
			importItems(c, SITE, { id: id(), bytes: text('tag,model,place\nx,y,z'), leaveOutBad: false })
	],
	[
		'change a procedure',
		'supervisor',
		(c) => saveEdition(c, { key: 'x', from: 1, name: 'x', steps: [], reason: '' })
	],
	[
		'change a model',
		'supervisor',
		(c) =>
			saveItemModel(c, {
				id: id(),
				family: 'x',
				maker: '',
				name: '',
				mount: '',
				ratedBar: null,
				holdDropBar: null,
				donning: null,
				makerLines: []
			})
	],
	['withdraw a model', 'supervisor', (c) => withdrawModel(c, SITE, { id: id(), why: '' })],
	['sign an inspection', 'technician', (c) => signRun(c, SITE, id())],
	[
		'save a plan',
		'technician',
		(c) =>
			savePlan(c, {
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
			openPair(c, SITE, {
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
		(c) => startJob(c, SITE, { id: id(), itemId: id(), repair: 'clean', defectIds: [id()] })
	],
	[
		'end a repair',
		'technician',
		(c) => finishJob(c, SITE, { jobId: id(), version: 1, proof: [], parts: [], note: '' })
	],
	['release', 'supervisor', (c) => releaseJob(c, SITE, { jobId: id(), version: 1 })],
	[
		'start the clock of a hold',
		'technician',
		(c) => startTimer(c, { id: id(), runId: id(), step: 'x', start: 290 })
	],
	[
		'read the BA bench',
		'technician',
		(c) => gaugeStep(c, '127.0.0.1:9', { runId: id(), step: 'x', connect: false })
	],
	[
		'tell the simulated BA bench',
		'technician',
		(c) =>
			simulateSet(c, '127.0.0.1:9', {
				...{ fillBar: 1, leakBarPerMin: 0, whistleBar: 1, bleedBarPerS: 1 },
				fault: 'none'
			})
	],
	[
		'start a bench test',
		'technician',
		(c) => startTest(c, SITE, [], { id: id(), tag: 'HM-0001', recipe: 'suit-en', volumeL: null })
	],
	[
		'import a trace',
		'technician',
		(c) =>
			importTrace(c, SITE, {
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
			addWear(c, SITE, {
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
		(c) => discardPair(c, SITE, { tag: 'FP-0001', reason: 'damage' })
	],
	[
		'save a filter model',
		'technician',
		(c) =>
			saveModel(c, {
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
			receiveLot(c, SITE, {
				id: id(),
				modelId: id(),
				lot: 'L',
				useBy: '2099-01-01',
				quantity: 1,
				location: ''
			})
	],
	['recall a lot', 'technician', (c) => recallLot(c, SITE, { id: id(), reason: 'r' })],
	['dispose of a lot', 'technician', (c) => disposeLot(c, { id: id(), seen: 1, why: 'w' })],
	[
		'approve a plan',
		'supervisor',
		(c) =>
			approvePlan(c, SITE, {
				id: id(),
				planId: id(),
				version: 1,
				reviewOn: '2099-01-01',
				expiresOn: '2099-06-01',
				note: ''
			})
	],
	['clear a flag', 'supervisor', (c) => clearFlag(c, { id: id(), why: 'w' })],
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
				bytes: text('name,form\n'),
				why: 'w',
				leaveOutBad: false
			})
	]
];
const ROLES: Role[] = ['viewer', 'technician', 'supervisor', 'admin'];

describe('who may do what', () => {
	for (const [name, least, write] of [...WRITES, ...AIR_WRITES])
		it.each(ROLES)(`${name}, as a %s`, async (role) => {
			const allowed = ROLES.indexOf(role) >= ROLES.indexOf(least);
			const error: unknown = await write(own.yard.as(own.yard.people[role])).then(
				() => undefined,
				(e: unknown) => e
			);
			// Where it is allowed it may still find nothing to do it to; it must never be forbidden.
			expect(asFault(error)?.kind === 'forbidden').toBe(!allowed);
		});

	it('each role holds what the one before it holds', () => {
		for (const deed of [
			...(['view', 'plan', 'inspect', 'open filters', 'repair', 'release'] as const),
			...(['keep the filter store', 'recall a lot', 'approve plans', 'edit substances'] as const),
			...(['fill cylinders', 'test air', 'control entries'] as const)
		]) {
			const held = ROLES.map((role) => may(role, deed));
			expect(held).toEqual([...held].sort((a, b) => Number(a) - Number(b)));
		}
	});
});

describe('what a page may send', () => {
	const facts = { ...DEFAULT_FACTS, ruleSet: 'uk', contaminants: [] };
	const plan = { task: 'T', placeId: id(), facts, version: 0 };
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

describe('history', () => {
	it('has a sentence for every deed that a service records', () => {
		const folder = 'src/lib/server';
		const source = readdirSync(folder)
			.filter((file) => file.endsWith('.ts'))
			.map((file) => readFileSync(`${folder}/${file}`, 'utf8'))
			.join('\n');
		const actions = [
			...source.matchAll(
				/'((?:inspection|defect|repair|item|filters|plan|cylinder|fill|air|air-source|rig|entry)\.[a-z-]+)'/g
			)
		].map((m) => m[1] ?? '');
		expect(new Set(actions).size).toBeGreaterThanOrEqual(30);
		for (const action of actions)
			expect(historySentence(action, { code: 'CURL', repair: 'clean' })).not.toBe(action);
	});
});
