import { withoutSide } from '../airway/airway.ts';
import type { Procedure, Step } from '../inspection/procedure.ts';
import { NOT_LOOKED_FOR } from '../data/reject-codes.ts';

/** A kind of fault, the same on both sides of a mask: "half-mask/inhalation/CURL". */
export type Kind = string;

export const kindOf = (family: string, station: string, code: string): Kind =>
	`${family}/${withoutSide(station)}/${code}`;

/** A fault where it can be met. */
export interface Meeting {
	step: string;
	code: string;
	kind: Kind;
}

/** Whether a step can be part of a drill: what is looked at, felt or read, not what is only confirmed. */
export const canBeMet = (step: Step): boolean =>
	step.kind === 'look' || step.kind === 'feel' || step.reading !== undefined;

/** Every fault that a procedure can meet, in its order. */
export const meetingsOf = (procedure: Procedure): Meeting[] =>
	procedure.steps.filter(canBeMet).flatMap((step) =>
		(step.reading
			? [step.reading.code, ...(step.reading.codeHigh ? [step.reading.codeHigh] : [])]
			: step.rejects
		)
			.filter((code) => !NOT_LOOKED_FOR.has(code))
			.map((code) => ({
				step: step.key,
				code,
				kind: kindOf(procedure.family, step.station, code)
			}))
	);

/** Each kind once. */
export const kindsOf = (procedure: Procedure): Kind[] => [
	...new Set(meetingsOf(procedure).map(({ kind }) => kind))
];
