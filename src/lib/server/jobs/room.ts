import PgBoss from 'pg-boss';
import { keepBoard } from '../air/board-keeper.ts';
import { resumeTests } from '../bench/acquire.ts';
import type { Database } from '../db/client.ts';
import { QUEUE_SCHEMA } from '../db/grants.ts';
import { forgetTries } from '../db/queries/access.ts';
import { forgetLeases, holdLease } from '../db/queries/leases.ts';
import { forgetRequests } from '../db/queries/requests.ts';
import { gatherEntryCounts } from '../db/queries/history.ts';
import { gatherStock } from '../db/queries/stock.ts';
import { anchorNow } from '../web/anchor.ts';
import type { Unattended } from '../kernel/context.ts';
import { asRefusal } from '../kernel/refusal.ts';
import { loadSite } from '../kernel/site.ts';
import { makeDigests } from '../notices/make.ts';
import { sendWaiting } from '../notices/send.ts';
import { resumeFits } from '../people/fit-acquire.ts';
import { renewPlan } from '../plan/plan.ts';
import { rebuildAll } from '../readiness/rebuild-all.ts';
import { lookForClusters } from '../teach/clusters.ts';
import { config } from '../web/config.ts';
import { log, logged } from '../web/log.ts';

/**
 * What runs without a visitor. Two kinds: what goes on all the time is done by the process that holds its lease and
 * taken over within seconds when that process is gone; what has its hour is queued in PostgreSQL and done by one
 * process.
 */

/** Goes on all the time: its name, how often, and what. */
interface Duty {
	name: string;
	everyMs: number;
	work: (context: Unattended) => Promise<unknown>;
	/** One process at a time; without it every process does it. */
	alone: boolean;
}

const DAY_MS = 86_400_000;
/** The end of the log is signed so often, where it has grown. Site default. */
const ANCHOR_MS = 60_000;
/** After so long without a sign of life another process takes a duty over. */
const LEASE_MS = 3000;
/** Counts of stock and of the log are drawn together so often: each record adds a few rows. */
const GATHER_MS = 10 * 60_000;
const DUTIES: readonly Duty[] = [
	{
		name: 'entry board',
		everyMs: 500,
		alone: true,
		work: (context) => keepBoard(context, config().GREVAN_TELEMETRY)
	},
	{
		// Each test has a lease of its own: any process may look whether one was left alone.
		name: 'bench tests',
		everyMs: 2000,
		alone: false,
		work: (context) => resumeTests(context, config().GREVAN_PRESSURE_BENCH)
	},
	{
		name: 'fit tests',
		everyMs: 2000,
		alone: false,
		work: (context) => resumeFits(context, config().GREVAN_FIT_COUNTER)
	},
	{ name: 'messages of the day', everyMs: 60_000, alone: true, work: makeDigests },
	{
		name: 'messages sent',
		everyMs: 5000,
		alone: true,
		work: (context) => sendWaiting(context)
	},
	{
		name: 'log anchors',
		everyMs: ANCHOR_MS,
		alone: true,
		work: ({ db, now }) => anchorNow(db, 'interval', now())
	},
	{
		name: 'counts of stock',
		everyMs: GATHER_MS,
		alone: true,
		work: ({ db }) => gatherStock(db)
	},
	{
		name: 'counts of the log',
		everyMs: GATHER_MS,
		alone: true,
		// Of older quarters nothing comes any more.
		work: ({ db, now }) => gatherEntryCounts(db, new Date(now().getTime() - 2 * DAY_MS))
	}
];

/** Has its hour, by the clock of the site. */
interface Scheduled {
	name: string;
	cron: string;
	work: (context: Unattended) => Promise<unknown>;
}

/** A device may hold what was answered without a connection for a month. */
const KEEP_REQUESTS_MS = 60 * DAY_MS;
const SCHEDULED: readonly Scheduled[] = [
	{ name: 'rebuild-states', cron: '5 0 * * *', work: rebuildAll },
	{ name: 'evening-plan', cron: '0 18 * * *', work: renewPlan },
	{ name: 'evening-look', cron: '20 18 * * *', work: lookForClusters },
	{
		name: 'forget-requests',
		cron: '20 3 * * *',
		work: async ({ db, now }) => {
			await forgetRequests(db, new Date(now().getTime() - KEEP_REQUESTS_MS));
			await forgetLeases(db);
			await forgetTries(db, new Date(now().getTime() - DAY_MS));
		}
	}
];
/** What a job works with: the choices of the site as they are now. */
const unattended = async (db: Database): Promise<Unattended> => ({
	db,
	now: () => new Date(),
	site: await loadSite(db)
});

/** Does what goes on all the time and takes part in the queue, until the process ends. */
export async function startJobs(db: Database): Promise<void> {
	for (const duty of DUTIES) keepDuty(db, duty);
	await joinQueue(db).catch((error: unknown) => complain('queue', error));
}

function keepDuty(db: Database, { name, everyMs, work, alone }: Duty): void {
	let busy = false;
	const round = async () => {
		if (busy) return;
		busy = true;
		try {
			if (!alone || (await holdLease(db, name, Math.max(LEASE_MS, 2 * everyMs))))
				await work(await unattended(db));
		} catch (error) {
			complain(name, error);
		} finally {
			busy = false;
		}
	};
	setInterval(() => void round(), everyMs).unref();
}

async function joinQueue(db: Database): Promise<void> {
	const boss = new PgBoss({
		connectionString: config().DATABASE_URL,
		schema: QUEUE_SCHEMA,
		application_name: 'grevan jobs',
		max: 2
	});
	boss.on('error', (error) => complain('queue', error));
	await boss.start();
	const { site } = await unattended(db);
	for (const { name, cron, work } of SCHEDULED) {
		await boss.createQueue(name, { name, policy: 'singleton' });
		await boss.schedule(name, cron, {}, { tz: site.timeZone });
		await boss.work(name, async () => void (await work(await unattended(db))));
	}
}

/** A database that is away for a while comes back: the next round comes by itself. */
function complain(what: string, error: unknown): void {
	if (!asRefusal(error)) log.error({ what, ...logged(error) });
}
