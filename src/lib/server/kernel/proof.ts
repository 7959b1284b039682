import { proofStands } from '../../../core/access/session.ts';
import type { Context } from './context.ts';
import { Refusal } from './refusal.ts';

type Proven = Pick<Context, 'proof' | 'now' | 'site'>;

/**
 * A signature counts for the person who gives it: on a bench that several share, whoever signs shows that it is them.
 * @param what is done, such as "sign the inspection"
 * @throws Refusal where they did not in the last minutes; the page asks them and sends it again
 */
export function requireProof({ proof, now, site }: Proven, what: string): void {
	if (!proof) throw new Refusal('forbidden', `A program may not ${what}; a person does.`);
	if (!proofStands(proof.at, site, now()))
		throw new Refusal('proof', `Type your PIN to ${what}. Nothing was changed yet.`);
}

/** The same for what a PIN is too little for. @throws Refusal */
export function requirePassword({ proof, now, site }: Proven, what: string): void {
	if (proof?.by !== 'password' || !proofStands(proof.at, site, now()))
		throw new Refusal(
			'proof',
			`Type your password to ${what}. Nothing was changed yet.`,
			'password'
		);
}
