/**
 * Minutes to 10 % breakthrough of twin organic-vapour cartridges at 1000 ppm, 53.3 L/min in all, 50 % relative
 * humidity and 22 °C, by substance key.
 *
 * Published: Nelson & Harder, American Industrial Hygiene Association Journal, 1974-1976; from memory.
 */
// prettier-ignore
export const TWIN_CARTRIDGE_MINUTES: Record<string, number> = {
	benzene: 73, toluene: 94, ethylbenzene: 84, 'm-xylene': 99, 'n-pentane': 61, 'n-hexane': 52,
	cyclohexane: 69, 'n-heptane': 78, methylcyclohexane: 69, isooctane: 68, 'n-nonane': 76, 'n-decane': 71,
	acetone: 37, '2-butanone': 82, '4-methyl-2-pentanone': 96, cyclohexanone: 126, 'methyl-acetate': 33,
	'vinyl-acetate': 55, 'ethyl-acetate': 67, 'n-butyl-acetate': 77, methanol: 0.2, ethanol: 28,
	'2-propanol': 54, '1-propanol': 70, '1-butanol': 115, dichloromethane: 10, chloroform: 33,
	'1-1-1-trichloroethane': 40, 'carbon-tetrachloride': 77, trichloroethylene: 55, '1-2-dichloroethane': 54,
	tetrachloroethylene: 107, chlorobenzene: 107, acrylonitrile: 49, 'vinyl-chloride': 3.8, diethylamine: 88
};
