import { DIALS } from './dials.ts';
import { FACE } from './face.ts';
import { FILTERS } from './filters.ts';
import { HARNESS } from './harness.ts';
import { LABELS } from './labels.ts';
import { MOUNTS } from './mounts.ts';
import { SIGHT } from './sight.ts';
import type { Subject } from './mark.ts';
import { PRESSURE } from './pressure.ts';
import { SUIT } from './suit.ts';
import { VALVES } from './valves.ts';

const ALL = {
	...FILTERS,
	...MOUNTS,
	...VALVES,
	...FACE,
	...SIGHT,
	...HARNESS,
	...DIALS,
	...PRESSURE,
	...SUIT,
	...LABELS
} as const;

export type SubjectKey = keyof typeof ALL;
/** Everything that is drawn, along the air. */
export const SUBJECTS: Readonly<Record<SubjectKey, Subject>> = ALL;
export const SUBJECT_KEYS = Object.keys(ALL) as SubjectKey[];
