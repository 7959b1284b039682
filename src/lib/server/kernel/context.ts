import type { WayIn } from '../../../core/access/session.ts';
import type { Day } from '../../../core/plan/calendar.ts';
import type { Connection, Database } from '../db/client.ts';
import type { Role } from './permissions.ts';
import type { Machine } from './steady.ts';
import { dayAt, type Site } from './site.ts';

/** Who acts. */
export interface Actor {
	id: string;
	name: string;
	initials: string;
	role: Role;
}

/** When somebody last showed that it is them, and how. */
export interface Proof {
	at: Date;
	by: WayIn;
}

/** What a service needs: the database, the clock, the choices of the site, who acts. */
export interface Context {
	db: Database;
	now: () => Date;
	site: Site;
	actor: Actor;
	/** The machine that it works on; this one without. */
	machine?: Machine | undefined;
	/** Null for a program: it signs nothing. */
	proof: Proof | null;
}

/** What Grevan itself works with, when nobody asks. */
export type Unattended = Omit<Context, 'actor' | 'proof'>;

/** What is needed to read: from the database, or from within a write. */
export interface Reader extends Omit<Unattended, 'db'> {
	db: Connection;
}

/** The day that the site's calendar shows now. */
export const todayOf = ({ now, site }: Pick<Context, 'now' | 'site'>): Day =>
	dayAt(now(), site.timeZone);
