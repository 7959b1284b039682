import { browser } from '$app/environment';

const TICK_MS = 250;

/** The server's time, told forward on this device, though its own clock be set; what runs is counted on it. */
class ServerClock {
	private told = $state(Date.now());
	private offset = 0;
	private ticking: ReturnType<typeof setInterval> | undefined;

	/** Where a page is made nothing ticks: it is the time of making it. */
	get now(): number {
		return browser ? this.told : Date.now();
	}

	/** Takes the server's time of a page that has just come. */
	set(serverNow: number): void {
		this.offset = serverNow - performance.now();
		this.told = serverNow;
		if (browser)
			this.ticking ??= setInterval(() => (this.told = performance.now() + this.offset), TICK_MS);
	}
}

export const serverClock = new ServerClock();

/** Seconds that are left of something that runs; never below zero. */
export const secondsLeft = (startedAt: Date, seconds: number, now: number): number =>
	Math.max(0, Math.ceil(seconds - (now - startedAt.getTime()) / 1000));

/** 75 → 1:15 */
export const minutesAndSeconds = (seconds: number): string =>
	`${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
