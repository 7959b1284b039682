// What the record teaches: how often the alarm cries without a cause, how soon it finds a bad lot, how long a large recall and the page take.
import { randomUUID } from 'node:crypto';
import postgres from 'postgres';
import { clusterSigns } from '../src/core/teach/cluster.ts';
import { simulatedYear, type YearOf } from '../src/core/teach/simulated-years.ts';
import { openDatabase } from '../src/lib/server/db/client.ts';
import { recallPage, recallParts } from '../src/lib/server/faults/recalls.ts';
import { closeHeavy } from '../src/lib/server/jobs/heavy.ts';
import type { Context } from '../src/lib/server/kernel/context.ts';
import { loadSite } from '../src/lib/server/kernel/site.ts';
import { learn } from '../src/lib/server/teach/learn.ts';

const YEARS = 300;
const FITTED = 3_000;
const QUIET: YearOf = {
	seed: 0,
	masks: 140,
	lots: 6,
	batches: 60,
	inBatch: 8,
	faultsPerMask: 0.4
};
const ms = (from: number) => `${(performance.now() - from).toFixed(0)} ms`.padStart(9);

let cried = 0;
for (let seed = 0; seed < YEARS; seed++)
	if (clusterSigns(simulatedYear({ ...QUIET, seed })).some(({ alarmAt }) => alarmAt !== null))
		cried++;
console.log(
	`quiet years in which the alarm cries   ${cried} of ${YEARS}, ${((100 * cried) / YEARS).toFixed(1)} %`
);
for (const times of [4, 6, 8, 12]) {
	const found: number[] = [];
	let elsewhere = 0;
	for (let seed = 0; seed < YEARS; seed++) {
		const signs = clusterSigns(
			simulatedYear({ ...QUIET, seed: 50_000 + seed, badLot: { masks: 14, times } })
		);
		found.push(signs.find(({ group }) => group === 'lot 0')?.alarmAt ?? Infinity);
		if (signs.some(({ group, alarmAt }) => group !== 'lot 0' && alarmAt !== null)) elsewhere++;
	}
	found.sort((a, b) => a - b);
	console.log(
		`a lot ${String(times).padStart(2)} times as bad, 14 of 140      found at fault ${found[YEARS / 2]} in the middle, in ${found.filter(Number.isFinite).length} of ${YEARS} years; another cries in ${elsewhere}`
	);
}

const url = process.env.DATABASE_URL ?? '';
const sql = postgres(process.env.GREVAN_OWNER_URL ?? url, { max: 1, onnotice: () => {} });
const { db, close } = openDatabase(url);
const [person] = await sql<{ id: string; name: string; initials: string }[]>`
	select id, name, initials from "user" where role = 'supervisor' limit 1`;
if (!person) throw new Error('The demo is not there.');
const context: Context = {
	db,
	site: await loadSite(db),
	now: () => new Date(),
	actor: { ...person, role: 'supervisor' },
	proof: { at: new Date(), by: 'password' }
};
const lotId = randomUUID();
await sql`insert into part_lot (id, part, lot, quantity) values (${lotId}, 'disc-exhalation', 'BENCH', 50)`;
const fitted = await sql`
	insert into part_fitting (id, item_id, station, part, lot_id, quantity, fitted_at)
	select gen_random_uuid(), i.id, 'exhalation', 'disc-exhalation', ${lotId}, 1, now() - interval '90 days'
	from item i where i.family = 'half-mask' and i.retired_on is null order by i.tag desc limit ${FITTED}`;
let at = performance.now();
await learn(context, { family: 'half-mask', days: 365, cost: 5 });
console.log(`what the record teaches, worked out    ${ms(at)}`);
at = performance.now();
const { recallId, held } = await recallParts(context, {
	id: randomUUID(),
	lotId,
	why: 'Measured.'
});
console.log(
	`a lot in ${fitted.count} items called back        ${ms(at)}, ${held} held in one transaction`
);
at = performance.now();
const page = await recallPage(db, recallId);
console.log(`its list with where each is            ${ms(at)}, ${page.items.length} items`);
await closeHeavy();
await close();
await sql.end();
