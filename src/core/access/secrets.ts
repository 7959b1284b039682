/** Characters of a password. Published: OWASP ASVS 4.0.3, 2.1.1 (12) and 2.1.2 (128), from memory. */
export const PASSWORD_LEAST = 12;
export const PASSWORD_MOST = 128;
/** Digits of a PIN, short enough for gloves. Common practice. */
export const PIN_LEAST = 4;
export const PIN_MOST = 8;

/**
 * Why a password is not taken. No mix of signs is asked for (published: NIST SP 800-63B 5.1.1.2, from memory).
 * @param own words that are known of the person, such as their name
 * @param common whether a password is on a list of common ones; asked in small letters, without what was put around it
 * @returns what is wrong, null when it is good
 */
export function passwordFault(
	password: string,
	own: readonly string[],
	common: (password: string) => boolean
): string | null {
	const length = [...password].length;
	if (length < PASSWORD_LEAST)
		return `A password has at least ${PASSWORD_LEAST} characters; a few words are easy to keep in mind.`;
	if (length > PASSWORD_MOST) return `A password has at most ${PASSWORD_MOST} characters.`;
	const small = password.toLowerCase();
	if (new Set(small).size < 5) return 'This repeats a few signs. Choose another.';
	const bare = small.replace(/[^\p{L}]+$/u, '').replace(/^[^\p{L}]+/u, '');
	const halves = small.slice(0, Math.floor(small.length / 2));
	if (common(small) || common(bare) || (small === halves + halves && common(halves)))
		return 'This is on the list of passwords that are tried first. Choose another.';
	const rest = own
		.map((word) => word.toLowerCase())
		.filter((word) => word.length >= 3)
		.reduce((left, word) => left.replaceAll(word, ''), small);
	if ([...rest].length < PASSWORD_LEAST / 2)
		return 'This is little more than your name or address. Choose another.';
	return null;
}

/**
 * Why a PIN is not taken.
 * @returns what is wrong, null when it is good
 */
export function pinFault(pin: string): string | null {
	if (!/^\d+$/.test(pin) || pin.length < PIN_LEAST || pin.length > PIN_MOST)
		return `A PIN is ${PIN_LEAST} to ${PIN_MOST} digits.`;
	const steps = new Set(
		[...pin].slice(1).map((digit, i) => (Number(digit) - Number(pin[i]) + 10) % 10)
	);
	const [step] = steps;
	// 1111, 1234, 8765: all steps alike.
	if (steps.size === 1 && (step === 0 || step === 1 || step === 9))
		return 'This PIN is one of the first that somebody tries. Choose another.';
	const half = pin.slice(0, pin.length / 2);
	if (half + half === pin)
		return 'This PIN is one of the first that somebody tries. Choose another.';
	return null;
}
