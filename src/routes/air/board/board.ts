import type { EntryPlan, RaisedAlarm } from '$core/air/entry';

/** The board as the server tells it. */
export interface BoardWearer {
	id: string;
	wearer: string;
	set: string | null;
	channel: string | null;
	startBar: number;
	startedAt: number;
	endedAt: number | null;
	endBar: number | null;
	usedLPerMin: number | null;
	plan: EntryPlan;
	raised: RaisedAlarm[];
}

export interface BoardTeam {
	id: string;
	number: number;
	task: string;
	place: string | null;
	marginMin: number;
	turnedAt: number | null;
	wearers: BoardWearer[];
}

export interface Board {
	version: string;
	now: number;
	teams: BoardTeam[];
}
