import { page } from '$app/state';
import type { ShownPressure, ShownTemperature } from '$core/site/choices';
import { besidePressure, besideTemperature } from '$core/units/beside';

interface SiteUnits {
	pressureUnit: ShownPressure;
	temperatureUnit: ShownTemperature;
}

/** What the site reads beside bar and °C. */
export const siteUnits = (): SiteUnits =>
	(page.data as { site?: SiteUnits }).site ?? { pressureUnit: 'bar', temperatureUnit: '°C' };

/** A figure in the unit that the site reads beside its own; '' where there is none. */
export function besideHere(value: number, unit: string): string {
	const { pressureUnit, temperatureUnit } = siteUnits();
	if (unit === 'bar') return besidePressure(value, pressureUnit);
	return unit === '°C' ? besideTemperature(value, temperatureUnit) : '';
}
