import { randomUUID } from 'node:crypto';
import type { Machine } from '../../src/lib/server/kernel/steady.ts';

/** A machine of which the clock is set by hand: its time goes on by what passes, and by what it is set. */
export class SetMachine implements Machine {
	boot: string = randomUUID();
	private passedMs = 0;
	private setMs = 0;
	constructor(private readonly startMs = Date.now()) {}
	clocks = () => ({
		wallMs: this.startMs + this.passedMs + this.setMs,
		monoMs: 50_000 + this.passedMs
	});
	now = () => new Date(this.clocks().wallMs);
	pass = (seconds: number) => (this.passedMs += seconds * 1000);
	set = (ms: number) => (this.setMs += ms);
}
