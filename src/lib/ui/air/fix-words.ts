import type { HoseFix } from '$core/airline/fixes';

/** A change that makes a hose pass, in words. */
export function fixWords(fix: HoseFix): string {
	if (fix.change === 'wider') return `Hose of ${fix.boreMm} mm bore`;
	if (fix.change === 'shorter') return `At most ${fix.lengthM} m of it`;
	if (fix.change === 'more pressure') return `Supply of ${fix.supplyBar} bar`;
	return fix.wearers === 1 ? 'One wearer only' : `${fix.wearers} wearers only`;
}
