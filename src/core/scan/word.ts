/** Longest word that a label of a site carries. */
const MOST = 60;

/** What came out of a code: a word to go on with, or why it is none. */
export type ScannedWord = { word: string } | { refusal: string };

/**
 * The word that a code carries, or why nothing here goes by it. What follows a web address, sends a message or joins a
 * network is never done: a strange code on a mask is only said.
 * @param text as it was read
 */
export function scannedWord(text: string): ScannedWord {
	const word = text.trim();
	if (word === '') return { refusal: 'The code is empty.' };
	if (/^(?:[a-z][a-z0-9+.-]*:\/\/|www\.)/i.test(word))
		return { refusal: 'That code is a web address, no tag. It was not opened.' };
	if (/^(?:mailto|tel|sms|smsto|geo|wifi|mecard|begin|matmsg|otpauth|javascript|data):/i.test(word))
		return { refusal: 'That code is no tag, but an order to a telephone. Nothing was done.' };
	// eslint-disable-next-line no-control-regex -- what no key types is no tag
	if (/[\u0000-\u001f\u007f-\u009f]/.test(word))
		return { refusal: 'That code holds signs that no tag has.' };
	if ([...word].length > MOST)
		return { refusal: `That code is ${[...word].length} letters long; no tag is.` };
	return { word };
}
