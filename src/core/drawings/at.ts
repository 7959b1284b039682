import { FELT } from '../data/felt.ts';
import type { Step } from '../inspection/procedure.ts';
import { SUBJECTS, type SubjectKey } from './subjects.ts';

/** What is looked at where a fault is found: the first line that names the station and the code. */
type Line = readonly [stations: RegExp, subject: SubjectKey];

const LINES: readonly Line[] = [
	[/^prefilter/, 'prefilter'],
	[/^(filter|canister|sorbent|marks)/, 'cartridge'],
	[/^(filter|marks)/, 'pair'],
	[/^(filter|canister|sorbent)/, 'dated'],
	[/^(filter|canister|window)/, 'window'],
	[/^(filter|canister|thread|marks)/, 'seated'],
	[/^(gasket|canister)/, 'gasket'],
	[/^gasket/, 'closing'],
	[/^cup/, 'cup'],
	[/^(inhalation|exhalation|exhaust)/, 'disc'],
	[/^diaphragm/, 'diaphragm'],
	[/^(cover|canister)/, 'cover'],
	[/^(facepiece|faceseal|mask)/, 'edge'],
	[/^(lens|visor|facepiece)/, 'lens'],
	[/^insert/, 'insert'],
	[/^drink/, 'drink'],
	[/^(harness|strap|loops|belt|pouch)/, 'strap'],
	[/^(harness|strap|belt|pouch|hood)/, 'buckle'],
	[/^(harness|carrier)/, 'channel'],
	[/^frame/, 'frame'],
	[/^(bag|carrier)/, 'bag'],
	[/^(cylinder|gauge|escape|coupling)/, 'fill'],
	[/^whistle/, 'whistle'],
	[/^(regulator|reducer)/, 'band'],
	[/^(gauge|regulator|coupling|cylinder)/, 'needle'],
	[/^(cylinder|escape)/, 'stamp'],
	[/^stamp/, 'stamp'],
	[/^cylinder/, 'cylinder'],
	[/^(cylinder|reducer|valve|strap)/, 'thread'],
	[/^(hose|gauge|coupling|pass)/, 'hose'],
	[/^(hose|coupling|second|strap|reducer|pass)/, 'coupling'],
	[/^(tpiece|pass|reducer|gloves|drink)/, 'ring'],
	[/^tpiece/, 'plate'],
	[/^guard/, 'guard'],
	[/^zip/, 'zip'],
	[/^gloves/, 'glove'],
	[/^boots/, 'boot'],
	[/^(channels|crotch|sleeves|body|hood|reel|pass)/, 'seam'],
	[/^(body|sleeves|hood)/, 'suit'],
	[/^body/, 'cartridge'],
	[/^body/, 'cylinder'],
	[/^(label|pass)/, 'label'],
	[/^indicator/, 'flow'],
	[/^(blower|hood|pass)/, 'flow'],
	[/^hood/, 'hood'],
	[/^(seal|source)/, 'seal'],
	[/^(source|escape)/, 'tag'],
	[/^(source|escape)/, 'fill'],
	[/^(alarm|distress|gauge|pass)/, 'lamp'],
	[/^battery/, 'battery'],
	// What can be soiled, wet or mouldy anywhere.
	[/^(label|mask|bag|carrier)/, 'bag']
];

/** Of one family, where the same station is another thing. */
const OF_FAMILY: Readonly<Record<string, readonly Line[]>> = {
	cylinder: [
		[/^body/, 'cylinder'],
		[/^valve/, 'thread']
	],
	'opened-filter': [
		[/^body/, 'cartridge'],
		[/^seal/, 'dated'],
		[/^seal/, 'seal'],
		[/^label/, 'dated']
	],
	'gas-tight-suit': [[/^visor/, 'lens']],
	'escape-set': [
		[/^source/, 'fill'],
		[/^source/, 'dated']
	],
	'powered-blower': [
		[/^hood$/, 'hood'],
		[/^hood$/, 'lens']
	],
	'ventilated-suit': [[/^hood$/, 'lens']],
	airline: [
		[/^source/, 'tag'],
		[/^facepiece/, 'lens'],
		[/^facepiece/, 'flow']
	]
};

/** What shows a fault, or why nothing can be seen of it. */
export type Shown = { subject: SubjectKey } | { felt: string };

/** What shows a code at a station; undefined for what is only confirmed or read. */
export function findShown(family: string, station: string, code: string): Shown | undefined {
	const line = [...(OF_FAMILY[family] ?? []), ...LINES].find(
		([stations, subject]) => stations.test(station) && code in SUBJECTS[subject].faults
	);
	if (line) return { subject: line[1] };
	const felt = FELT[code];
	return felt && { felt: felt.why };
}

/**
 * What shows a code at a station where one looks or feels.
 * @throws RangeError where it is neither drawn nor said why not; a test looks at all of them
 */
export function shownAt(family: string, station: string, code: string): Shown {
	const shown = findShown(family, station, code);
	if (!shown) throw new RangeError(`Nothing shows ${code} at ${station} of ${family}.`);
	return shown;
}

/** The things that are looked at in a step, each once, in the order of its codes. */
export function subjectsAt(family: string, step: Pick<Step, 'station' | 'rejects'>): SubjectKey[] {
	const shown = step.rejects.flatMap((code) => {
		const one = findShown(family, step.station, code);
		return one && 'subject' in one ? [one.subject] : [];
	});
	return [...new Set(shown)];
}

/** Whether something at a step can look like a fault and be none. */
export const canLookBad = (family: string, step: Pick<Step, 'station' | 'rejects'>): boolean =>
	subjectsAt(family, step).some((key) => SUBJECTS[key].near !== undefined);
