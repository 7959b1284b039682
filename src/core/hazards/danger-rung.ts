import { readableNumber } from '../units/number.ts';
import { commonPractice, published, type Reason } from '../verdict.ts';
import { written, type Contaminant, type HazardFacts } from './facts.ts';
import { type Finding, names, self } from './finding.ts';

/** Published: 29 CFR 1910.146(b), hazardous atmosphere at a tenth of the LEL; from memory. */
export const LEL_FRACTION = 0.1;
const dangerOrigin = published('29 CFR 1910.134(d)(2)(i)');

/** Up to here somebody may be fetched, with their own air and ignition under control, % LEL. Common practice. */
export const RESCUE_LEL_PERCENT = 25;

/** How near the air is to burning: what the meter read, or the sum over what is in it, % LEL. */
function flammable(
	contaminants: readonly Contaminant[],
	facts: Pick<HazardFacts, 'lelReadingPercent' | 'emergency'>
): Finding | undefined {
	const burning = contaminants.filter((c) => (c.lelRatio ?? 0) > 0);
	const sum = burning.reduce((all, c) => all + (c.lelRatio ?? 0) * 100, 0);
	const meter = facts.lelReadingPercent ?? 0;
	const value = Math.max(sum, meter);
	if (value < LEL_FRACTION * 100) return undefined;
	const read = readableNumber(value, 3);
	const what =
		meter >= sum
			? `The meter read ${read} % of the lower explosive limit`
			: burning.length > 1
				? `${names(burning)} are together at ${read} % of the lower explosive limit`
				: `${names(burning)} is at ${read} % of its lower explosive limit`;
	const rescue = facts.emergency === 'entry' && value < RESCUE_LEL_PERCENT;
	const text = rescue
		? `${what}: control ignition first; then with own air, to fetch somebody and for nothing else.`
		: `${what}: from ${facts.emergency === 'entry' ? RESCUE_LEL_PERCENT : 10} % on, nobody goes in. Ventilate, find the source.`;
	return {
		outcome: rescue ? 'self-contained' : 'stop',
		text,
		reasons: [
			{
				rule: meter >= sum ? 'hazard.lel-reading' : 'hazard.lel',
				text,
				origin: published('29 CFR 1910.146(b)'),
				inputs: burning.map((c) => ({
					name: c.name,
					value: Number(((c.lelRatio ?? 0) * 100).toPrecision(4)),
					unit: '% LEL'
				})),
				limit: 10,
				value,
				unit: '% LEL',
				margin: 10 - value
			}
		]
	};
}

/** Rung 3: do the contaminants reach immediate danger, each or together, or a tenth of their explosive limit? */
export function immediateDanger(
	contaminants: readonly Contaminant[],
	facts: Pick<HazardFacts, 'lelReadingPercent' | 'emergency'>
): Finding {
	const burns = flammable(contaminants, facts);
	if (burns?.outcome === 'stop') return burns;
	const reasons: Reason[] = [...(burns?.reasons ?? [])];
	const counted = contaminants.filter((c) => c.idlhRatio !== undefined);
	for (const c of counted)
		if (c.idlh && (c.idlhRatio ?? 0) >= 1)
			reasons.push({
				rule: 'hazard.idlh',
				text:
					c.idlhRatio === 1
						? `${c.name} is at the level immediately dangerous to life (${c.idlh.value} ${written(c.idlh.unit)}).`
						: `${c.name} is at ${percentOf(c.idlhRatio ?? 0)} of the level immediately dangerous to life (${c.idlh.value} ${written(c.idlh.unit)}).`,
				origin: dangerOrigin,
				limit: c.idlh.value,
				value: (c.idlhRatio ?? 0) * c.idlh.value,
				unit: written(c.idlh.unit),
				margin: c.idlh.value * (1 - (c.idlhRatio ?? 0))
			});
	const together = counted.reduce((sum, c) => sum + (c.idlhRatio ?? 0), 0);
	if (together >= 1 && counted.length > 1 && !counted.some((c) => (c.idlhRatio ?? 0) >= 1))
		reasons.push({
			rule: 'hazard.idlh-sum',
			text: `${names(counted)} together reach ${percentOf(together)} of the level immediately dangerous to life: their effects may add up.`,
			origin: commonPractice('like effects add up; when unsure, all do'),
			inputs: counted.map((c) => ({
				name: `${c.name} over its immediate-danger level`,
				value: Number((c.idlhRatio ?? 0).toPrecision(4)),
				unit: '×'
			})),
			limit: 1,
			value: together,
			unit: '×',
			margin: 1 - together
		});
	if (reasons.length) return self(reasons[0]?.text ?? '', reasons);
	const nearest = counted.toSorted((a, b) => (b.idlhRatio ?? 0) - (a.idlhRatio ?? 0))[0];
	const unlisted = contaminants.filter((c) => c.idlhRatio === undefined);
	return {
		text: nearest
			? `nearest: ${nearest.name}, ${percentOf(nearest.idlhRatio ?? 0)} of it`
			: 'no immediate-danger value is listed for these',
		notes: unlisted.length > 0,
		reasons: unlisted.length
			? [
					{
						rule: 'hazard.idlh-unlisted',
						text: `No immediate-danger value is listed for ${names(unlisted)}.`,
						origin: dangerOrigin
					}
				]
			: []
	};
}

const percentOf = (ratio: number) => `${readableNumber(ratio * 100, 3)} %`;
