import { voiceOn } from './wanted';

/** Says something with the voice of the browser, in place of what it is saying, where this device is asked to. */
export function say(text: string): void {
	if (!voiceOn() || !('speechSynthesis' in globalThis)) return;
	speechSynthesis.cancel();
	const words = new SpeechSynthesisUtterance(text);
	words.lang = 'en-GB';
	// A little slower than talk: it is heard over a workshop.
	words.rate = 0.95;
	speechSynthesis.speak(words);
}

/** Falls silent. */
export function hush(): void {
	if ('speechSynthesis' in globalThis) speechSynthesis.cancel();
}
