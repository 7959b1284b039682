import { page } from '$app/state';
import { readableClock, readableDay, readableMoment, readableTime } from '$core/plan/moments';

/** Moments are shown in the zone of the site, whatever the device thinks. */
export const siteZone = (): string =>
	(page.data as { site?: { timeZone: string } }).site?.timeZone ?? 'Europe/London';

/** 24 Nov 2026, 14:28 */
export const siteMoment = (at: Date | number): string => readableMoment(at, siteZone());
/** 24 Nov 2026 */
export const siteDay = (at: Date | number): string => readableDay(at, siteZone());
/** 14:28 */
export const siteTime = (at: Date | number): string => readableTime(at, siteZone());
/** 14:28:05 */
export const siteClock = (at: Date | number): string => readableClock(at, siteZone());
