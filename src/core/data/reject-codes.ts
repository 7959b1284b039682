/** stop: held at once. repair: mended before use. watch: usable, looked at sooner. note: written down. */
export type Severity = 'stop' | 'repair' | 'watch' | 'note';

export interface RejectCode {
	code: string;
	name: string;
	severity: Severity;
	/** The usual repair job; where and on what it was found decides first (data/repair-choice.ts). */
	repair: string;
}

/** Coded faults by what is found. Common practice. */
// prettier-ignore
export const REJECT_CODES: readonly RejectCode[] = [
	{ code: 'CRK', name: 'cracked', severity: 'stop', repair: 'retire' },
	{ code: 'TEAR', name: 'torn', severity: 'stop', repair: 'retire' },
	{ code: 'HOLE', name: 'holed', severity: 'stop', repair: 'retire' },
	{ code: 'DIST', name: 'distorted', severity: 'stop', repair: 'retire' },
	{ code: 'STIFF', name: 'stiff or crumbling', severity: 'stop', repair: 'retire' },
	{ code: 'STICKY', name: 'soft or sticky', severity: 'stop', repair: 'retire' },
	{ code: 'CURL', name: 'valve disc curled or creased', severity: 'stop', repair: 'replace-disc' },
	{ code: 'SEAT', name: 'does not lie flat or turn on its post', severity: 'stop', repair: 'replace-disc' },
	{ code: 'MISS', name: 'part missing', severity: 'stop', repair: 'mask-service' },
	{ code: 'GASK', name: 'gasket lost, cut or hard', severity: 'stop', repair: 'replace-gasket' },
	{ code: 'LUG', name: 'lug or thread worn or broken', severity: 'stop', repair: 'retire' },
	{ code: 'DATE', name: 'out of date', severity: 'stop', repair: 'replace-filters' },
	{ code: 'OPEN', name: 'opened without date and initials', severity: 'stop', repair: 'replace-filters' },
	{ code: 'MIX', name: 'unequal pair', severity: 'stop', repair: 'replace-filters' },
	{ code: 'RATTLE', name: 'rattles, loose sorbent', severity: 'stop', repair: 'replace-filters' },
	{ code: 'DENT', name: 'dented', severity: 'stop', repair: 'replace-filters' },
	{ code: 'RUST', name: 'rusted', severity: 'stop', repair: 'replace-filters' },
	{ code: 'CLOG', name: 'clogged, hard to breathe through', severity: 'repair', repair: 'replace-filters' },
	{ code: 'REV', name: 'fitted the wrong way round', severity: 'repair', repair: 'refit' },
	{ code: 'ONCE', name: 'one-time adapter used again', severity: 'stop', repair: 'replace-adapter' },
	{ code: 'CLICK', name: 'cover does not click home', severity: 'repair', repair: 'replace-cover' },
	{ code: 'ELAS', name: 'elastic does not return', severity: 'repair', repair: 'replace-harness' },
	{ code: 'CUT', name: 'cut or frayed', severity: 'repair', repair: 'replace-harness' },
	{ code: 'BUCK', name: 'buckle slips or is broken', severity: 'repair', repair: 'replace-harness' },
	{ code: 'CHAN', name: 'strap out of its channel', severity: 'repair', repair: 'refit' },
	{ code: 'DIRTY', name: 'dirty', severity: 'repair', repair: 'clean' },
	{ code: 'WET', name: 'wet', severity: 'repair', repair: 'clean' },
	{ code: 'LABEL', name: 'label unreadable', severity: 'repair', repair: 'relabel' },
	{ code: 'DUST', name: 'slight dust, wiped off', severity: 'watch', repair: 'clean' },
	{ code: 'AGE', name: 'first signs of ageing', severity: 'watch', repair: 'mask-service' },
	{ code: 'BAG', name: 'bag or box to be replaced', severity: 'note', repair: 'replace-bag' },
	{ code: 'SCR', name: 'scratched, stained or crazed in the way of sight', severity: 'repair', repair: 'replace-lens' },
	{ code: 'BOND', name: 'bonding or frame open', severity: 'stop', repair: 'replace-face-seal' },
	{ code: 'LOOSE', name: 'loose', severity: 'repair', repair: 'tighten' },
	{ code: 'DISC', name: 'self-closing disc sticks', severity: 'stop', repair: 'replace-closing-disc' },
	{ code: 'CUP', name: 'inner cup off its seat', severity: 'repair', repair: 'refit' },
	{ code: 'DIAPH', name: 'speech diaphragm loose or torn', severity: 'stop', repair: 'replace-diaphragm' },
	{ code: 'DRINK', name: 'drink tube blocked or stiff', severity: 'repair', repair: 'replace-drink-tube' },
	{ code: 'MILD', name: 'mildew', severity: 'repair', repair: 'clean' },
	{ code: 'CARD', name: 'cards or bands missing', severity: 'note', repair: 'replace-bag' },
	{ code: 'SEALF', name: 'does not seal on the face', severity: 'stop', repair: 'mask-service' },
	{ code: 'WHL', name: 'whistle too low, too late', severity: 'stop', repair: 'ba-service' },
	{ code: 'WHH', name: 'whistle too high, too early', severity: 'repair', repair: 'ba-service' },
	{ code: 'LEAK', name: 'does not hold pressure', severity: 'stop', repair: 'ba-service' },
	{ code: 'FREE', name: 'free flow', severity: 'stop', repair: 'ba-service' },
	{ code: 'DEMD', name: 'demand valve does not switch', severity: 'stop', repair: 'ba-service' },
	{ code: 'COUP', name: 'coupling does not lock', severity: 'stop', repair: 'replace-hose' },
	{ code: 'GAUGE', name: 'gauge sticks or is broken', severity: 'stop', repair: 'ba-service' },
	{ code: 'ALRM', name: 'alarm dead', severity: 'stop', repair: 'recharge' },
	{ code: 'BATT', name: 'battery low', severity: 'repair', repair: 'recharge' },
	{ code: 'FILL', name: 'below 90 % or not full', severity: 'repair', repair: 'refill' },
	{ code: 'EMPTY', name: 'empty, contents unknown', severity: 'stop', repair: 'test-house' },
	{ code: 'STAMP', name: 'past its test date', severity: 'stop', repair: 'test-house' },
	{ code: 'LIFE', name: 'past its life', severity: 'stop', repair: 'retire' },
	{ code: 'FIBRE', name: 'fibres lifted, cut or charred', severity: 'stop', repair: 'test-house' },
	{ code: 'DENTC', name: 'dented, cut or gouged', severity: 'stop', repair: 'test-house' },
	{ code: 'THRD', name: 'thread worn or dirty', severity: 'stop', repair: 'cylinder-valve' },
	{ code: 'EXT', name: 'straps not fully extended', severity: 'repair', repair: 'refit' },
	{ code: 'STRAP', name: 'cylinder strap slips', severity: 'repair', repair: 'replace-ba-straps' },
	{ code: 'COMP', name: 'combination not approved', severity: 'stop', repair: 'refit' },
	{ code: 'WGHT', name: 'over the weight limit', severity: 'stop', repair: 'refit' },
	{ code: 'HOSE', name: 'hose cut, cracked or kinked', severity: 'stop', repair: 'replace-hose' },
	{ code: 'FLOW', name: 'flow below the mark', severity: 'stop', repair: 'recharge' },
	{ code: 'OVER', name: 'past the life of its part: changed on schedule', severity: 'repair', repair: 'mask-service' },
	{ code: 'RECALL', name: 'has a part of a recalled lot', severity: 'stop', repair: 'mask-service' },
	{ code: 'BAND', name: 'pressure outside the band', severity: 'stop', repair: 'airline-service' },
	{ code: 'AIRT', name: 'no air test in force', severity: 'stop', repair: 'air-test' },
	{ code: 'SEAM', name: 'seam lifting or open', severity: 'stop', repair: 'suit-repair' },
	{ code: 'GLOVE', name: 'glove worn or stiff', severity: 'stop', repair: 'replace-gloves' },
	{ code: 'BOOT', name: 'boot or its joint damaged', severity: 'stop', repair: 'replace-boots' },
	{ code: 'ZIPV', name: 'zip kinked to a V', severity: 'stop', repair: 'replace-zip' },
	{ code: 'WAX', name: 'zip dry', severity: 'repair', repair: 'wax-zip' },
	{ code: 'ORNG', name: 'O-ring missing, cut or dry', severity: 'stop', repair: 'replace-orings' },
	{ code: 'PIN', name: 'locking pin out or broken', severity: 'stop', repair: 'replace-orings' },
	{ code: 'CHEM', name: 'chemical attack', severity: 'stop', repair: 'retire' },
	{ code: 'SEALB', name: 'seal broken', severity: 'stop', repair: 'exchange-set' },
	{ code: 'IND', name: 'indicator changed', severity: 'stop', repair: 'replace-filters' }
];

/** The code of what holds an item with a recalled part in it: never found by looking. */
export const RECALLED = 'RECALL';

/** Codes that say nothing against what they stand at: its time was over, or its lot was called back. */
export const NOT_LOOKED_FOR: ReadonlySet<string> = new Set(['OVER', RECALLED]);

/** A code's row. Throws RangeError on an unknown code. */
export function rejectCode(code: string): RejectCode {
	const row = REJECT_CODES.find((r) => r.code === code);
	if (!row) throw new RangeError(`No reject code "${code}".`);
	return row;
}

/** Whether a severity takes the item out of use until it is mended. */
export const holds = (severity: Severity): boolean => severity === 'stop' || severity === 'repair';
