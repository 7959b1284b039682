import { ASPHYXIANT as asphyxiant, substanceTable } from './substance-table.ts';

/**
 * Process gases, fumigants, refrigerants, acids and amines beyond common-gases.ts. Every value
 * is written from memory; the origin of each column stands in SUBSTANCE_ORIGINS (substance.ts).
 */
export const GASES_AND_ACIDS = substanceTable(
	`
key | name | synonyms | cas | formula | form | organic | bp | vp | density | nD | us | uk | rel | idlh | lel | odour | warning | skin | burns | en | cartridge | organs | harm | no filter | note
propane | Propane |  | 74-98-6 | C3H8 | gas | no | -42.1 |  |  |  | 1000 |  | 1000 | 2100 | 2.1 |  | none |  |  |  |  | nerves |  | Carbon hardly holds propane |
n-butane | n-Butane |  | 106-97-8 | C4H10 | gas | no | -0.5 |  |  |  |  | 600/750 | 800 | 1600 | 1.6 |  | none |  |  |  |  | nerves |  | Carbon hardly holds butane |
lpg | Liquefied petroleum gas | LPG;bottled gas | 68476-85-7 | C3H8 | gas | no | -42 |  |  |  | 1000 | 1000/1250 | 1000 | 2000 | 1.9 |  | none |  |  |  |  | nerves |  | Carbon hardly holds propane and butane | Heavier than air: it gathers in pits and bilges.
hydrogen | Hydrogen |  | 1333-74-0 | H2 | gas | no | -252.8 |  |  |  |  |  |  |  | 4 |  | none |  |  |  |  |  |  | ${asphyxiant} |
helium | Helium |  | 7440-59-7 | He | gas | no | -268.9 |  |  |  |  |  |  |  |  |  | none |  |  |  |  |  |  | ${asphyxiant} |
sulphur-hexafluoride | Sulphur hexafluoride | SF6 | 2551-62-4 | SF6 | gas | no | -63.8 |  |  |  | 1000 | 1000/1250 | 1000 |  |  |  | none |  |  |  |  |  |  | ${asphyxiant} |
r134a | 1,1,1,2-Tetrafluoroethane | refrigerant 134a | 811-97-2 | C2H2F4 | gas | no | -26.3 |  |  |  |  | 1000 |  |  |  |  | none |  |  |  |  | heart,nerves |  | Carbon hardly holds it, and it displaces the air |
chlorodifluoromethane | Chlorodifluoromethane | refrigerant 22 | 75-45-6 | CHClF2 | gas | no | -40.8 |  |  |  |  | 1000 | 1000/1250 |  |  |  | none |  |  |  |  | heart,nerves |  | Carbon hardly holds it, and it displaces the air |
nitrous-oxide | Nitrous oxide | laughing gas | 10024-97-2 | N2O | gas | no | -88.5 |  |  |  |  | 100 | 25 |  |  |  | none |  |  |  |  | nerves,reproduction |  | No filter type holds nitrous oxide |
nitric-oxide | Nitric oxide | nitrogen monoxide | 10102-43-9 | NO | gas | no | -151.8 |  |  |  | 25 | 2 | 25 | 100 |  | 0.3 | poor |  |  | NO |  | lungs,blood |  |  | Turns into nitrogen dioxide in air. Own filter NO-P3, single use.
methyl-bromide | Methyl bromide | bromomethane;fumigation gas | 74-83-9 | CH3Br | gas | no | 3.6 |  |  |  | c20 | 5/15 |  | 250 | 10 | 20 | none | yes |  | AX |  | nerves,lungs | eyes | Methyl bromide has no warning properties and leaves carbon early |
methyl-chloride | Methyl chloride | chloromethane | 74-87-3 | CH3Cl | gas | no | -24.2 |  |  |  | 100/c200 | 50/100 |  | 2000 | 8.1 |  | none |  |  | AX |  | nerves,liver |  | Methyl chloride has no warning properties and leaves carbon early |
sulphuryl-fluoride | Sulphuryl fluoride | sulfuryl fluoride;fumigation gas | 2699-79-8 | SO2F2 | gas | no | -55.4 |  |  |  | 5 | 5/10 | 5/10 | 200 |  |  | none |  |  |  |  | lungs,nerves |  | No filter type holds sulphuryl fluoride |
arsine | Arsine | arsenic hydride | 7784-42-1 | AsH3 | gas | no | -62.5 |  |  |  | 0.05 | 0.05 |  | 3 | 5.1 | 0.5 | none |  |  | B |  | blood |  | Arsine is smelt only far above its limit |
diborane | Diborane |  | 19287-45-7 | B2H6 | gas | no | -92.5 |  |  |  | 0.1 | 0.1 | 0.1 | 15 | 0.8 | 2.5 | none |  |  |  |  | lungs |  | Diborane is smelt only far above its limit |
silane | Silane | silicon tetrahydride | 7803-62-5 | SiH4 | gas | no | -112 |  |  |  |  | 0.5/1 | 5 |  | 1.4 |  | none |  |  |  |  | lungs |  | Silane burns by itself; no filter type names it |
nickel-carbonyl | Nickel carbonyl | tetracarbonylnickel | 13463-39-3 | C4NiO4 | vapour | no | 43 | 315 |  |  | 0.001 | -/0.1 | 0.001 | 2 | 2 | 1 | none | yes |  |  |  | lungs | carcinogen | Nickel carbonyl is smelt only far above its limit |
fluorine | Fluorine |  | 7782-41-4 | F2 | gas | no | -188.1 |  |  |  | 0.1 | 1/1 | 0.1 | 25 |  | 0.1 | adequate | yes | 5 |  |  | lungs,skin,eyes | eyes | Fluorine sets carbon alight |
bromine | Bromine |  | 7726-95-6 | Br2 | vapour | no | 58.8 | 172 |  |  | 0.1 | 0.1/0.2 | 0.1/0.3 | 3 |  | 0.05 | adequate |  | 10 | B |  | lungs,eyes | eyes |  |
chlorine-dioxide | Chlorine dioxide |  | 10049-04-4 | ClO2 | gas | no | 11 |  |  |  | 0.1 | 0.1/0.3 | 0.1/0.3 | 5 |  | 0.1 | poor |  |  | B | AG | lungs,eyes | eyes |  |
hydrogen-bromide | Hydrogen bromide | hydrobromic acid | 10035-10-6 | HBr | gas | no | -66.8 |  |  |  | 3 | -/3 | c3 | 30 |  | 2 | adequate |  |  | E | AG | airways,eyes | eyes |  |
nitric-acid | Nitric acid | aqua fortis | 7697-37-2 | HNO3 | vapour | no | 83 | 48 |  |  | 2 | -/1 | 2/4 | 25 |  | 0.3 | adequate |  |  | B |  | airways,lungs | eyes |  | With metals it gives nitrous gases: then NO-P3.
formic-acid | Formic acid | methanoic acid | 64-18-6 | CH2O2 | vapour | no | 100.7 | 35 | 1.2202 | 1.3714 | 5 | 5 | 5 | 30 | 18 | 28 | poor |  |  | E |  | airways,eyes | eyes |  | It irritates long before it is smelt.
hydrogen-peroxide | Hydrogen peroxide |  | 7722-84-1 | H2O2 | vapour | no | 150.2 | 1.4 |  |  | 1 | 1/2 | 1 | 75 |  |  | none |  |  |  |  | airways,eyes | eyes | Hydrogen peroxide oxidises carbon; no filter type names it |
phosphorus-trichloride | Phosphorus trichloride |  | 7719-12-2 | PCl3 | vapour | no | 76.1 | 100 |  |  | 0.5 | 0.2/0.5 | 0.2/0.5 | 25 |  | 0.7 | poor |  |  | B |  | airways,eyes | eyes |  | Gives hydrogen chloride with damp air.
methanethiol | Methanethiol | methyl mercaptan | 74-93-1 | CH4S | gas | no | 6 |  |  |  | c10 | 0.5 | c0.5 | 150 | 3.9 | 0.002 | adequate |  |  | B | OV | nerves,airways |  |  |
trimethylamine | Trimethylamine | fish smell | 75-50-3 | C3H9N | gas | no | 2.9 |  |  |  |  | 10/15 | 10/15 |  | 2 | 0.0002 | adequate |  |  | K | AM | airways,eyes | eyes |  | Type K, not A.
dimethylamine | Dimethylamine |  | 124-40-3 | C2H7N | gas | no | 7.4 |  |  |  | 10 | 2/6 | 10 | 500 | 2.8 | 0.34 | adequate |  |  | K | AM | airways,eyes | eyes |  |
ethylamine | Ethylamine |  | 75-04-7 | C2H7N | gas | no | 16.6 |  |  |  | 10 | 2/6 | 10 | 600 | 3.5 | 0.95 | adequate |  |  | K | AM | airways,eyes | eyes |  |
triethylamine | Triethylamine |  | 121-44-8 | C6H15N | vapour | yes | 89.3 | 54 | 0.7275 | 1.401 | 25 | 2/4 |  | 200 | 1.2 | 0.48 | adequate | yes |  | K | OV | eyes,airways | eyes |  | Blurs sight for hours.
ethylenediamine | Ethylenediamine | 1,2-diaminoethane | 107-15-3 | C2H8N2 | vapour | no | 117.3 | 11 | 0.8979 | 1.4568 | 10 | 10 | 10 | 1000 | 2.5 | 1 | adequate | yes |  | K |  | airways,skin | sensitiser,eyes |  | Sensitiser.
ethanolamine | Ethanolamine | 2-aminoethanol | 141-43-5 | C2H7NO | vapour | no | 170.3 | 0.4 | 1.018 | 1.4541 | 3 | 1/3 | 3/6 | 30 | 3 | 2.6 | poor | yes |  | K |  | airways,skin | eyes |  |
hydrazine | Hydrazine |  | 302-01-2 | N2H4 | vapour | no | 113.5 | 10 |  |  | 1 | 0.01/0.1 | c0.03 | 50 | 2.9 | 3.7 | none | yes |  | K |  | liver,lungs | carcinogen,eyes | Hydrazine is smelt only far above its limit |
methyl-isocyanate | Methyl isocyanate |  | 624-83-9 | C2H3NO | vapour | yes | 39.1 | 348 |  |  | 0.02 | -/0.02 | 0.02 | 3 | 5.3 | 2.1 | none | yes |  |  |  | lungs,eyes | sensitiser,eyes | Isocyanates sensitise and have no warning properties |
peracetic-acid | Peracetic acid | peroxyacetic acid;PAA;disinfectant | 79-21-0 | C2H4O3 | vapour | no | 110 | 14 | | | | | | | | | none | | | | | airways,eyes | eyes | Peracetic acid oxidises carbon; no filter type names it | No limit in either list. The solution also gives acetic acid and hydrogen peroxide.
lithium-battery-gas | Lithium battery fire or venting gas | lithium battery;lithium-ion battery;battery fire;battery gas;thermal runaway | | | gas | no | | | | | | | | | | | none | yes | | | | airways,blood,eyes | eyes | Venting or burning lithium batteries give hydrogen fluoride, carbon monoxide, hydrogen and solvent vapour together, in amounts that nobody knows beforehand | Measure and enter hydrogen fluoride, carbon monoxide, hydrogen, hydrogen chloride, sulphur dioxide and hydrogen cyanide each.
`,
	{ form: 'gas', organic: false, unit: 'ppm' }
);
