import { readableNumber } from '../units/number.ts';
import type { Concentration } from '../units/concentration.ts';
import { written, type ContaminantFact, type HazardFacts } from './facts.ts';

/** One thing that two versions of a plan do not share, as a line that can be read aloud. */
export interface Difference {
	what: string;
	before: string;
	after: string;
}

type Plain = Exclude<keyof HazardFacts, 'contaminants'>;

const NAMES: Record<Plain, { name: string; unit?: string }> = {
	ruleSet: { name: 'Rules' },
	mixture: { name: 'Mixture' },
	oxygenPercent: { name: 'Oxygen', unit: '%' },
	oxygenStaysInRange: { name: 'Oxygen shown to stay in range' },
	lelReadingPercent: { name: 'Explosive gas', unit: '% LEL' },
	altitudeFt: { name: 'Altitude', unit: 'ft' },
	confinedSpace: { name: 'Confined space' },
	fire: { name: 'Fire' },
	emergency: { name: 'Purpose' },
	fitTest: { name: 'Fit test' },
	facialHair: { name: 'Hair at the seal' },
	oilAerosol: { name: 'Oil aerosol' },
	temperatureC: { name: 'Temperature', unit: '°C' },
	relativeHumidityPercent: { name: 'Humidity', unit: '%' },
	workRate: { name: 'Work' },
	exposureMin: { name: 'Time a shift', unit: 'min' },
	longShiftHours: { name: 'Long shift', unit: 'h' },
	wantedLifeMin: { name: 'Filters should last', unit: 'min' }
};

const NONE = 'none';

/** What changed from one version of a plan to the next, in the order in which the page shows it. */
export function planDifference(
	before: { task: string; place: string; facts: HazardFacts },
	after: { task: string; place: string; facts: HazardFacts }
): Difference[] {
	const lines: Difference[] = [];
	const add = (what: string, from: string, to: string) => {
		if (from !== to) lines.push({ what, before: from, after: to });
	};
	add('Task', before.task, after.task);
	add('Place', before.place, after.place);
	const [was, is] = [before.facts.contaminants, after.facts.contaminants];
	const names = [...new Set([...was, ...is].map((c) => c.name))];
	for (const name of names) {
		const [from, to] = [was.find((c) => c.name === name), is.find((c) => c.name === name)];
		if (!from || !to) add(name, from ? amounts(from) : NONE, to ? amounts(to) : NONE);
		else {
			add(`${name}, mean`, mean(from), mean(to));
			add(`${name}, peak`, amount(from.peak), amount(to.peak));
			add(`${name}, limit`, amount(from.limit, 'as listed'), amount(to.limit, 'as listed'));
			add(`${name}, form`, from.form, to.form);
			add(`${name}, basis`, from.basis ?? 'measured', to.basis ?? 'measured');
		}
	}
	for (const [key, { name, unit }] of Object.entries(NAMES) as [
		Plain,
		{ name: string; unit?: string }
	][])
		add(name, plain(before.facts[key], unit), plain(after.facts[key], unit));
	return lines;
}

function plain(value: HazardFacts[Plain], unit?: string): string {
	if (value === null || value === undefined) return NONE;
	if (typeof value === 'boolean') return value ? 'yes' : 'no';
	return unit ? `${value} ${unit}` : String(value);
}

const amount = (value: Concentration | null | undefined, none = NONE): string =>
	value ? `${readableNumber(value.value, 4)} ${written(value.unit)}` : none;

const mean = (fact: ContaminantFact): string =>
	fact.measurements?.values.length
		? `${fact.measurements.values.length} measurements: ${fact.measurements.values.join(', ')} ${written(fact.measurements.unit)}`
		: amount(fact.concentration, 'not known');

const amounts = (fact: ContaminantFact): string =>
	fact.peak ? `${mean(fact)}, peak ${amount(fact.peak)}` : mean(fact);
