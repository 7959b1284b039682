/** stop: held at once. repair: mended before use. watch: usable, looked at sooner. note: written down. */
export type Severity = 'stop' | 'repair' | 'watch' | 'note';

export interface RejectCode {
	code: string;
	name: string;
	severity: Severity;
	/** The usual repair job (data/repairs.ts). */
	repair: string;
}

/** Coded faults by what is found. Common practice. */
// prettier-ignore
export const REJECT_CODES: readonly RejectCode[] = [
	{ code: 'CRK', name: 'cracked', severity: 'stop', repair: 'retire' },
	{ code: 'TEAR', name: 'torn', severity: 'stop', repair: 'replace-disc' },
	{ code: 'HOLE', name: 'holed', severity: 'stop', repair: 'retire' },
	{ code: 'DIST', name: 'distorted', severity: 'stop', repair: 'retire' },
	{ code: 'STIFF', name: 'stiff or crumbling', severity: 'stop', repair: 'retire' },
	{ code: 'STICKY', name: 'soft or sticky', severity: 'stop', repair: 'retire' },
	{ code: 'CURL', name: 'valve disc curled or creased', severity: 'stop', repair: 'replace-disc' },
	{ code: 'SEAT', name: 'does not lie flat or turn on its post', severity: 'stop', repair: 'replace-disc' },
	{ code: 'MISS', name: 'part missing', severity: 'stop', repair: 'replace-part' },
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
	{ code: 'ONCE', name: 'one-time adapter used again', severity: 'stop', repair: 'replace-part' },
	{ code: 'CLICK', name: 'cover does not click home', severity: 'repair', repair: 'replace-part' },
	{ code: 'ELAS', name: 'elastic does not return', severity: 'repair', repair: 'replace-harness' },
	{ code: 'CUT', name: 'cut or frayed', severity: 'repair', repair: 'replace-harness' },
	{ code: 'BUCK', name: 'buckle slips or is broken', severity: 'repair', repair: 'replace-harness' },
	{ code: 'CHAN', name: 'strap out of its channel', severity: 'repair', repair: 'refit' },
	{ code: 'DIRTY', name: 'dirty', severity: 'repair', repair: 'clean' },
	{ code: 'WET', name: 'wet', severity: 'repair', repair: 'clean' },
	{ code: 'LABEL', name: 'label unreadable', severity: 'repair', repair: 'relabel' },
	{ code: 'DUST', name: 'slight dust, wiped off', severity: 'watch', repair: 'clean' },
	{ code: 'AGE', name: 'first signs of ageing', severity: 'watch', repair: 'replace-disc' },
	{ code: 'BAG', name: 'bag or box to be replaced', severity: 'note', repair: 'replace-part' }
];

/** A code's row. Throws RangeError on an unknown code. */
export function rejectCode(code: string): RejectCode {
	const row = REJECT_CODES.find((r) => r.code === code);
	if (!row) throw new RangeError(`No reject code "${code}".`);
	return row;
}

/** Whether a severity takes the item out of use until it is mended. */
export const holds = (severity: Severity): boolean => severity === 'stop' || severity === 'repair';
