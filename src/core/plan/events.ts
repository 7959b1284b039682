import type { Day } from './calendar.ts';

/** What happens to an item that rules can count or wait for. */
export const EVENT_WHATS = ['use', 'repair', 'fill', 'drop', 'splash'] as const;
export type EventWhat = (typeof EVENT_WHATS)[number];

/** What may be noted of an item by hand; the others follow from records of their own. */
export const NOTED_EVENTS = ['drop', 'splash'] as const satisfies readonly EventWhat[];
export type NotedEvent = (typeof NOTED_EVENTS)[number];

/** Something that happened to an item. */
export interface ItemEvent {
	what: EventWhat;
	/** Moment as an ISO text. */
	at: string;
	/** Day at the site. */
	on: Day;
	/** How long it was in use, min; of other events nothing. */
	minutes?: number;
}

/** An event as a condition and as it was. */
export const EVENT_WORDS: Record<EventWhat, { after: string; happened: string }> = {
	use: { after: 'after every use', happened: 'used' },
	repair: { after: 'after every repair', happened: 'repaired' },
	fill: { after: 'after every filling', happened: 'filled' },
	drop: { after: 'after a drop or a blow', happened: 'dropped or struck' },
	splash: { after: 'after a splash of chemicals', happened: 'splashed' }
};

/** What has come together since something was last done. */
export interface Since {
	uses: number;
	hours: number;
	/** Fillings of a cylinder. */
	cycles: number;
	/** Day of the last event of each kind. */
	happened: Partial<Record<EventWhat, Day>>;
}

/**
 * Counts what happened after a moment; at the moment itself it was done with.
 * @param after ISO text; null: everything counts
 */
export function countSince(events: readonly ItemEvent[], after: string | null): Since {
	const from = after === null ? -Infinity : Date.parse(after);
	const since: Since = { uses: 0, hours: 0, cycles: 0, happened: {} };
	let minutes = 0;
	for (const event of events) {
		if (Date.parse(event.at) <= from) continue;
		if (event.what === 'use') {
			since.uses++;
			minutes += event.minutes ?? 0;
		}
		if (event.what === 'fill') since.cycles++;
		const known = since.happened[event.what];
		if (!known || event.on > known) since.happened[event.what] = event.on;
	}
	since.hours = minutes / 60;
	return since;
}
