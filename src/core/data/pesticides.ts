import { substanceTable } from './substance-table.ts';

/**
 * Pesticides as they are sprayed: droplets with vapour, so that both filters are taken. Every value
 * is written from memory; the origin of each column stands in SUBSTANCE_ORIGINS (substance.ts).
 */
export const PESTICIDES = substanceTable(
	`
key | name | synonyms | cas | formula | us | uk | rel | idlh | warning | skin | organs | en | cartridge | note
pesticide-spray | Pesticide spray, not otherwise listed | pesticide;insecticide;weedkiller spray;crop spray | | | | | | | none | yes | nerves,airways | A | OV | The label decides. No limit of its own: enter the one your assessment uses.
glyphosate | Glyphosate | weedkiller | 1071-83-6 | C3H8NO5P | | | | | none | | airways,eyes | A | OV | No limit in either list: the label decides.
chlorpyrifos | Chlorpyrifos | | 2921-88-2 | C9H11Cl3NO3PS | | 0.2/0.6 | 0.2/0.6 | | none | yes | nerves | A | OV |
malathion | Malathion | | 121-75-5 | C10H19O6PS2 | 15 | | 10 | 250 | poor | yes | nerves | A | OV |
parathion | Parathion | | 56-38-2 | C10H14NO5PS | 0.1 | | 0.05 | 10 | none | yes | nerves | A | OV |
carbaryl | Carbaryl | | 63-25-2 | C12H11NO2 | 5 | | 5 | 100 | none | | nerves | A | OV |
paraquat | Paraquat | | 1910-42-5 | C12H14Cl2N2 | 0.5 | 0.08 | 0.1 | 1 | none | yes | lungs,skin | A | OV | UK limit of the respirable part.
pyrethrum | Pyrethrum | pyrethrins;pyrethroid spray | 8003-34-7 | | 5 | 1 | 5 | 5000 | none | | airways,nerves | A | OV |
2-4-d | 2,4-D | 2,4-dichlorophenoxyacetic acid | 94-75-7 | C8H6Cl2O3 | 10 | 10/20 | 10 | 100 | none | yes | nerves,skin | A | OV |
rotenone | Rotenone | | 83-79-4 | C23H22O6 | 5 | 5/10 | 5 | 2500 | none | | nerves | A | OV |
lindane | Lindane | gamma-HCH | 58-89-9 | C6H6Cl6 | 0.5 | 0.1 | 0.5 | 50 | none | yes | nerves | A | OV |
`,
	{ form: 'mist', organic: true, unit: 'mg/m3' }
);
