/** What this device is asked to do for ears and voice; of the device, not of a person: it hangs where it hangs. */
const KEYS = { sounds: 'sounds', voice: 'voice', far: 'far' } as const;

const read = (key: string): string | null => {
	try {
		return localStorage.getItem(key);
	} catch {
		return null;
	}
};
const keep = (key: string, value: string): void => {
	try {
		localStorage.setItem(key, value);
	} catch {
		// Not kept: on this page it is as it is by default.
	}
};

/** Sounds and shaking: on unless switched off. */
export const soundsOn = (): boolean => read(KEYS.sounds) !== 'off';
export const wantSounds = (on: boolean): void => keep(KEYS.sounds, on ? 'on' : 'off');
/** Steps are read aloud: off unless switched on. */
export const voiceOn = (): boolean => read(KEYS.voice) === 'on';
export const wantVoice = (on: boolean): void => keep(KEYS.voice, on ? 'on' : 'off');
/** An inspection is drawn to be read from two metres: off unless switched on. */
export const farOn = (): boolean => read(KEYS.far) === 'on';
export const wantFar = (on: boolean): void => keep(KEYS.far, on ? 'on' : 'off');
