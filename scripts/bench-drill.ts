// The trainer: whether simulated trainees of known skill are ranked rightly, and what walking and drawing take.
import { PROCEDURES } from '../src/core/data/procedures.ts';
import { subjectsAt } from '../src/core/drawings/at.ts';
import { SUBJECT_KEYS, SUBJECTS } from '../src/core/drawings/subjects.ts';
import { addSignals, NO_SIGNALS, sensitivity } from '../src/core/drill/signal-detection.ts';
import { simulatedDrill } from '../src/core/drill/trainees.ts';
import { rankCorrelation } from '../src/core/stats/rank.ts';

const TRAINEES = 200;
const SESSIONS = 20;
const procedure = PROCEDURES.find(({ key }) => key === 'half-mask-pre-use');
if (!procedure) throw new Error('There is no half mask.');
const skill = Array.from({ length: TRAINEES }, (_, i) => 0.3 + (3.4 * i) / (TRAINEES - 1));
for (const level of [1, 2, 3] as const) {
	const from = performance.now();
	const seen = skill.map((dPrime, who) => {
		let sum = NO_SIGNALS;
		for (let k = 0; k < SESSIONS; k++)
			sum = addSignals(
				sum,
				simulatedDrill(
					procedure,
					{ dPrime, bias: ((who % 7) - 3) * 0.15 },
					who * 7919 + k + 1,
					level
				).signals
			);
		return sensitivity(sum).dPrime;
	});
	const took = performance.now() - from;
	console.log(
		`${TRAINEES} trainees, ${SESSIONS} drills each, level ${level}   rank correlation ${rankCorrelation(skill, seen).toFixed(3)}, ${(took / TRAINEES / SESSIONS).toFixed(2)} ms a drill`
	);
}
const from = performance.now();
let drawn = 0;
for (const key of SUBJECT_KEYS)
	for (const what of [null, ...Object.keys(SUBJECTS[key].faults)])
		drawn += SUBJECTS[key].draw(what, { amount: 0.5, at: 0.5 }).length ? 1 : 0;
console.log(
	`${drawn} drawings                        ${((performance.now() - from) / drawn).toFixed(3)} ms each`
);
console.log(
	`subjects at a step of a half mask    ${procedure.steps.map((step) => subjectsAt('half-mask', step).length).join(' ')}`
);
