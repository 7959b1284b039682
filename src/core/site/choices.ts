import type { Day } from '../plan/calendar.ts';

/** Schemes of filter codes. */
export const CODE_SCHEMES = ['en', 'us'] as const;
export type CodeScheme = (typeof CODE_SCHEMES)[number];

/** Units that pressures of cylinders, sets and airlines are shown in. */
export const SHOWN_PRESSURES = ['bar', 'MPa', 'psi'] as const;
export type ShownPressure = (typeof SHOWN_PRESSURES)[number];

/** Units that temperatures are shown in. */
export const SHOWN_TEMPERATURES = ['°C', '°F'] as const;
export type ShownTemperature = (typeof SHOWN_TEMPERATURES)[number];

/** Whether a seal check is asked both ways where the model allows both. */
export const SEAL_SCHOOLS = ['both', 'one'] as const;
export type SealSchool = (typeof SEAL_SCHOOLS)[number];

/** How leak and warning of a breathing-apparatus set are looked at. */
export const SET_SCHOOLS = ['either', 'bench', 'worn'] as const;
export type SetSchool = (typeof SET_SCHOOLS)[number];

/** A day on which nobody works. */
export interface Holiday {
	on: Day;
	name: string;
}

/** Bench work in a day, min. Site default: half of an eight-hour day, the rest goes with hand-out and return. */
export const DAY_BENCH_MINUTES = 240;
