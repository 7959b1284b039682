import { ASPHYXIANT as asphyxiant, substanceTable } from './substance-table.ts';

/**
 * The gases and special vapours that are met most. Every value
 * is written from memory; the origin of each column stands in SUBSTANCE_ORIGINS (substance.ts).
 */
export const COMMON_GASES = substanceTable(
	`
key | name | synonyms | cas | formula | form | organic | bp | vp | density | nD | us | uk | rel | idlh | lel | odour | warning | skin | burns | en | cartridge | organs | harm | no filter | note
ammonia | Ammonia | anhydrous ammonia | 7664-41-7 | NH3 | gas | no | -33.3 |  |  |  | 50 | 25/35 | 25/35 | 300 | 15 | 5 | adequate |  | 5000 | K | AM | eyes,airways | eyes |  | Type K, not A. A high level harms moist skin: gas-tight suit.
hydrogen-sulphide | Hydrogen sulphide | hydrogen sulfide;H2S | 7783-06-4 | H2S | gas | no | -60.3 |  |  |  | c20 | 5/10 | c10 | 100 | 4 | 0.008 | poor |  |  | B | HS | nerves,eyes,airways | eyes |  | It dulls the sense of smell: the nose gives no second warning.
chlorine | Chlorine |  | 7782-50-5 | Cl2 | gas | no | -34 |  |  |  | c1 | -/0.5 | c0.5 | 10 |  | 0.3 | adequate |  |  | B | AG | eyes,airways,lungs | eyes |  |
sulphur-dioxide | Sulphur dioxide | sulfur dioxide | 7446-09-5 | SO2 | gas | no | -10 |  |  |  | 5 | 0.5/1 | 2/5 | 100 |  | 1.1 | poor |  |  | E | AG | airways,eyes | eyes |  |
hydrogen-chloride | Hydrogen chloride | hydrochloric acid gas | 7647-01-0 | HCl | gas | no | -85 |  |  |  | c5 | 1/5 | c5 | 50 |  | 0.8 | adequate |  | 1000 | E | AG | airways,eyes | eyes |  |
hydrogen-fluoride | Hydrogen fluoride | hydrofluoric acid | 7664-39-3 | HF | gas | no | 19.5 |  |  |  | 3 | 1.8/3 | 3/c6 | 30 |  | 0.04 | adequate | yes | 30 | E | HF | eyes,airways,bone | eyes |  | It burns through skin: suit.
hydrogen-cyanide | Hydrogen cyanide | prussic acid | 74-90-8 | HCN | gas | no | 25.6 |  |  |  | 10 | 0.9/4.5 | -/4.7 | 50 | 5.6 | 0.6 | poor | yes | 50 | B |  | nerves,blood |  | Hydrogen cyanide has poor warning properties, enters through the skin, and no change schedule of Grevan covers it |
phosphine | Phosphine | hydrogen phosphide;fumigation gas | 7803-51-2 | PH3 | gas | no | -87.7 |  |  |  | 0.3 | 0.1/0.2 | 0.3/1 | 50 | 1.8 | 0.5 | poor |  |  | B |  | lungs,nerves |  |  | It is smelt only above its limit. Only canisters that name phosphine.
carbon-monoxide | Carbon monoxide | CO | 630-08-0 | CO | gas | no | -191.5 |  |  |  | 50 | 20/100 | 35/c200 | 1200 | 12.5 |  | none |  |  |  |  | blood,heart |  | No ordinary filter catches carbon monoxide and it has no smell |
carbon-dioxide | Carbon dioxide | CO2 | 124-38-9 | CO2 | gas | no | -78.5 |  |  |  | 5000 | 5000/15000 | 5000/30000 | 40000 |  |  | none |  |  |  |  | blood,nerves |  | ${asphyxiant} |
nitrogen | Nitrogen | inert gas | 7727-37-9 | N2 | gas | no | -195.8 |  |  |  |  |  |  |  |  |  | none |  |  |  |  |  |  | ${asphyxiant} |
argon | Argon | welding gas | 7440-37-1 | Ar | gas | no | -185.8 |  |  |  |  |  |  |  |  |  | none |  |  |  |  |  |  | ${asphyxiant} |
methane | Methane | marsh gas;natural gas | 74-82-8 | CH4 | gas | no | -161.5 |  |  |  |  |  |  |  | 5 |  | none |  |  |  |  |  |  | ${asphyxiant} |
acetylene | Acetylene | ethyne | 74-86-2 | C2H2 | gas | no | -84 |  |  |  |  |  |  |  | 2.5 |  | poor |  |  |  |  |  |  | Carbon hardly holds acetylene |
nitrogen-dioxide | Nitrogen dioxide | nitrous gases;nitrogen peroxide | 10102-44-0 | NO2 | gas | no | 21.2 |  |  |  | c5 | 0.5/1 | -/1 | 13 |  | 0.2 | poor |  |  | NO |  | lungs | eyes |  | Own filter NO-P3, single use.
ozone | Ozone |  | 10028-15-6 | O3 | gas | no | -112 |  |  |  | 0.1 | -/0.2 | c0.1 | 5 |  | 0.05 | adequate |  |  |  |  | lungs,eyes | eyes | No filter class of the two schemes names ozone |
phosgene | Phosgene | carbonyl chloride | 75-44-5 | COCl2 | gas | no | 7.6 |  |  |  | 0.1 | 0.02/0.06 | 0.1/c0.2 | 2 |  | 0.9 | none |  |  | B |  | lungs | eyes | Phosgene is smelt only far above its limit |
formaldehyde | Formaldehyde | methanal;formalin | 50-00-0 | CH2O | gas | no | -19.1 |  |  |  | 0.75/2 | 2/2 | 0.016/c0.1 | 20 | 7 | 0.8 | poor |  |  | B | FM | airways,eyes | carcinogen,eyes |  |
ethylene-oxide | Ethylene oxide | oxirane | 75-21-8 | C2H4O | gas | yes | 10.6 |  |  |  | 1/5 | 1 | 0.1/c5 | 800 | 3 | 430 | none | yes |  | AX |  | blood,nerves | carcinogen,eyes | Ethylene oxide is smelt only far above its limit and leaves carbon early |
1-3-butadiene | 1,3-Butadiene | butadiene | 106-99-0 | C4H6 | gas | yes | -4.4 | 1840 | 0.6211 | 1.4292 | 1/5 | 1 |  | 2000 | 2 | 0.45 | adequate |  |  | AX | OV | blood,eyes | carcinogen |  |
methylamine | Methylamine |  | 74-89-5 | CH5N | gas | no | -6.3 |  |  |  | 10 |  | 10 | 100 | 4.9 | 3.2 | adequate |  |  | K | AM | eyes,airways | eyes |  |
acetic-acid | Acetic acid | ethanoic acid | 64-19-7 | C2H4O2 | vapour | yes | 117.9 | 11.4 | 1.0492 | 1.3716 | 10 | 10/20 | 10/15 | 50 | 4 | 0.07 | adequate |  |  | E | OV | airways,eyes | eyes |  |
tdi | Toluene diisocyanate | TDI;isocyanate | 584-84-9 | C9H6N2O2 | vapour | yes | 251 |  |  |  | c0.02 | 0.02/0.07 mg/m3 |  | 2.5 | 0.9 | 0.17 | none | yes |  | A | OV | lungs,airways | sensitiser,eyes | Isocyanates sensitise and have no warning properties |
mercury | Mercury | quicksilver | 7439-97-6 | Hg | vapour | no | 356.7 |  |  |  | c0.1 mg/m3 | 0.02 mg/m3 | 0.05 mg/m3 | 10 mg/m3 |  |  | none | yes |  | Hg | MV | nerves,kidneys |  |  | Own filter Hg-P3, 50 h at most.
`,
	{ form: 'gas', organic: false, unit: 'ppm' }
);
