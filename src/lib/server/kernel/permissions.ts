import { Refusal } from './refusal.ts';

/** The least first. */
export const ROLES = ['viewer', 'technician', 'supervisor', 'admin'] as const;
export type Role = (typeof ROLES)[number];

/** Permissions and the least role that holds each; every role holds what the ones before it hold. */
const GRANTS = {
	view: 'viewer',
	// A wearer records an own seal check alone.
	'check a seal': 'viewer',
	// Whoever drops it or sees it says so.
	'note what happened': 'viewer',
	// The trainer stands open to everybody.
	drill: 'viewer',
	plan: 'technician',
	inspect: 'technician',
	'open filters': 'technician',
	repair: 'technician',
	release: 'supervisor',
	'keep the stores': 'technician',
	'recall a lot': 'technician',
	'approve plans': 'supervisor',
	'edit substances': 'supervisor',
	'edit procedures': 'supervisor',
	'keep the register': 'technician',
	'see wearers': 'technician',
	'keep wearers': 'technician',
	'fit-test': 'technician',
	'keep competence': 'supervisor',
	'match names': 'supervisor',
	'erase a wearer': 'admin',
	'hand out': 'technician',
	'move things': 'technician',
	'hand out against the gate': 'supervisor',
	wash: 'technician',
	'keep stock for the bath': 'technician',
	'fill cylinders': 'technician',
	'test air': 'technician',
	'control entries': 'technician',
	'keep the plan': 'technician',
	'keep working hours': 'supervisor',
	'withdraw a model': 'supervisor',
	'keep the site': 'supervisor',
	'keep accounts': 'admin'
} as const;
export type Permission = keyof typeof GRANTS;

const RANK: Record<Role, number> = { viewer: 0, technician: 1, supervisor: 2, admin: 3 };

export const may = (role: Role, permission: Permission): boolean =>
	RANK[role] >= RANK[GRANTS[permission]];

/** @throws Refusal where the role does not hold a permission, naming who does */
export function requirePermission(role: Role, permission: Permission): void {
	if (!may(role, permission))
		throw new Refusal(
			'forbidden',
			`A ${role} may not do this (${permission}). Ask a ${GRANTS[permission]}.`
		);
}
