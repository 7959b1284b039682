import { substanceTable } from './substance-table.ts';

/**
 * Organic vapours of the twin-cartridge tests and their relatives. Every value
 * is written from memory; the origin of each column stands in SUBSTANCE_ORIGINS (substance.ts).
 */
export const ORGANIC_VAPOURS = substanceTable(
	`
key | name | synonyms | cas | formula | bp | vp | antoine | density | nD | us | uk | rel | idlh | lel | odour | warning | skin | en | cartridge | organs | harm | no filter | note
benzene | Benzene |  | 71-43-2 | C6H6 | 80.1 | 75 | 6.90565 1211.033 220.79 | 0.8765 | 1.5011 | 1/5 | 1 | 0.1/1 | 500 | 1.2 | 60 | poor | yes | A | OV | blood,nerves | carcinogen |  |
toluene | Toluene | methylbenzene | 108-88-3 | C7H8 | 110.6 | 22 | 6.95464 1344.8 219.482 | 0.8669 | 1.4961 | 200/c300 | 50/100 | 100/150 | 500 | 1.1 | 2.9 | adequate | yes | A | OV | nerves,airways |  |  |
ethylbenzene | Ethylbenzene |  | 100-41-4 | C8H10 | 136.2 | 7 | 6.95719 1424.255 213.206 | 0.867 | 1.4959 | 100 | 100/125 | 100/125 | 800 | 0.8 | 2.3 | adequate | yes | A | OV | nerves,airways |  |  |
m-xylene | m-Xylene | xylene;xylenes;1,3-dimethylbenzene | 108-38-3 | C8H10 | 139.1 | 6 | 7.00908 1462.266 215.105 | 0.8642 | 1.4972 | 100 | 50/100 | 100/150 | 900 | 1.1 | 1.1 | adequate | yes | A | OV | nerves,airways |  |  |
styrene | Styrene | vinylbenzene;phenylethene | 100-42-5 | C8H8 | 145.2 | 5 | 7.14016 1574.51 224.09 | 0.906 | 1.5468 | 100/c200 | 100/250 | 50/100 | 700 | 0.9 | 0.32 | adequate |  | A | OV | nerves,airways |  |  |
n-pentane | n-Pentane |  | 109-66-0 | C5H12 | 36.1 | 420 | 6.85221 1064.63 232 | 0.6262 | 1.3575 | 1000 | 600 | 120/c610 | 1500 | 1.5 | 400 | poor |  | AX | OV | nerves,airways |  |  |
n-hexane | n-Hexane |  | 110-54-3 | C6H14 | 68.7 | 124 | 6.87776 1171.53 224.366 | 0.6603 | 1.3749 | 500 | 20 | 50 | 1100 | 1.1 | 130 | poor |  | A | OV | nerves |  |  |
cyclohexane | Cyclohexane |  | 110-82-7 | C6H12 | 80.7 | 78 | 6.84498 1203.526 222.863 | 0.7785 | 1.4266 | 300 | 100/300 | 300 | 1300 | 1.3 | 25 | adequate |  | A | OV | nerves,airways |  |  |
n-heptane | n-Heptane |  | 142-82-5 | C7H16 | 98.4 | 35 | 6.9024 1268.115 216.9 | 0.6837 | 1.3878 | 500 | 500 | 85/c440 | 750 | 1.05 | 150 | adequate |  | A | OV | nerves,airways |  |  |
methylcyclohexane | Methylcyclohexane |  | 108-87-2 | C7H14 | 100.9 | 37 | 6.82689 1272.864 221.63 | 0.7694 | 1.4231 | 500 |  | 400 | 1200 | 1.2 | 630 | poor |  | A | OV | nerves,airways |  |  |
isooctane | 2,2,4-Trimethylpentane | isooctane | 540-84-1 | C8H18 | 99.2 | 39 | 6.81189 1257.84 220.735 | 0.6919 | 1.3915 |  |  |  |  | 1.1 |  | adequate |  | A | OV | nerves,airways |  |  |
n-nonane | n-Nonane |  | 111-84-2 | C9H20 | 150.8 | 3.2 | 6.93513 1428.811 201.619 | 0.7176 | 1.4054 |  |  | 200 |  | 0.8 | 47 | adequate |  | A | OV | nerves,airways |  |  |
n-decane | n-Decane |  | 124-18-5 | C10H22 | 174.1 | 1 | 6.95367 1501.268 194.48 | 0.73 | 1.4102 |  |  |  |  | 0.8 |  | adequate |  | A | OV | nerves,airways |  |  |
acetone | Acetone | 2-propanone | 67-64-1 | C3H6O | 56.1 | 181 | 7.11714 1210.595 229.664 | 0.7899 | 1.3588 | 1000 | 500/1500 | 250 | 2500 | 2.5 | 62 | adequate |  | AX | OV | nerves,airways |  |  |
2-butanone | 2-Butanone | MEK;methyl ethyl ketone | 78-93-3 | C4H8O | 79.6 | 78 | 7.06356 1261.34 221.969 | 0.8054 | 1.3788 | 200 | 200/300 | 200/300 | 3000 | 1.4 | 16 | adequate | yes | A | OV | nerves,airways |  |  |
4-methyl-2-pentanone | 4-Methyl-2-pentanone | MIBK;methyl isobutyl ketone | 108-10-1 | C6H12O | 116.5 | 16 | 6.67272 1168.4 191.9 | 0.7978 | 1.3962 | 100 | 50/100 | 50/75 | 500 | 1.2 | 0.88 | adequate | yes | A | OV | nerves,airways |  |  |
cyclohexanone | Cyclohexanone |  | 108-94-1 | C6H10O | 155.4 | 3.4 |  | 0.9478 | 1.4507 | 50 | 10/20 | 25 | 700 | 1.1 | 3.5 | adequate | yes | A | OV | airways,nerves |  |  |
methyl-acetate | Methyl acetate |  | 79-20-9 | C3H6O2 | 56.9 | 173 | 7.06524 1157.63 219.73 | 0.9342 | 1.3614 | 200 | 200/250 | 200/250 | 3100 | 3.1 | 180 | adequate |  | AX | OV | airways,nerves |  |  |
vinyl-acetate | Vinyl acetate |  | 108-05-4 | C4H6O2 | 72.5 | 87 | 7.2101 1296.13 226.66 | 0.9317 | 1.3953 |  | 5/10 | c4 |  | 2.6 | 0.6 | adequate |  | A | OV | airways,eyes |  |  |
ethyl-acetate | Ethyl acetate |  | 141-78-6 | C4H8O2 | 77.1 | 73 | 7.10179 1244.95 217.88 | 0.9003 | 1.3723 | 400 | 200/400 | 400 | 2000 | 2 | 18 | adequate |  | A | OV | airways,nerves |  |  |
n-butyl-acetate | n-Butyl acetate |  | 123-86-4 | C6H12O2 | 126.1 | 9 | 7.1271 1430.418 210.745 | 0.8825 | 1.3941 | 150 | 150/200 | 150/200 | 1700 | 1.7 | 0.31 | adequate |  | A | OV | airways,nerves |  |  |
methanol | Methanol | methyl alcohol | 67-56-1 | CH4O | 64.6 | 97 | 7.8975 1474.08 229.13 | 0.7914 | 1.3288 | 200 | 200/250 | 200/250 | 6000 | 6 | 160 | poor | yes | AX |  | nerves,eyes |  | Methanol breaks through carbon within minutes |
ethanol | Ethanol | ethyl alcohol | 64-17-5 | C2H6O | 78.3 | 44 | 8.1122 1592.864 226.184 | 0.7893 | 1.3611 | 1000 | 1000 | 1000 | 3300 | 3.3 | 180 | adequate |  | A | OV | nerves,airways |  |  |
2-propanol | 2-Propanol | isopropanol;IPA | 67-63-0 | C3H8O | 82.3 | 33 | 8.11778 1580.92 219.61 | 0.7855 | 1.3776 | 400 | 400/500 | 400/500 | 2000 | 2 | 43 | adequate |  | A | OV | nerves,airways |  |  |
1-propanol | 1-Propanol |  | 71-23-8 | C3H8O | 97.2 | 15 | 7.84767 1499.21 204.64 | 0.8035 | 1.385 | 200 | 200/250 | 200/250 | 800 | 2.2 | 5.3 | adequate | yes | A | OV | nerves,airways |  |  |
1-butanol | 1-Butanol |  | 71-36-3 | C4H10O | 117.7 | 5 | 7.4768 1362.39 178.77 | 0.8098 | 1.3992 | 100 | -/50 | c50 | 1400 | 1.4 | 1.2 | adequate | yes | A | OV | nerves,airways |  |  |
dichloromethane | Dichloromethane | methylene chloride | 75-09-2 | CH2Cl2 | 39.8 | 350 | 7.0803 1138.91 231.45 | 1.3266 | 1.4242 | 25/125 | 100/200 |  | 2300 | 13 | 160 | poor | yes | AX |  | nerves,heart,blood |  | Dichloromethane breaks through carbon within minutes; 29 CFR 1910.1052 accepts no organic vapour cartridge |
chloroform | Chloroform | trichloromethane | 67-66-3 | CHCl3 | 61.2 | 160 | 6.95465 1170.966 226.232 | 1.4832 | 1.4459 | c50 | 2 | -/2 | 500 |  | 192 | poor | yes | AX | OV | liver,nerves |  |  |
1-1-1-trichloroethane | 1,1,1-Trichloroethane | methyl chloroform | 71-55-6 | C2H3Cl3 | 74.1 | 100 |  | 1.339 | 1.4379 | 350 | 100/200 | c350 | 700 | 7.5 | 390 | poor |  | A | OV | nerves,heart |  |  |
carbon-tetrachloride | Carbon tetrachloride | tetrachloromethane | 56-23-5 | CCl4 | 76.7 | 91 | 6.87926 1212.021 226.409 | 1.594 | 1.4601 | 10/c25 | 1/5 | -/2 | 200 |  | 252 | poor | yes | A | OV | liver,kidneys |  |  |
trichloroethylene | Trichloroethylene | trichloroethene | 79-01-6 | C2HCl3 | 87.2 | 58 | 6.5183 1018.6 192.7 | 1.4642 | 1.4773 | 100/c200 | 100/150 | 25 | 1000 | 8 | 82 | poor | yes | A | OV | nerves,liver | carcinogen |  |
1-2-dichloroethane | 1,2-Dichloroethane | ethylene dichloride | 107-06-2 | C2H4Cl2 | 83.5 | 64 | 7.0253 1271.3 222.9 | 1.2351 | 1.4448 | 50/c100 | 5 | 1/2 | 50 | 6.2 | 26 | poor | yes | A | OV | liver,nerves | carcinogen |  |
tetrachloroethylene | Tetrachloroethylene | perchloroethylene | 127-18-4 | C2Cl4 | 121.3 | 14 | 6.97683 1386.92 217.53 | 1.6227 | 1.5053 | 100/c200 | 20/40 |  | 150 |  | 47 | poor | yes | A | OV | nerves,liver |  |  |
chlorobenzene | Chlorobenzene |  | 108-90-7 | C6H5Cl | 131.7 | 9 | 6.97808 1431.05 217.55 | 1.1058 | 1.5241 | 75 | 1/3 |  | 1000 | 1.3 | 1.3 | poor | yes | A | OV | liver,nerves |  |  |
acrylonitrile | Acrylonitrile | propenenitrile | 107-13-1 | C3H3N | 77.3 | 83 |  | 0.806 | 1.3911 | 2/c10 | 2 | 1/c10 | 60 | 3 | 17 | poor | yes | A | OV | nerves,blood | carcinogen |  |
vinyl-chloride | Vinyl chloride | chloroethene | 75-01-4 | C2H3Cl | -13.4 | 2524 | 6.89117 905.01 239.48 | 0.9106 | 1.37 | 1/c5 | 1 |  |  | 3.6 | 3000 | none |  | AX |  | liver | carcinogen | Vinyl chloride breaks through carbon within minutes and has no warning smell |
diethylamine | Diethylamine |  | 109-89-7 | C4H11N | 55.5 | 192 | 5.8016 583.3 144.1 | 0.7056 | 1.3864 | 25 | 5/10 | 10/25 | 200 | 1.8 | 0.13 | adequate | yes | K | AM | eyes,airways | eyes |  |
`,
	{ form: 'vapour', organic: true, unit: 'ppm' }
);
