import { InputError } from '../verdict.ts';

/** Names of time zones that this machine knows, in their order. */
export const timeZones = (): string[] => Intl.supportedValuesOf('timeZone');

/**
 * A time zone by the name that it is kept under.
 * @throws InputError on one that does not exist
 */
export function checkTimeZone(name: string): string {
	const tidy = name.trim();
	try {
		// Any case is taken; an offset such as +01:00 knows no summer and is refused.
		if (/^[A-Za-z_]+(?:\/[A-Za-z0-9_+-]+)*$/.test(tidy))
			return new Intl.DateTimeFormat('en-GB', { timeZone: tidy }).resolvedOptions().timeZone;
	} catch {
		// Said below.
	}
	throw new InputError(
		'timeZone',
		`There is no time zone “${name}”. Write it as Europe/London or America/Chicago.`
	);
}
