/** Minutes as hours and minutes: 4 h 10. */
export function hoursAndMinutes(minutes: number): string {
	const whole = Math.round(minutes);
	const [h, m] = [Math.floor(whole / 60), whole % 60];
	if (h === 0) return `${m} min`;
	return m === 0 ? `${h} h` : `${h} h ${String(m).padStart(2, '0')}`;
}
