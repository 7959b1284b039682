/** Two tones, again and again while it is wanted. A browser lets it sound only after somebody has touched the page. */
export class AlarmSound {
	/** Whether this screen may make a sound. */
	ready = $state(false);
	private audio: AudioContext | null = null;
	private timer: ReturnType<typeof setInterval> | null = null;
	private static readonly EVERY_MS = 1600;

	/** Asks the browser; to be called from a press of a key or button. */
	async switchOn(): Promise<void> {
		this.audio ??= new AudioContext();
		await this.audio.resume();
		this.ready = this.audio.state === 'running';
	}

	/** Sounds from now on, or falls silent. */
	want(sounding: boolean): void {
		if (sounding && !this.timer) {
			this.beep();
			this.timer = setInterval(() => this.beep(), AlarmSound.EVERY_MS);
		} else if (!sounding && this.timer) {
			clearInterval(this.timer);
			this.timer = null;
		}
	}

	stop(): void {
		this.want(false);
		void this.audio?.close();
		this.audio = null;
		this.ready = false;
	}

	private beep(): void {
		const { audio } = this;
		if (audio?.state !== 'running') return;
		for (const [i, hertz] of [880, 660].entries()) {
			const [tone, gain] = [audio.createOscillator(), audio.createGain()];
			const at = audio.currentTime + i * 0.28;
			tone.frequency.value = hertz;
			gain.gain.setValueAtTime(0.0001, at);
			gain.gain.exponentialRampToValueAtTime(0.4, at + 0.02);
			gain.gain.exponentialRampToValueAtTime(0.0001, at + 0.25);
			tone.connect(gain).connect(audio.destination);
			tone.start(at);
			tone.stop(at + 0.26);
		}
	}
}
