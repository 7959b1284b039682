import { shortestMin } from '../../../core/filters/plan-life.ts';
import { decide } from '../../../core/hazards/ladder.ts';
import { EXPIRY_MONTHS, REVIEW_MONTHS } from '../../../core/hazards/plan-status.ts';
import { plusDays, plusMonths } from '../../../core/plan/calendar.ts';
import { ownSubstance } from '../../../core/substances/record.ts';
import { site } from '../../../core/verdict.ts';
import {
	filterPair,
	filterWear,
	hazardEdition,
	hazardPlan,
	planFlag,
	siteSubstance,
	substanceChange
} from '../db/schema/index.ts';
import { pairChange, type WearRow } from '../filters/change.ts';
import { lifeOf, pairTag } from '../filters/opening.ts';
import { wordsOf } from '../hazards/substances.ts';
import { type DemoPlan, PEOPLE, PLACES, PLANS } from './scenario.ts';
import type { Mask, Seed } from './seeding.ts';

/** Where pairs hang: place, plan, filter, mount of the masks. */
const WORN = [
	['shed', 'laminate', 'Tesselow A2', 'quarter turn'],
	['ice', 'round', 'Tesselow K2', 'quarter turn'],
	['shed', 'sanding', 'Brannick P2 disc', 'press ring'],
	['dryer', 'meal', 'Tesselow ABEK2-P3', 'quarter turn'],
	['quay', 'grain', 'Tesselow P3 pad', 'quarter turn'],
	['water', 'drum', 'Tesselow ABEK', 'quarter turn']
] as const;

/** Hazard plans with their approvals, opened pairs with their wear, and one early smell. */
export async function seedPlans(seed: Seed): Promise<void> {
	const plans = new Map<string, string>();
	for (const [i, row] of PLANS.entries()) {
		const id = seed.chance.uuid();
		plans.set(row.key, id);
		await seed.tx.insert(hazardPlan).values({
			id,
			task: row.task,
			placeId: seed.places.get(row.place) ?? '',
			facts: row.facts,
			createdBy: seed.person('tove'),
			changedBy: seed.person('tove'),
			changedAt: seed.moment((row.approvedAgo ?? 3) + 1 + (i % 5))
		});
		if (row.approvedAgo !== undefined) await approve(seed, id, row, row.approvedAgo);
	}
	for (const [where, planKey, filter, mount] of WORN) {
		const plan = PLANS.find((p) => p.key === planKey);
		const lot = seed.lots.get(filter);
		if (!plan || !lot) continue;
		const masks = seed.masks.filter((m) => m.place === where && m.mount === mount).slice(0, 4);
		for (const [i, mask] of masks.entries())
			await openPair(seed, { plan, planId: plans.get(planKey) ?? '', lot, mask, first: i === 0 });
	}
	await earlySmell(seed, plans.get('meal') ?? '');
	await ownSubstances(seed);
}

async function approve(seed: Seed, planId: string, row: DemoPlan, ago: number): Promise<void> {
	const approvedAt = seed.moment(ago);
	const day = plusDays(seed.today, -ago);
	const by = seed.person('bram');
	const dates = {
		reviewOn: plusMonths(day, REVIEW_MONTHS),
		expiresOn: plusMonths(day, EXPIRY_MONTHS)
	};
	const { outcome } = decide(row.facts);
	await seed.tx.insert(hazardEdition).values({
		id: seed.chance.uuid(),
		planId,
		edition: 1,
		version: 1,
		task: row.task,
		place: PLACES.find((p) => p.key === row.place)?.name ?? '',
		facts: row.facts,
		outcome,
		...dates,
		approvedBy: by,
		approvedAt
	});
	seed.happen({
		at: approvedAt,
		by,
		action: 'plan.approved',
		of: planId,
		payload: { task: row.task, edition: 1, version: 1, outcome, ...dates }
	});
}

interface PairPlan {
	plan: DemoPlan;
	planId: string;
	lot: NonNullable<ReturnType<Seed['lots']['get']>>;
	mask: Mask;
	first: boolean;
}

async function openPair(seed: Seed, { plan, planId, lot, mask, first }: PairPlan): Promise<void> {
	const { facts } = plan;
	const life = lifeOf(lot.model, decide(facts), facts, 2, { kind: 'half-mask' });
	const ago = first ? 0 : seed.chance.int(0, 3);
	const by = seed.person('ilse');
	const initials = PEOPLE[0]?.initials ?? '';
	const [pair] = await seed.tx
		.insert(filterPair)
		.values({
			id: seed.chance.uuid(),
			lotId: lot.id,
			itemId: mask.id,
			planId,
			filters: 2,
			openedOn: plusDays(seed.today, -ago),
			initials,
			openedBy: by,
			changeAfterMin: life.changeAfterMin,
			exposureMin: facts.exposureMin,
			singleUse: life.singleUse
		})
		.returning();
	if (!pair) return;
	const wears: WearRow[] = [];
	for (let day = ago; day > 0; day--)
		wears.push({
			id: seed.chance.uuid(),
			pairId: pair.id,
			planId,
			task: plan.task,
			wornOn: plusDays(seed.today, -day),
			minutes: seed.chance.int(Math.ceil(facts.exposureMin * 0.5), facts.exposureMin),
			lifeMin: shortestMin(life.parts),
			enteredBy: by,
			enteredAt: seed.moment(day)
		});
	if (wears.length) await seed.tx.insert(filterWear).values(wears);
	seed.happen({
		at: seed.moment(ago),
		by,
		action: 'filters.opened',
		of: pair.id,
		itemId: mask.id,
		payload: {
			pair: pairTag(pair.number),
			filter: lot.model.name,
			initials,
			changeOn: pairChange({ pair, model: lot.model }).changeOn
		}
	});
}

/** A wearer smelt hydrogen sulphide long before the predicted time; nobody has looked into it yet. */
async function earlySmell(seed: Seed, planId: string): Promise<void> {
	const lot = seed.lots.get('Tesselow ABEK2-P3');
	const mask = seed.masks.filter((m) => m.place === 'dryer' && m.mount === 'quarter turn').at(-1);
	if (!lot || !mask || !planId) return;
	const by = seed.person('odd');
	const at = seed.moment(2);
	const [pair] = await seed.tx
		.insert(filterPair)
		.values({
			id: seed.chance.uuid(),
			lotId: lot.id,
			itemId: mask.id,
			planId,
			filters: 2,
			openedOn: plusDays(seed.today, -5),
			initials: 'OK',
			openedBy: by,
			changeAfterMin: 480,
			exposureMin: 120,
			discardedAt: at,
			discardReason: 'smell',
			discardedBy: by
		})
		.returning();
	if (!pair) return;
	const text = `${pairTag(pair.number)}: smell or taste at 31 % of its predicted life. The wearer smelt it before the predicted time: the concentration, the filter or the estimate is wrong.`;
	await seed.tx.insert(filterWear).values({
		id: seed.chance.uuid(),
		pairId: pair.id,
		planId,
		task: 'Emptying the dryer cyclone',
		wornOn: plusDays(seed.today, -2),
		minutes: 149,
		lifeMin: 480,
		enteredBy: by,
		enteredAt: at
	});
	await seed.tx.insert(planFlag).values({
		id: seed.chance.uuid(),
		planId,
		pairId: pair.id,
		text,
		raisedBy: by,
		raisedAt: at
	});
	seed.happen({
		at,
		by,
		action: 'filters.discarded',
		of: pair.id,
		itemId: mask.id,
		payload: { pair: pairTag(pair.number), why: 'smell' }
	});
	seed.happen({
		at,
		by,
		action: 'plan.flagged',
		of: planId,
		payload: { pair: pair.id, text }
	});
}

/** One substance of the site's own, and one corrected value. Invented. */
async function ownSubstances(seed: Seed): Promise<void> {
	const by = seed.person('tove');
	const at = seed.moment(70);
	const why = 'safety data sheet of the supplier, section 8';
	const own = ownSubstance({
		name: 'Slipway degreaser',
		synonyms: ['citrus degreaser'],
		form: 'vapour',
		organic: true,
		molarMassGPerMol: 136.2,
		boilingPointC: 176,
		vapourPressureMmHg: 1.6,
		liquidDensityGPerCm3: 0.842,
		refractiveIndex: 1.473,
		limits: { uk: { twa: 20, short: 40, shortKind: 'STEL', unit: 'ppm' } },
		warning: 'adequate',
		skin: true,
		en: 'A',
		us: 'OV',
		organs: ['skin', 'airways']
	});
	const origins = { limitUk: site(`Tove Rieveld: ${why}`) };
	await seed.tx.insert(siteSubstance).values({
		key: own.key,
		own: true,
		record: { ...own, origins },
		name: own.name,
		words: wordsOf(own),
		changedBy: by,
		changedAt: at
	});
	await seed.tx.insert(substanceChange).values({
		id: seed.chance.uuid(),
		key: own.key,
		field: 'limits',
		before: null,
		after: own.limits,
		why,
		changedBy: by,
		changedAt: at
	});
	seed.happen({
		at,
		by,
		action: 'substance.added',
		of: own.key,
		payload: { name: own.name, changed: [], why }
	});
}
