import { canLookBad } from '../../../core/drawings/at.ts';
import { procedureFor } from '../../../core/data/procedures.ts';
import { handOver, type Level } from '../../../core/drill/hand-over.ts';
import { judgeExam } from '../../../core/drill/score.ts';
import { type Trainee, walkAs } from '../../../core/drill/trainees.ts';
import { Chance } from '../../../core/stats/chance.ts';
import { drillExam } from '../db/schema/index.ts';
import { keepWalked } from '../drill/sessions.ts';
import type { Seed } from './seeding.ts';

/** Who drilled, how well they see, how often. Invented. */
const PEOPLE: { key: string; trainee: Trainee; drills: number; families: string[] }[] = [
	{
		key: 'ilse',
		trainee: { dPrime: 3.2, bias: 0.2 },
		drills: 7,
		families: ['half-mask', 'ba-set']
	},
	{ key: 'odd', trainee: { dPrime: 1.9, bias: 0.3 }, drills: 6, families: ['half-mask'] },
	{ key: 'vale', trainee: { dPrime: 1.1, bias: -0.6 }, drills: 5, families: ['half-mask'] },
	{ key: 'tove', trainee: { dPrime: 2.6, bias: 0.1 }, drills: 3, families: ['gas-tight-suit'] }
];
const EVERY_DAYS = 8;
const EXAM_DAYS_AGO = 20;

/** A past of the trainer: some drills of four people, and an exam that was passed. */
export async function seedDrills(seed: Seed): Promise<void> {
	const chance = new Chance(7_077);
	const walk = (family: string, trainee: Trainee, number: number, level: Level) => {
		const procedure = procedureFor(family);
		const canBeNear = (step: (typeof procedure.steps)[number]) => canLookBad(family, step);
		const handed = handOver({ procedure, seed: number, level, canBeNear });
		return { procedure, handed, ...walkAs(procedure, handed, trainee, number) };
	};
	for (const { key, trainee, drills, families } of PEOPLE)
		for (let i = 0; i < drills; i++) {
			const family = families[i % families.length] ?? 'half-mask';
			const { procedure, handed, answers, score } = walk(
				family,
				trainee,
				chance.int(1, 1e9),
				i < 2 ? 1 : 2
			);
			await keepWalked(
				{ tx: seed.tx, now: seed.moment((drills - i) * EVERY_DAYS + 2) },
				{
					id: chance.uuid(),
					mode: i < 2 ? 'learn' : 'drill',
					examId: null,
					handed,
					answers,
					passed: null
				},
				procedure,
				score,
				seed.person(key)
			);
		}
	// The first of them that she passes with something found.
	const ilse = PEOPLE[0]?.trainee ?? { dPrime: 3, bias: 0 };
	for (let number = 1; number < 500; number++) {
		const { procedure, handed, answers, score } = walk('half-mask', ilse, number, 2);
		const judged = judgeExam(score);
		if (!judged.passed || handed.faults.length < 2) continue;
		const [id, at] = [chance.uuid(), seed.moment(EXAM_DAYS_AGO)];
		const whose = { by: seed.person('ilse'), at, of: id } as const;
		await seed.tx.insert(drillExam).values({
			id,
			userId: seed.person('ilse'),
			supervisorId: seed.person('tove'),
			procedure: procedure.key,
			procedureVersion: procedure.version,
			level: 2,
			seed: number,
			startedAt: at
		});
		await keepWalked(
			{ tx: seed.tx, now: at },
			{ id, mode: 'exam', examId: id, handed, answers, passed: true },
			procedure,
			score,
			seed.person('ilse')
		);
		const who = 'Ilse Norrby';
		seed.happen({
			...whose,
			action: 'drill.exam-begun',
			payload: { procedure: procedure.name, who, beside: 'Tove Rieveld' }
		});
		seed.happen({
			...whose,
			action: 'drill.exam-ended',
			payload: {
				procedure: procedure.name,
				who,
				points: score.index,
				passed: true,
				why: judged.why
			}
		});
		return;
	}
	throw new Error('Nobody passes the exam of the demo.');
}
