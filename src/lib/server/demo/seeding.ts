import { type ActionName, checkPayload, subjectOf } from '../../../core/actions/catalogue.ts';
import { procedureFor } from '../../../core/data/procedures.ts';
import { rejectCode } from '../../../core/data/reject-codes.ts';
import type { AnswerEvent } from '../../../core/inspection/run.ts';
import { plusDays } from '../../../core/plan/calendar.ts';
import type { Connection } from '../db/client.ts';
import { insertMany } from '../db/insert-many.ts';
import { reportFault } from '../db/queries/faults.ts';
import {
	filterLot,
	filterModel,
	item,
	itemModel,
	partLevel,
	partLot,
	place,
	placeFloor,
	testHouse,
	site
} from '../db/schema/index.ts';
import { withRecordHashes } from '../kernel/record-hash.ts';
import { appendEntries } from '../kernel/audit.ts';
import { dayAt } from '../kernel/site.ts';
import type { Recorded } from '../kernel/write.ts';
import { type SignedWalk, writeSigned } from './signed-runs.ts';
import { Chance } from '../../../core/stats/chance.ts';
import {
	HOLIDAYS,
	MASKS,
	MORE_LOTS,
	PART_LEVELS,
	PART_LOTS,
	PLACES,
	SITE_NAME,
	TEST_HOUSES
} from './scenario.ts';
import { type CANISTERS, FILTERS } from './scenario-filters.ts';

export interface SeedOptions {
	now: Date;
	password: string;
	/** How many half masks. */
	items?: number;
	/** How many monthly inspections each has behind it. */
	rounds?: number;
}

const LARGEST_DEMO = 2000;
/** Inspections whose answers are held at once. */
const RUNS_AT_ONCE = 500;
const TIME_ZONE = 'Europe/London';
const procedure = procedureFor('half-mask');

export interface Mask {
	id: string;
	tag: string;
	mount: string;
	place: string;
	/** Days since its last inspection. */
	age: number;
}

/** An inspection of the demo. */
export interface WalkedRun {
	mask: Mask;
	id: string;
	by: string;
	at: Date;
	answers: AnswerEvent[];
	/** The repair that it proves. */
	serviceJobId?: string;
}

const asSigned = ({ mask, ...run }: WalkedRun): SignedWalk => ({
	...run,
	itemId: mask.id,
	procedure,
	stepMs: 11_000
});

/** Something that is written to the log with its own time. */
export interface Happening<N extends ActionName> extends Recorded<N> {
	action: N;
	by: string;
	at: Date;
}
type Happened = { [N in ActionName]: Happening<N> }[ActionName];

/** The demo as it is being written; the parts in other files add to it. */
export class Seed {
	readonly masks: Mask[] = [];
	/** What happened, written to the audit log in the order of its time. */
	readonly happened: Happened[] = [];
	/** Hashes of inspections, worked out as they were written. */
	readonly hashes = new Map<string, string>();
	readonly chance = new Chance(20_260);
	readonly today: string;
	readonly places = new Map<string, string>();
	readonly now: Date;
	private readonly models = new Map<string, string>();
	readonly lots = new Map<string, { id: string; model: typeof filterModel.$inferSelect }>();

	constructor(
		readonly tx: Connection,
		private readonly options: SeedOptions,
		private readonly people: Map<string, string>
	) {
		this.today = dayAt(options.now, TIME_ZONE);
		this.now = options.now;
	}

	person(key: string): string {
		const id = this.people.get(key);
		if (!id) throw new RangeError(`The demo has no person ${key}.`);
		return id;
	}

	/** A register larger than the demo's is for measuring, not for looking at. */
	get isLarge(): boolean {
		return (this.options.items ?? 0) > LARGEST_DEMO;
	}

	/** A moment of a working day, so many days back. */
	moment(daysBack: number): Date {
		const minutes = this.chance.int(7 * 60, 15 * 60);
		const start = Date.parse(`${plusDays(this.today, -daysBack)}T00:00:00Z`);
		return new Date(Math.min(start + minutes * 60_000, this.options.now.getTime() - 60_000));
	}

	async base(): Promise<void> {
		await this.tx.insert(site).values({
			name: SITE_NAME,
			ruleSet: 'uk',
			timeZone: TIME_ZONE,
			// One click is enough for invented people.
			twoStepRoles: [],
			setUpAt: this.options.now,
			holidays: HOLIDAYS.map(([ahead, name]) => ({ on: plusDays(this.today, ahead), name }))
		});
		for (const row of PLACES) {
			const id = this.chance.uuid();
			this.places.set(row.key, id);
			await this.tx
				.insert(place)
				.values({ id, name: row.name, ...row.is, responsible: this.person(row.keeper) });
			await this.tx
				.insert(placeFloor)
				.values(
					Object.entries(row.floors).map(([family, floor]) => ({ placeId: id, family, floor }))
				);
		}
		for (const row of MASKS) {
			const id = this.chance.uuid();
			this.models.set(row.key, id);
			await this.tx
				.insert(itemModel)
				.values({ id, family: 'half-mask', maker: row.maker, name: row.name, mount: row.mount });
		}
		for (const row of FILTERS) {
			const model = await this.filterModel(row);
			if (!model) continue;
			for (const [i, [days, quantity]] of row.lots.entries()) {
				const id = this.chance.uuid();
				if (i === 0) this.lots.set(row.name, { id, model });
				await this.tx.insert(filterLot).values({
					id,
					modelId: model.id,
					lot: `${row.en.replaceAll(/[^A-Z0-9]/g, '').slice(0, 4)}-${this.chance.int(1000, 9999)}`,
					useBy: plusDays(this.today, days),
					sealedQuantity: quantity,
					location: `Store ${this.chance.pick(['A', 'B'])}${this.chance.int(1, 6)}`
				});
			}
		}
		await this.partLots(PART_LOTS);
	}

	private async partLots(lots: readonly (typeof PART_LOTS | typeof MORE_LOTS)[number][]) {
		await this.tx.insert(partLot).values(
			lots.map((row) => ({
				id: this.chance.uuid(),
				part: row.part,
				lot: row.lot,
				quantity: row.quantity,
				useBy: row.days === null ? null : plusDays(this.today, row.days),
				location: row.location
			}))
		);
	}

	/** What the store keeps beside the usual parts, and when more of what is bought. */
	async consumables(): Promise<void> {
		await this.partLots(MORE_LOTS);
		await this.tx.insert(partLevel).values(PART_LEVELS.map((row) => ({ ...row })));
	}

	/** Where the site sends things for testing. */
	async testHouses(): Promise<void> {
		await this.tx
			.insert(testHouse)
			.values(TEST_HOUSES.map((row) => ({ id: this.chance.uuid(), ...row })));
	}

	/** A model of filters as the scenario has it. */
	async filterModel(
		row: (typeof FILTERS)[number] | (typeof CANISTERS)[number]
	): Promise<typeof filterModel.$inferSelect | undefined> {
		const [model] = await this.tx
			.insert(filterModel)
			.values({
				id: this.chance.uuid(),
				maker: row.name.split(' ')[0] ?? '',
				name: row.name,
				mount: row.mount,
				codeEn: row.en,
				codeUs: row.us,
				massG: row.massG,
				bed: row.bed,
				openedMonths: row.openedMonths,
				reorderLevel: row.reorder
			})
			.returning();
		return model;
	}

	async items(): Promise<void> {
		const rows = Array.from({ length: this.options.items ?? 64 }, (_, i) => {
			const model = this.chance.pick(MASKS);
			const where = PLACES[i % PLACES.length] ?? PLACES[0];
			const roll = this.chance.next();
			const mask: Mask = {
				id: this.chance.uuid(),
				tag: `HM-${String(101 + i).padStart(4, '0')}`,
				mount: model.mount,
				place: where.key,
				age:
					roll < 0.8
						? this.chance.int(1, 20)
						: roll < 0.95
							? this.chance.int(24, 29)
							: this.chance.int(33, 45)
			};
			this.masks.push(mask);
			return {
				id: mask.id,
				tag: mask.tag,
				family: 'half-mask',
				modelId: this.models.get(model.key) ?? '',
				size: this.chance.pick(model.sizes),
				serial: `${model.key.toUpperCase()}${this.chance.int(10_000, 99_999)}`,
				placeId: this.places.get(where.key) ?? '',
				inUseSince: plusDays(this.today, -this.chance.int(430, 1400))
			};
		});
		await insertMany(this.tx, item, rows);
		await appendEntries(this.tx, [
			{
				actorId: null,
				action: 'register.filled',
				subject: 'site:1',
				payload: { items: rows.length, site: SITE_NAME }
			}
		]);
	}

	/** Monthly inspections, oldest first: a round opens, answers and signs one run per mask. */
	async inspections(): Promise<void> {
		const rounds = this.options.rounds ?? 12;
		await writeSigned(this, this.monthly(rounds), { unguarded: this.isLarge });
	}

	private *monthly(rounds: number): Generator<SignedWalk[]> {
		for (let round = rounds - 1; round >= 0; round--)
			for (let i = 0; i < this.masks.length; i += RUNS_AT_ONCE)
				yield this.masks.slice(i, i + RUNS_AT_ONCE).map((mask) =>
					asSigned({
						mask,
						id: this.chance.uuid(),
						by: this.person(this.chance.pick(['ilse', 'odd'])),
						at: this.moment(mask.age + round * 30),
						answers: this.answers()
					})
				);
	}

	/** Inspections that were walked and signed. */
	async walked(runs: readonly WalkedRun[]): Promise<void> {
		await writeSigned(this, [runs.map(asSigned)]);
	}

	/** Notes something for the log, at its own time. */
	happen<N extends ActionName>(one: Happening<N>): void {
		this.happened.push(one as unknown as Happened);
	}

	async writeRecord(): Promise<void> {
		this.happened.sort((a, b) => a.at.getTime() - b.at.getTime());
		const entries = this.happened.map(({ by, of, action, payload, ...entry }) => ({
			...entry,
			actorId: by,
			action,
			subject: subjectOf(action, of),
			payload: checkPayload(action, payload)
		}));
		await appendEntries(this.tx, await withRecordHashes(this.tx, entries, this.hashes));
	}

	/** A plain good run; most masks here have no pre-filter. */
	answers(): AnswerEvent[] {
		const fitted = this.chance.next() < 0.2;
		const dusty = this.chance.next() < 0.03;
		return procedure.steps.map((step) =>
			step.ifFitted && step.station.startsWith('prefilter') && !fitted
				? { step: step.key, value: 'not fitted' }
				: dusty && step.key === 'bag-state'
					? { step: step.key, value: 'reject', code: 'BAG' }
					: { step: step.key, value: 'good' }
		);
	}

	/** Open faults: a run of curled discs after one wash, a dead strap, a first sign of ageing. */
	async stories(): Promise<void> {
		const stories = [
			[13, 'exhalation', 'exhalation-disc', 'CURL', 1],
			[14, 'exhalation', 'exhalation-disc', 'CURL', 1],
			[15, 'inhalation-left', 'inhalation-left', 'CURL', 2],
			[22, 'harness', 'harness-straps', 'ELAS', 4],
			[38, 'facepiece', 'facepiece-body', 'AGE', 9]
		] as const;
		for (const [index, station, step, code, ago] of stories) {
			const mask = this.masks[index];
			if (!mask) continue;
			const id = this.chance.uuid();
			const by = this.person('odd');
			const { severity } = rejectCode(code);
			const reportedAt = this.moment(ago);
			const note = code === 'CURL' ? 'Came out of wash batch with the discs left in.' : null;
			await reportFault(this.tx, {
				id,
				itemId: mask.id,
				station,
				step,
				code,
				severity,
				note,
				reportedBy: by,
				reportedAt
			});
			this.happen({
				at: reportedAt,
				by,
				action: 'defect.opened',
				of: id,
				itemId: mask.id,
				payload: { station, code, severity, note }
			});
		}
	}
}
