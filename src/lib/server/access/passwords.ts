import { passwordFault } from '../../../core/access/secrets.ts';
import { Refusal } from '../kernel/refusal.ts';

let common: Promise<ReadonlySet<string>> | undefined;

/** The shipped list of common passwords, read when the first password is chosen. */
const commonPasswords = (): Promise<ReadonlySet<string>> =>
	(common ??= import('@zxcvbn-ts/language-common').then(
		({ dictionary }) => new Set<string>(dictionary['passwords-common'] as string[])
	));

/**
 * Refuses a password that is too short, common, or made of what is known of its person.
 * @throws Refusal at the field
 */
export async function requireGoodPassword(
	password: string,
	person: { name: string; email: string; initials: string }
): Promise<void> {
	const list = await commonPasswords();
	const own = [...person.name.split(/\s+/), ...person.email.split(/[@.]/), 'grevan'];
	const fault = passwordFault(password, own, (word) => list.has(word));
	if (fault) throw new Refusal('invalid', fault, 'password');
}
