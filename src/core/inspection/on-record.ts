import { airwayOf } from '../data/families.ts';
import { recordOf } from '../data/family-records.ts';
import { readable } from '../plan/calendar.ts';
import type { Step } from './procedure.ts';

/** What the record says is fitted to an item. */
export interface OnRecord {
	family: string;
	/** Filters that its model takes; zero where it takes none of its own. */
	filterPlaces: number;
	filters: {
		/** The label they carry. */
		tag: string;
		/** Model and code. */
		name: string;
		count: number;
		openedOn: string;
		initials: string;
		/** Last day. */
		changeOn: string;
		/** It stays sealed in its pack. */
		sealed?: boolean;
		/** What sits over them on each side: name and the day that it was fitted. */
		layers?: readonly { name: string; fittedOn: string }[];
	} | null;
	parts: readonly { family: string; tag: string; name: string }[];
}

/** A step at which filters are told apart: their dates are read there. */
const readsFilters = (step: Pick<Step, 'rejects'>): boolean =>
	step.rejects.some((code) => code === 'DATE' || code === 'MIX');

/**
 * What the record says is at a step, as sentences to be compared with what is there; empty where it says nothing about
 * that station. Filters are said where their dates are read, parts at every step of their station.
 */
export function onRecordAt(step: Pick<Step, 'station' | 'rejects'>, record: OnRecord): string[] {
	const family = recordOf(record.family);
	const said: string[] = [];
	if (
		record.filterPlaces > 0 &&
		family.filterStations.includes(step.station) &&
		readsFilters(step)
	) {
		const { filters } = record;
		if (!filters) said.push('No filter on it.');
		else {
			const twin = family.filterStations.length > 1 && filters.count > 1;
			said.push(
				`${filters.name}, ${filters.tag}: ${filters.sealed ? 'fitted sealed' : 'opened'} ${readable(filters.openedOn)}, ${filters.initials}; last day ${readable(filters.changeOn)}.`
			);
			if (twin)
				said.push(
					`Its twin, ${step.station.endsWith('left') ? 'right' : 'left'}, is of the same lot.`
				);
			else said.push(filters.count === 1 ? 'One filter.' : `${filters.count} of one lot.`);
		}
	}
	if (record.filterPlaces > 0 && family.layerStations.includes(step.station)) {
		const layers = record.filters?.layers ?? [];
		for (const one of layers) said.push(`${one.name}, fitted ${readable(one.fittedOn)}.`);
		if (layers.length === 0) said.push('Nothing over the filter.');
	}
	for (const [part, station] of Object.entries(family.partStations)) {
		if (station !== step.station) continue;
		for (const one of record.parts.filter((p) => p.family === part))
			said.push(`${one.tag}, ${one.name}.`);
		if (family.neverWithout.includes(part) && !record.parts.some((p) => p.family === part))
			said.push(`No ${airwayOf(part).name.toLowerCase()} on it.`);
	}
	return said;
}
