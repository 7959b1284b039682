/** Codes of the card that hangs at the counter: what a key would do, for whoever has only the scanner. */
export const COUNTER_CODES = [
	{ code: 'GV-YES', does: 'yes', words: 'Yes, as it says' },
	{ code: 'GV-CLEAR', does: 'clear', words: 'Clear the counter' },
	{ code: 'GV-OWN', does: 'own', words: 'As their own, no task' },
	{ code: 'GV-UNUSED', does: 'unused', words: 'Not used' },
	{ code: 'GV-SMELL', does: 'smell', words: 'Smell or taste' },
	{ code: 'GV-HARD', does: 'resistance', words: 'Hard to breathe' },
	{ code: 'GV-LEAK', does: 'leak', words: 'Leak at the face' },
	{ code: 'GV-ALARM', does: 'alarm', words: 'Alarm or whistle' },
	{ code: 'GV-HURT', does: 'discomfort', words: 'Hurt or slipped' },
	{ code: 'GV-TORN', does: 'damage', words: 'Torn or broken' },
	{ code: 'GV-GOOD', does: 'good', words: 'All of it good' },
	{ code: 'GV-LOOK', does: 'look', words: '' }
] as const;
export type CounterCode = (typeof COUNTER_CODES)[number]['does'];

/** What a scanned word orders; undefined: it is no order. */
export const codeOf = (word: string): CounterCode | undefined =>
	COUNTER_CODES.find(({ code }) => code === word.trim().toUpperCase())?.does;
