import type { ConcentrationUnit } from '../units/concentration.ts';
import { limitOf } from './substance-table.ts';
import type { ExposureLimit, TargetOrgan } from './substance.ts';

/**
 * Recommended limits and target organs of the substances of organic-vapours.ts and gases-and-particles.ts, whose
 * rows hold the binding limits. Published: NIOSH recommended exposure limits and Pocket Guide; from memory.
 */
const ROWS = `
benzene | 0.1/1 | ppm | blood,nerves
toluene | 100/150 | ppm | nerves,airways
ethylbenzene | 100/125 | ppm | nerves,airways
m-xylene | 100/150 | ppm | nerves,airways
styrene | 50/100 | ppm | nerves,airways
n-pentane | 120/c610 | ppm | nerves,airways
n-hexane | 50 | ppm | nerves
cyclohexane | 300 | ppm | nerves,airways
n-heptane | 85/c440 | ppm | nerves,airways
methylcyclohexane | 400 | ppm | nerves,airways
isooctane | | ppm | nerves,airways
n-nonane | 200 | ppm | nerves,airways
n-decane | | ppm | nerves,airways
acetone | 250 | ppm | nerves,airways
2-butanone | 200/300 | ppm | nerves,airways
4-methyl-2-pentanone | 50/75 | ppm | nerves,airways
cyclohexanone | 25 | ppm | airways,nerves
methyl-acetate | 200/250 | ppm | airways,nerves
vinyl-acetate | c4 | ppm | airways,eyes
ethyl-acetate | 400 | ppm | airways,nerves
n-butyl-acetate | 150/200 | ppm | airways,nerves
methanol | 200/250 | ppm | nerves,eyes
ethanol | 1000 | ppm | nerves,airways
2-propanol | 400/500 | ppm | nerves,airways
1-propanol | 200/250 | ppm | nerves,airways
1-butanol | c50 | ppm | nerves,airways
dichloromethane | | ppm | nerves,heart,blood
chloroform | -/2 | ppm | liver,nerves
1-1-1-trichloroethane | c350 | ppm | nerves,heart
carbon-tetrachloride | -/2 | ppm | liver,kidneys
trichloroethylene | 25 | ppm | nerves,liver
1-2-dichloroethane | 1/2 | ppm | liver,nerves
tetrachloroethylene | | ppm | nerves,liver
chlorobenzene | | ppm | liver,nerves
acrylonitrile | 1/c10 | ppm | nerves,blood
vinyl-chloride | | ppm | liver
diethylamine | 10/25 | ppm | eyes,airways
ammonia | 25/35 | ppm | eyes,airways
hydrogen-sulphide | c10 | ppm | nerves,eyes,airways
chlorine | c0.5 | ppm | eyes,airways,lungs
sulphur-dioxide | 2/5 | ppm | airways,eyes
hydrogen-chloride | c5 | ppm | airways,eyes
hydrogen-fluoride | 3/c6 | ppm | eyes,airways,bone
hydrogen-cyanide | -/4.7 | ppm | nerves,blood
phosphine | 0.3/1 | ppm | lungs,nerves
carbon-monoxide | 35/c200 | ppm | blood,heart
carbon-dioxide | 5000/30000 | ppm | blood,nerves
nitrogen-dioxide | -/1 | ppm | lungs
ozone | c0.1 | ppm | lungs,eyes
phosgene | 0.1/c0.2 | ppm | lungs
formaldehyde | 0.016/c0.1 | ppm | airways,eyes
ethylene-oxide | 0.1/c5 | ppm | blood,nerves
1-3-butadiene | | ppm | blood,eyes
methylamine | 10 | ppm | eyes,airways
acetic-acid | 10/15 | ppm | airways,eyes
hdi | 0.035/c0.14 | mg/m3 | lungs,airways
tdi | | ppm | lungs,airways
mercury | 0.05 | mg/m3 | nerves,kidneys
general-dust | | mg/m3 | lungs
grain-dust | 4 | mg/m3 | airways
hardwood-dust | 1 | mg/m3 | airways
glass-fibre-dust | 5 | mg/m3 | airways,skin
silica | 0.05 | mg/m3 | lungs
lead | 0.05 | mg/m3 | blood,nerves,kidneys
chromium-vi | 0.0002 | mg/m3 | lungs,skin
welding-fume | | mg/m3 | lungs
oil-mist | 5/10 | mg/m3 | lungs,airways
`;

/** By substance key. */
export const RECOMMENDED: ReadonlyMap<string, { rel?: ExposureLimit; organs: TargetOrgan[] }> =
	new Map(
		ROWS.trim()
			.split('\n')
			.map((line) => {
				const [key = '', limit, unit, organs = ''] = line.split('|').map((cell) => cell.trim());
				const rel = limitOf(limit, unit as ConcentrationUnit);
				return [key, { ...(rel ? { rel } : {}), organs: organs.split(',') as TargetOrgan[] }];
			})
	);
