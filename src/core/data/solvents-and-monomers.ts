import { substanceTable } from './substance-table.ts';

/**
 * Organic solvents, fuels, monomers and intermediates beyond the tested ones of organic-vapours.ts. Every value
 * is written from memory; the origin of each column stands in SUBSTANCE_ORIGINS (substance.ts).
 */
export const SOLVENTS_AND_MONOMERS = substanceTable(
	`
key | name | synonyms | cas | formula | bp | vp | antoine | density | nD | us | uk | rel | idlh | lel | odour | warning | skin | en | cartridge | organs | harm | no filter | note
o-xylene | o-Xylene | 1,2-dimethylbenzene | 95-47-6 | C8H10 | 144.4 | 5 | 6.99891 1474.679 213.69 | 0.8802 | 1.5055 | 100 | 50/100 | 100/150 | 900 | 0.9 | 0.38 | adequate | yes | A | OV | nerves,airways |  |  |
p-xylene | p-Xylene | 1,4-dimethylbenzene | 106-42-3 | C8H10 | 138.4 | 6.5 | 6.99052 1453.43 215.307 | 0.8611 | 1.4958 | 100 | 50/100 | 100/150 | 900 | 1.1 | 0.5 | adequate | yes | A | OV | nerves,airways |  |  |
cumene | Cumene | isopropylbenzene | 98-82-8 | C9H12 | 152.4 | 3.2 | 6.93666 1460.793 207.777 | 0.8618 | 1.4915 | 50 | 25/50 | 50 | 900 | 0.9 | 0.1 | adequate | yes | A | OV | nerves,airways |  |  |
1-2-4-trimethylbenzene | 1,2,4-Trimethylbenzene | pseudocumene | 95-63-6 | C9H12 | 169.4 | 1.5 | 7.04383 1573.257 208.56 | 0.8758 | 1.5048 |  | 25 | 25 |  | 0.9 | 2.4 | adequate |  | A | OV | nerves,airways |  |  |
alpha-methylstyrene | alpha-Methylstyrene | isopropenylbenzene | 98-83-9 | C9H10 | 165.4 | 1.9 | 6.92366 1486.88 202.4 | 0.9106 | 1.5386 | c100 | 50/100 | 50/100 | 700 | 1.9 | 0.29 | adequate |  | A | OV | eyes,airways |  |  |
turpentine | Turpentine | oil of turpentine | 8006-64-2 | C10H16 | 154 | 4 |  | 0.86 | 1.47 | 100 | 100/150 | 100 | 800 | 0.8 | 100 | poor |  | A | OV | airways,kidneys |  |  | A mixture; constants are those of pinene.
white-spirit | White spirit | Stoddard solvent;mineral spirits | 8052-41-3 | C10H20 | 160 | 2 |  | 0.78 | 1.43 | 500 |  | 60 | 3400 | 0.8 | 1 | adequate |  | A | OV | nerves |  |  | A mixture; constants are those of its mean. The danger value is 20,000 mg/m³ at that mean.
n-octane | n-Octane |  | 111-65-9 | C8H18 | 125.7 | 10.5 | 6.92377 1355.126 209.517 | 0.7025 | 1.3974 | 500 |  | 75/c385 | 1000 | 1 | 48 | adequate |  | A | OV | nerves,airways |  |  |
isopentane | Isopentane | 2-methylbutane | 78-78-4 | C5H12 | 27.8 | 573 | 6.78967 1020.012 233.097 | 0.6201 | 1.3537 |  | 600 |  |  | 1.4 | 10 | poor |  | AX | OV | nerves |  |  |
cyclopentane | Cyclopentane |  | 287-92-3 | C5H10 | 49.3 | 260 | 6.88676 1124.162 231.361 | 0.7457 | 1.4065 |  |  | 600 |  | 1.1 |  | poor |  | AX | OV | nerves |  |  |
cyclohexene | Cyclohexene | tetrahydrobenzene | 110-83-8 | C6H10 | 83 | 67 | 6.88617 1229.973 224.104 | 0.811 | 1.4465 | 300 |  | 300 | 2000 | 1.2 | 0.18 | adequate |  | A | OV | airways,nerves |  |  |
tetrahydrofuran | Tetrahydrofuran | THF | 109-99-9 | C4H8O | 66 | 132 | 6.99515 1202.29 226.254 | 0.8892 | 1.405 | 200 | 50/100 | 200/250 | 2000 | 2 | 2 | adequate | yes | A | OV | nerves,airways |  |  |
1-4-dioxane | 1,4-Dioxane | dioxane | 123-91-1 | C4H8O2 | 101.3 | 29 | 7.43155 1554.679 240.337 | 1.0337 | 1.4224 | 100 | 20 | c1 | 500 | 2 | 24 | poor | yes | A | OV | liver,kidneys |  |  |
diethyl-ether | Diethyl ether | ether;ethoxyethane | 60-29-7 | C4H10O | 34.6 | 440 | 6.92032 1064.066 228.799 | 0.7138 | 1.3526 | 400 | 100/200 |  | 1900 | 1.9 | 8.9 | adequate |  | AX | OV | nerves,airways |  |  |
mtbe | Methyl tert-butyl ether | MTBE | 1634-04-4 | C5H12O | 55.2 | 201 |  | 0.7405 | 1.369 |  | 50/100 |  |  | 1.6 | 0.05 | adequate |  | AX | OV | nerves,airways |  |  |
2-methoxyethanol | 2-Methoxyethanol | ethylene glycol methyl ether | 109-86-4 | C3H8O2 | 124.1 | 6 |  | 0.9647 | 1.4024 | 25 | 1 | 0.1 | 200 | 1.8 | 2.3 | poor | yes | A | OV | blood,reproduction |  |  |
2-ethoxyethanol | 2-Ethoxyethanol | ethylene glycol ethyl ether | 110-80-5 | C4H10O2 | 135.6 | 4 |  | 0.9297 | 1.408 | 200 | 2 | 0.5 | 500 | 1.7 | 2.7 | poor | yes | A | OV | blood,reproduction |  |  |
2-butoxyethanol | 2-Butoxyethanol | butyl glycol | 111-76-2 | C6H14O2 | 170.2 | 0.8 |  | 0.9015 | 1.4198 | 50 | 25/50 | 5 | 700 | 1.1 | 0.1 | adequate | yes | A | OV | blood,airways |  |  |
1-methoxy-2-propanol | 1-Methoxy-2-propanol | propylene glycol methyl ether | 107-98-2 | C4H10O2 | 119 | 10.9 |  | 0.962 | 1.4034 |  | 100/150 | 100/150 |  | 1.6 | 10 | adequate | yes | A | OV | nerves,airways |  |  |
1-methoxy-2-propyl-acetate | 1-Methoxy-2-propyl acetate | PMA;paint thinner | 108-65-6 | C6H12O3 | 145.8 | 2.8 |  | 0.969 | 1.401 |  | 50/100 |  |  | 1.5 | 0.1 | adequate | yes | A | OV | airways |  |  |
isobutyl-acetate | Isobutyl acetate |  | 110-19-0 | C6H12O2 | 116.5 | 13 |  | 0.8712 | 1.3902 | 150 | 150/187 | 150 | 1300 | 1.3 | 0.64 | adequate |  | A | OV | airways,nerves |  |  |
n-propyl-acetate | n-Propyl acetate |  | 109-60-4 | C5H10O2 | 101.5 | 25 | 7.01615 1282.28 208.6 | 0.8878 | 1.3842 | 200 | 200/250 | 200/250 | 1700 | 1.7 | 0.67 | adequate |  | A | OV | airways,nerves |  |  |
isopropyl-acetate | Isopropyl acetate |  | 108-21-4 | C5H10O2 | 88.6 | 42 |  | 0.8718 | 1.3773 | 250 | -/200 |  | 1800 | 1.8 | 2.7 | adequate |  | A | OV | airways,nerves |  |  |
methyl-methacrylate | Methyl methacrylate | MMA | 80-62-6 | C5H8O2 | 100.5 | 29 |  | 0.944 | 1.4142 | 100 | 50/100 | 100 | 1000 | 1.7 | 0.08 | adequate |  | A | OV | airways,skin |  |  |
ethyl-acrylate | Ethyl acrylate |  | 140-88-5 | C5H8O2 | 99.5 | 29 |  | 0.9234 | 1.4068 | 25 | 5/10 |  | 300 | 1.4 | 0.0012 | adequate | yes | A | OV | airways,eyes | eyes |  |
isobutanol | Isobutanol | 2-methyl-1-propanol | 78-83-1 | C4H10O | 107.9 | 9 |  | 0.8018 | 1.3955 | 100 | 50/75 | 50 | 1600 | 1.7 | 1.6 | adequate |  | A | OV | airways,nerves |  |  |
2-butanol | 2-Butanol | sec-butyl alcohol | 78-92-2 | C4H10O | 99.5 | 12 |  | 0.8063 | 1.3978 | 150 | 100/150 | 100/150 | 2000 | 1.7 | 2.6 | adequate |  | A | OV | airways,nerves |  |  |
allyl-alcohol | Allyl alcohol | 2-propenol | 107-18-6 | C3H6O | 97 | 17 |  | 0.854 | 1.4135 | 2 | 2/4 | 2/4 | 20 | 2.5 | 1.1 | adequate | yes | A | OV | airways,eyes | eyes |  |
cyclohexanol | Cyclohexanol |  | 108-93-0 | C6H12O | 161.1 | 1 |  | 0.9624 | 1.4641 | 50 | 50 | 50 | 400 | 2.4 | 0.15 | adequate | yes | A | OV | airways,nerves |  |  |
phenol | Phenol | carbolic acid;hydroxybenzene | 108-95-2 | C6H6O | 181.8 | 0.36 |  | 1.0576 | 1.5418 | 5 | 2/4 | 5/c15.6 | 250 | 1.8 | 0.06 | adequate | yes | A | OV | airways,kidneys | eyes |  |
2-hexanone | 2-Hexanone | methyl n-butyl ketone | 591-78-6 | C6H12O | 127.6 | 11 |  | 0.8113 | 1.4007 | 100 | 5 | 1 | 1600 | 1.2 | 0.024 | poor | yes | A | OV | nerves |  |  |
diacetone-alcohol | Diacetone alcohol |  | 123-42-2 | C6H12O2 | 168 | 1 |  | 0.9387 | 1.4213 | 50 | 50/75 | 50 | 1800 | 1.8 | 0.28 | adequate |  | A | OV | airways,nerves |  |  |
isophorone | Isophorone |  | 78-59-1 | C9H14O | 215.2 | 0.3 |  | 0.9229 | 1.4759 | 25 | -/5 | 4 | 200 | 0.8 | 0.2 | adequate |  | A | OV | airways,eyes |  |  |
furfural | Furfural |  | 98-01-1 | C5H4O2 | 161.7 | 2 |  | 1.1594 | 1.5261 | 5 | 2/5 |  | 100 | 2.1 | 0.08 | adequate | yes | A | OV | airways,skin |  |  |
acetaldehyde | Acetaldehyde | ethanal | 75-07-0 | C2H4O | 20.2 | 750 |  | 0.7834 | 1.3316 | 200 | 20/50 |  | 2000 | 4 | 0.05 | adequate |  | AX | OV | eyes,airways | eyes |  |
acrolein | Acrolein | propenal | 107-02-8 | C3H4O | 52.7 | 210 |  | 0.841 | 1.4017 | 0.1 | 0.02/0.05 | 0.1/0.3 | 2 | 2.8 | 0.16 | poor |  | AX | OV | eyes,airways | eyes |  |
glutaraldehyde | Glutaraldehyde | pentanedial | 111-30-8 | C5H8O2 | 188 | 0.3 |  |  |  |  | 0.05/0.05 | c0.2 |  |  | 0.04 | poor |  | A | OV | airways,skin | sensitiser,eyes |  | Sensitiser.
propylene-oxide | Propylene oxide | methyloxirane | 75-56-9 | C3H6O | 34.2 | 445 |  | 0.8287 | 1.3664 | 100 | 1 |  | 400 | 2.3 | 33 | poor |  | AX | OV | airways,eyes | carcinogen |  |
epichlorohydrin | Epichlorohydrin | chloromethyloxirane | 106-89-8 | C3H5ClO | 116 | 13 |  | 1.1812 | 1.4361 | 5 | 0.5/1.5 |  | 75 | 3.8 | 0.93 | poor | yes | A | OV | airways,kidneys | carcinogen,eyes |  |
carbon-disulphide | Carbon disulphide | carbon disulfide | 75-15-0 | CS2 | 46.2 | 297 | 6.94279 1169.11 241.59 | 1.2632 | 1.6319 | 20/c30 | 5 | 1/10 | 500 | 1.3 | 0.1 | poor | yes | AX | OV | nerves,heart |  |  | It dulls the sense of smell.
acetonitrile | Acetonitrile | methyl cyanide | 75-05-8 | C2H3N | 81.6 | 73 |  | 0.7857 | 1.3442 | 40 | 40/60 | 20 | 137 | 3 | 170 | poor | yes | A | OV | nerves,airways |  |  |
nitrobenzene | Nitrobenzene |  | 98-95-3 | C6H5NO2 | 210.8 | 0.2 |  | 1.2037 | 1.5562 | 1 | 0.2 | 1 | 200 | 1.8 | 0.018 | adequate | yes | A | OV | blood,liver |  |  |
aniline | Aniline | aminobenzene | 62-53-3 | C6H7N | 184.1 | 0.6 |  | 1.0217 | 1.5863 | 5 | 1 |  | 100 | 1.3 | 1.1 | poor | yes | A | OV | blood |  |  |
dimethylformamide | Dimethylformamide | DMF | 68-12-2 | C3H7NO | 153 | 3 |  | 0.9487 | 1.4305 | 10 | 5/10 | 10 | 500 | 2.2 | 2.2 | poor | yes | A | OV | liver |  |  |
n-methyl-2-pyrrolidone | N-Methyl-2-pyrrolidone | NMP | 872-50-4 | C5H9NO | 202 | 0.3 |  | 1.027 | 1.4684 |  | 10/20 |  |  | 1.3 | 10 | poor | yes | A | OV | reproduction,airways |  |  |
pyridine | Pyridine |  | 110-86-1 | C5H5N | 115.2 | 16 | 7.04115 1373.8 214.98 | 0.9819 | 1.5095 | 5 | 5/10 | 5 | 1000 | 1.8 | 0.04 | adequate |  | A | OV | nerves,liver |  |  |
1-1-2-trichloroethane | 1,1,2-Trichloroethane | vinyl trichloride | 79-00-5 | C2H3Cl3 | 113.8 | 19 |  | 1.4397 | 1.4714 | 10 |  | 10 | 100 | 6 |  | poor | yes | A | OV | nerves,liver |  |  |
1-1-dichloroethane | 1,1-Dichloroethane | ethylidene chloride | 75-34-3 | C2H4Cl2 | 57.4 | 182 |  | 1.1757 | 1.4164 | 100 | 100 | 100 | 3000 | 5.4 | 120 | poor | yes | AX | OV | nerves,liver |  |  |
1-2-dichloroethylene | 1,2-Dichloroethylene |  | 540-59-0 | C2H2Cl2 | 55 | 200 |  | 1.27 | 1.449 | 200 | 200/250 | 200 | 1000 | 5.6 | 17 | poor |  | AX | OV | nerves |  |  |
1-2-dichlorobenzene | 1,2-Dichlorobenzene |  | 95-50-1 | C6H4Cl2 | 180.4 | 1 |  | 1.3059 | 1.5515 | c50 | 25/50 | c50 | 200 | 2.2 | 0.7 | adequate | yes | A | OV | liver,airways |  |  |
1-2-dichloropropane | 1,2-Dichloropropane | propylene dichloride | 78-87-5 | C3H6Cl2 | 96.4 | 40 |  | 1.156 | 1.4394 | 75 |  |  | 400 | 3.4 | 0.26 | adequate |  | A | OV | liver,airways |  |  |
benzyl-chloride | Benzyl chloride |  | 100-44-7 | C7H7Cl | 179.4 | 1 |  | 1.1002 | 1.5391 | 1 | 0.5/1.5 | c1 | 10 | 1.1 | 0.04 | adequate |  | A | OV | eyes,airways | carcinogen,eyes |  |
ethylene-dibromide | Ethylene dibromide | 1,2-dibromoethane | 106-93-4 | C2H4Br2 | 131.6 | 12 |  | 2.1791 | 1.5387 | 20/c30 | 0.5 | 0.045/c0.13 | 100 |  | 10 | none | yes | A | OV | liver,reproduction | carcinogen | Ethylene dibromide is smelt only far above its limit |
chloropicrin | Chloropicrin | trichloronitromethane | 76-06-2 | CCl3NO2 | 112 | 18 |  | 1.6558 | 1.4611 | 0.1 | 0.1/0.3 | 0.1 | 2 |  | 0.78 | poor |  | A | OV | eyes,airways | eyes |  |
ethanethiol | Ethanethiol | ethyl mercaptan | 75-08-1 | C2H6S | 35 | 442 |  | 0.8391 | 1.431 | c10 | 0.5/2 | c0.5 | 500 | 2.8 | 0.0004 | adequate |  | AX | OV | nerves,airways |  |  |
ethylene-glycol | Ethylene glycol |  | 107-21-1 | C2H6O2 | 197.3 | 0.06 |  | 1.1135 | 1.4318 |  | 20/40 |  |  | 3.2 |  | poor | yes | A | OV | airways,nerves |  |  |
naphthalene | Naphthalene |  | 91-20-3 | C10H8 | 217.9 | 0.08 |  | 1.0253 | 1.5821 | 10 |  | 10/15 | 250 | 0.9 | 0.04 | adequate | yes | A | OV | blood,eyes |  |  |
dimethyl-sulphate | Dimethyl sulphate | dimethyl sulfate | 77-78-1 | C2H6O4S | 188 | 0.1 |  | 1.3322 | 1.3874 | 1 | 0.05 | 0.1 | 7 |  |  | none | yes | A | OV | eyes,airways,skin | carcinogen,eyes | Dimethyl sulphate has no warning properties and enters through the skin |
chloroethane | Chloroethane | ethyl chloride | 75-00-3 | C2H5Cl | 12.3 | 1000 |  | 0.8902 | 1.3676 | 1000 | 50 |  | 3800 | 3.8 | 4 | poor |  | AX | OV | nerves,heart |  |  |
trichlorofluoromethane | Trichlorofluoromethane | refrigerant 11 | 75-69-4 | CCl3F | 23.7 | 690 |  | 1.4879 | 1.3821 | 1000 | 1000/1250 | c1000 | 2000 |  |  | none |  | AX | OV | heart,nerves |  | It has no warning properties and leaves carbon early |
`,
	{ form: 'vapour', organic: true, unit: 'ppm' }
);
