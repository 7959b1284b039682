export interface ShortTest {
	key: string;
	name: string;
	says: string;
}

/** Tests of a few minutes, without the line. */
export const SHORT_TESTS = [
	{ key: 'seal-check', name: 'Seal check', says: 'what was felt, and what follows' },
	{ key: 'mistakes', name: 'Usual mistakes', says: 'what is wrong about it' },
	{ key: 'equipment', name: 'Hazard to equipment', says: 'what the ladder allows' },
	{ key: 'filter', name: 'Filter for a task', says: 'the code that is needed' },
	{ key: 'turn-back', name: 'Turning back', says: 'at which pressure' },
	{ key: 'trace', name: 'Pressure trace', says: 'leak, cooling, settling or a knock' },
	{ key: 'donning', name: 'Into the suit', says: 'what comes next' }
] as const satisfies readonly ShortTest[];
export type ShortTestKey = (typeof SHORT_TESTS)[number]['key'];

export const SHORT_TEST_KEYS = SHORT_TESTS.map(({ key }) => key) as ShortTestKey[];

/** A test by its key; undefined where there is none. */
export const shortTest = (key: string) => SHORT_TESTS.find((one) => one.key === key);
