/** How somebody shows that it is them. */
export const WAYS_IN = ['password', 'pin'] as const;
export type WayIn = (typeof WAYS_IN)[number];

/** Why a link that lets a person in once was made. */
export const INVITE_PURPOSES = ['invite', 'reset'] as const;
export type InvitePurpose = (typeof INVITE_PURPOSES)[number];

/** How long sessions last and proofs count, until a site chooses otherwise. Site defaults. */
export const SITE_ACCESS = { idleMinutes: 30, wholeHours: 12, proofMinutes: 10 } as const;

export interface AccessLimits {
	/** A session on a shared device ends when nobody has used it for so long, minutes. */
	idleMinutes: number;
	/** Every session ends after so long, hours. */
	wholeHours: number;
	/** A proof of who one is counts for so long when signing, minutes. */
	proofMinutes: number;
}

export interface SessionFacts {
	begunAt: Date;
	/** When its person last did something. */
	seenAt: Date;
	shared: boolean;
}

const MINUTE_MS = 60_000;

/**
 * Whether a session has ended by itself.
 * @returns why, null while it goes on
 */
export function sessionOver(
	{ begunAt, seenAt, shared }: SessionFacts,
	limits: Pick<AccessLimits, 'idleMinutes' | 'wholeHours'>,
	now: Date
): 'idle' | 'whole' | null {
	if (now.getTime() - begunAt.getTime() >= limits.wholeHours * 60 * MINUTE_MS) return 'whole';
	if (shared && now.getTime() - seenAt.getTime() >= limits.idleMinutes * MINUTE_MS) return 'idle';
	return null;
}

/** Whether a proof still counts. One from the time to come counts too: clocks of two servers differ a little. */
export const proofStands = (
	provenAt: Date,
	{ proofMinutes }: Pick<AccessLimits, 'proofMinutes'>,
	now: Date
): boolean => now.getTime() - provenAt.getTime() < proofMinutes * MINUTE_MS;
