import type { Procedure, Step } from '$core/inspection/procedure';
import { judgeReading, type ReadingFacts, type Readings } from '$core/inspection/reading';
import { nextStep, runState, type AnswerValue, type RunState } from '$core/inspection/run';
import { rejectCode, type Severity } from '$core/data/reject-codes';

/** An answer as a run shows it. */
export interface GivenAnswer {
	step: string;
	value: AnswerValue;
	code: string | null;
	note: string | null;
	readings: Readings | null;
	/** Its place in the order of the run; 0 while it is not kept yet. */
	position: number;
	severity: Severity | null;
}

/** A hold that runs. */
export interface Hold {
	step: string;
	startReading: number;
	seconds: number;
	startedAt: Date;
}

/** What a run is about, as it stands now. */
export interface RunFacts {
	/** What its readings are judged against. */
	limits: ReadingFacts;
	id: string;
	procedure: Procedure;
	/** Nothing more is answered: signed, or not this person's to answer. */
	closed: boolean;
	/** Who is here started it or has answered a step of it. */
	worked: boolean;
	/** A second person was named here: their steps are answered on this device, as theirs. */
	assisted?: boolean;
	/** Holds that run on the clock of the server. */
	timers: readonly Hold[];
}

/** Where what is answered goes: to the server by the outbox, or nowhere in a drill. */
export interface RunSender {
	/** Answers that were given and not kept yet, in order. */
	readonly waiting: readonly GivenAnswer[];
	/** A signature was given and not kept yet. */
	readonly signing: boolean;
	answer(answer: Omit<GivenAnswer, 'position' | 'severity'> & { seen: number }): void;
	sign(): void;
	/** Starts the clock of a hold. @returns why not, null where it runs, undefined where nobody could be reached */
	hold(step: string, start: number): Promise<string | null | undefined>;
	/** Keeps a hold that this device times itself, or forgets it. */
	ownHold(hold: Hold | null): void;
}

/**
 * A running inspection: its answers, where it stands, what keys do. A page shows it; it knows of no page, no network
 * and no clock but those that it is given.
 */
export class RunSession {
	kept = $state.raw<GivenAnswer[]>([]);
	refused = $state<string | null>(null);
	choosing = $state(false);
	noting = $state(false);
	note = $state('');
	stepKey = $state<string | null>(null);
	/** What this device kept is here: from now on answers go to the right step. */
	taken = $state(false);
	/** A hold that this device times because the server could not be reached. */
	ownHold = $state.raw<Hold | null>(null);
	/** Keys that were pressed before what this device kept was here. */
	private readonly early: KeyboardEvent[] = [];

	private readonly facts: () => RunFacts;
	private readonly sender: RunSender;
	private readonly now: () => number;

	constructor(facts: () => RunFacts, sender: RunSender, now: () => number, answers: GivenAnswer[]) {
		this.facts = facts;
		this.sender = sender;
		this.now = now;
		this.kept = answers;
		this.goOn();
	}

	readonly procedure = $derived.by(() => this.facts().procedure);
	/** What waits counts as answered; what was kept comes first. */
	readonly events = $derived.by(() => [...this.kept, ...this.sender.waiting]);
	readonly run: RunState = $derived.by(() => runState(this.procedure, this.events));
	readonly standing = $derived.by(
		// eslint-disable-next-line svelte/prefer-svelte-reactivity -- made anew, never changed
		() => new Map([...this.run.answers].map(([key, one]) => [key, one as GivenAnswer]))
	);
	readonly active = $derived.by(() => this.taken && !this.facts().closed && !this.sender.signing);
	readonly step: Step | null = $derived.by(
		() => this.procedure.steps.find((s) => s.key === this.stepKey) ?? null
	);
	readonly answered = $derived.by(() => (this.step ? this.standing.get(this.step.key) : undefined));
	readonly found = $derived.by(() =>
		[...this.standing.values()].filter((one) => one.value === 'reject')
	);
	/** An ordinary step was answered here. */
	private gave = $state(false);
	/** For someone else than whoever worked at the list. */
	readonly forAnother = $derived.by(
		() =>
			Boolean(this.step?.secondPerson) &&
			!this.facts().assisted &&
			(this.facts().worked || this.gave)
	);
	readonly timer = $derived.by(
		() =>
			this.facts().timers.find((t) => t.step === this.stepKey) ??
			(this.ownHold?.step === this.stepKey ? this.ownHold : null)
	);

	/** Stands at the next step that has no answer. */
	goOn(after: string | null = null): void {
		this.stepKey =
			nextStep(this.procedure, runState(this.procedure, this.events), after)?.key ?? null;
	}

	/** What this device kept is here; keys that were pressed before it count now. */
	ready(): void {
		this.goOn();
		this.taken = true;
		this.early.splice(0).forEach((event) => this.keys(event));
	}

	give(value: AnswerValue, code: string | null = null, readings: Readings | null = null): void {
		const { step } = this;
		if (!step || !this.active) return;
		if (this.forAnother && value !== 'cleared') return;
		this.refused = null;
		this.sender.answer({
			step: step.key,
			value,
			code,
			note: this.note.trim() || null,
			readings,
			seen: this.kept.at(-1)?.position ?? 0
		});
		if (!step.secondPerson) this.gave = true;
		this.choosing = this.noting = false;
		this.note = '';
		if (value !== 'cleared') this.goOn(step.key);
	}

	/** A reading answers its step; the server judges it again, with the time on its own clock. */
	read(readings: Readings): void {
		const { step } = this;
		if (!step) return;
		const judged = judgeReading(step, readings, this.facts().limits);
		this.give(judged.value, judged.code, readings);
		if (step.reading?.kind === 'hold') this.sender.ownHold((this.ownHold = null));
	}

	async startHold(start: number): Promise<void> {
		const { step } = this;
		if (!step) return;
		this.refused = null;
		const refused = await this.sender.hold(step.key, start);
		if (refused === undefined) {
			this.ownHold = {
				step: step.key,
				startReading: start,
				seconds: step.reading?.seconds ?? 60,
				// eslint-disable-next-line svelte/prefer-svelte-reactivity -- a moment, never changed
				startedAt: new Date(this.now())
			};
			this.sender.ownHold(this.ownHold);
		} else this.refused = refused;
	}

	/** The signature goes after the answers. */
	sign(): void {
		if (this.sender.signing || !this.run.complete) return;
		this.refused = null;
		this.sender.sign();
	}

	move(by: number): void {
		const { steps } = this.procedure;
		const at = steps.findIndex((s) => s.key === this.stepKey);
		const to = steps[(Math.max(at, by < 0 ? 0 : -1) + by + steps.length) % steps.length];
		this.stepKey = to?.key ?? null;
		this.choosing = false;
	}

	/** Goes to a station: to its first step without an answer, or to its first. */
	goTo(station: string): void {
		const steps = this.procedure.steps.filter((s) => s.station === station);
		const open = steps.find((s) => !this.standing.has(s.key));
		this.stepKey = (open ?? steps[0])?.key ?? null;
		this.choosing = false;
	}

	undo(): void {
		const last = this.events.findLast((e) => this.standing.get(e.step) && e.value !== 'cleared');
		const target = this.answered ? this.step?.key : last?.step;
		if (!target) return;
		this.stepKey = target;
		this.give('cleared');
	}

	/** What a key does; it is used up where it did something. */
	keys(event: KeyboardEvent): void {
		const target = event.target as HTMLElement;
		if (!this.taken) return void this.early.push(event);
		if (!this.active || event.ctrlKey || event.metaKey || event.altKey) return;
		if (target.closest('input, select, [role=dialog], [role=spinbutton]')) return;
		if (target.closest('textarea')) {
			if (event.key === 'Escape') this.noting = false;
			return;
		}
		if (this.press(event.key, target)) event.preventDefault();
	}

	/** What a foot switch does: good, a step on, a step back. At a reading, good takes what stands in its field. */
	pedal(does: 'good' | 'next' | 'back'): void {
		if (!this.taken || !this.active) return;
		if (does === 'back') this.move(-1);
		else if (does === 'next') this.move(1);
		else if (this.run.complete && !this.step) this.sign();
		else if (!this.choosing && !this.step?.reading) this.give('good');
	}

	private press(key: string, target: HTMLElement): boolean {
		const { step } = this;
		const nth = Number(key) - 1;
		if (this.choosing && key === 'Escape') this.choosing = false;
		else if (this.choosing && step?.rejects[nth]) this.give('reject', step.rejects[nth]);
		else if (!this.choosing && key === '1' && !step?.reading) this.give('good');
		else if (!this.choosing && key === '2' && step) this.choosing = true;
		else if (!this.choosing && key === '3' && step?.ifFitted) this.give('not fitted');
		else if (key === 'ArrowRight' || key === 'ArrowDown') this.move(1);
		else if (key === 'ArrowLeft' || key === 'ArrowUp') this.move(-1);
		else if (key.toLowerCase() === 'n' && step) this.noting = true;
		else if (key.toLowerCase() === 'u') this.undo();
		else if (key === 'Enter' && !target.closest('a, button')) {
			if (this.run.complete && !step) this.sign();
			else if (this.answered || !step)
				this.stepKey = nextStep(this.procedure, this.run, this.stepKey)?.key ?? null;
		} else return false;
		return true;
	}
}

/** A waiting answer as a run shows it. */
export const asGiven = (body: Record<string, unknown>): GivenAnswer => ({
	step: String(body.step),
	value: body.value as AnswerValue,
	code: (body.code as string | null) ?? null,
	note: (body.note as string | null) ?? null,
	readings: (body.readings as Readings | null) ?? null,
	position: 0,
	severity: body.code ? rejectCode(String(body.code)).severity : null
});
