import type { Connection, Database } from './db/client.ts';
import { Fault } from './errors.ts';

export type Role = 'viewer' | 'technician' | 'supervisor' | 'admin';

/** Who acts. */
export interface Actor {
	id: string;
	name: string;
	initials: string;
	role: Role;
}

/** What a service needs: the database, the clock, who acts. */
export interface Context {
	db: Database;
	now: () => Date;
	actor: Actor;
}

/** What one may do; each role holds what the ones before it hold. */
const GRANTS = {
	view: 'viewer',
	plan: 'technician',
	inspect: 'technician',
	'open filters': 'technician',
	repair: 'technician',
	release: 'supervisor',
	'keep the filter store': 'technician',
	'recall a lot': 'technician',
	'approve plans': 'supervisor',
	'edit substances': 'supervisor',
	'edit procedures': 'supervisor',
	'keep the register': 'technician',
	'fill cylinders': 'technician',
	'test air': 'technician',
	'control entries': 'technician',
	'withdraw a model': 'supervisor'
} as const;
export type Deed = keyof typeof GRANTS;

const RANK: Record<Role, number> = { viewer: 0, technician: 1, supervisor: 2, admin: 3 };

export const may = (role: Role, deed: Deed): boolean => RANK[role] >= RANK[GRANTS[deed]];

/** Refuses a deed that the actor's role does not hold, naming who could do it. */
export function requireRole(actor: Actor, deed: Deed): void {
	if (!may(actor.role, deed))
		throw new Fault(
			'forbidden',
			`A ${actor.role} may not do this (${deed}). Ask a ${GRANTS[deed]}.`
		);
}

/** One transaction: all of it or nothing. */
export const inTransaction = <T>(context: Context, work: (tx: Connection) => Promise<T>) =>
	context.db.transaction((tx) => work(tx));
