/** What getting there, putting on and coming back takes beside the planned minutes. Site default. */
export const WAY_MIN = 60;
/** A shift, for what goes out with no minutes named. Site default. */
export const SHIFT_MIN = 12 * 60;

/** When something handed out is expected back, ms; personal issue stays out: null. */
export const dueBackAt = (now: number, task: { minutes: number | null } | null): number | null =>
	task === null
		? null
		: now + (task.minutes === null ? SHIFT_MIN : task.minutes + WAY_MIN) * 60_000;
