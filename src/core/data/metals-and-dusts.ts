import { substanceTable, type SubstanceRow } from './substance-table.ts';

/**
 * Metals, mineral and organic dusts, mists and fumes. Every value
 * is written from memory; the origin of each column stands in SUBSTANCE_ORIGINS (substance.ts). A particle
 * with a filter type gives off a gas or vapour as well, so that it takes both filters.
 */
const PARTICLES = substanceTable(
	`
key | name | synonyms | cas | formula | form | us | uk | rel | idlh | warning | skin | en | cartridge | organs | harm | no filter | note
hdi | Hexamethylene diisocyanate | HDI;isocyanate;two-pack paint hardener;1,6-diisocyanatohexane | 822-06-0 | C8H12N2O2 | mist |  | 0.02/0.07 | 0.035/c0.14 |  | none | yes | A | OV | lungs,airways | sensitiser | Isocyanates sensitise and have no warning properties | UK limit counts the isocyanate group (NCO). No legal US limit.
general-dust | Dust, not otherwise listed | nuisance dust;fish meal |  |  | dust | 15 | 10 |  |  | adequate |  |  |  | lungs |  |  |
grain-dust | Grain dust | wheat;barley |  |  | dust | 10 | 10 | 4 |  | adequate |  |  |  | airways | sensitiser |  | Sensitiser: as low as can be done.
hardwood-dust | Hardwood dust | wood dust;wood dust, hard;oak dust;beech dust |  |  | dust | 15 | 3 | 1 |  | adequate |  |  |  | airways | sensitiser,carcinogen |  |
glass-fibre-dust | Sanding dust, glass-fibre | GRP dust;board sanding |  |  | dust | 15 | 5 | 5 |  | adequate |  |  |  | airways,skin |  |  |
silica | Crystalline silica, respirable | quartz;RCS | 14808-60-7 | SiO2 | dust | 0.05 | 0.1 | 0.05 | 50 | none |  |  |  | lungs | carcinogen |  |
lead | Lead, dust and fume |  | 7439-92-1 | Pb | fume | 0.05 | 0.15 | 0.05 | 100 | none |  |  |  | blood,nerves,kidneys |  |  |
chromium-vi | Chromium(VI) compounds | hexavalent chromium |  |  | fume | 0.005 | 0.01 | 0.0002 | 15 | none | yes |  |  | lungs,skin | sensitiser,carcinogen |  |
welding-fume | Welding fume, mild steel | welding fume;welding |  |  | fume |  |  |  |  | adequate |  |  |  | lungs | weld fume |  | No limit of its own in either list: enter the one your assessment uses.
oil-mist | Oil mist, mineral | oil mist;cutting oil | 8012-95-1 |  | oil aerosol | 5 |  | 5/10 | 2500 | adequate |  |  |  | lungs,airways |  |  | No UK limit: enter the one your assessment uses.
cadmium | Cadmium and compounds |  | 7440-43-9 | Cd | fume | 0.005 | 0.025 |  | 9 | none |  |  |  | kidneys,lungs | carcinogen |  |
zinc-oxide | Zinc oxide fume | galvanising fume | 1314-13-2 | ZnO | fume | 5 |  | 5/10 | 500 | adequate |  |  |  | lungs |  |  | Metal fume fever.
manganese | Manganese, respirable dust and fume |  | 7439-96-5 | Mn | fume | c5 | 0.05 | 1/3 | 500 | none |  |  |  | nerves,lungs |  |  | UK limit of the respirable part.
nickel | Nickel, insoluble |  | 7440-02-0 | Ni | dust | 1 | 0.5 | 0.015 | 10 | none |  |  |  | lungs,skin | sensitiser,carcinogen |  |
copper-fume | Copper fume |  | 7440-50-8 | Cu | fume | 0.1 | 0.2 | 0.1 | 100 | adequate |  |  |  | lungs |  |  |
iron-oxide | Iron oxide fume | rust dust | 1309-37-1 | Fe2O3 | fume | 10 | 5/10 | 5 | 2500 | adequate |  |  |  | lungs |  |  |
aluminium | Aluminium dust | aluminum | 7429-90-5 | Al | dust | 15 | 10 | 10 |  | adequate |  |  |  | lungs |  |  |
beryllium | Beryllium and compounds |  | 7440-41-7 | Be | dust | 0.0002/0.002 | 0.002 | c0.0005 | 4 | none |  |  |  | lungs | sensitiser,carcinogen |  |
arsenic | Arsenic and inorganic compounds |  | 7440-38-2 | As | dust | 0.01 | 0.1 | c0.002 | 5 | none |  |  |  | lungs,skin | carcinogen |  |
cobalt | Cobalt and compounds |  | 7440-48-4 | Co | dust | 0.1 | 0.1 | 0.05 | 20 | none |  |  |  | lungs,skin | sensitiser,carcinogen |  | Sensitiser.
vanadium-pentoxide | Vanadium pentoxide | boiler ash | 1314-62-1 | V2O5 | dust | c0.5 | 0.05 | c0.05 | 35 | none |  |  |  | lungs |  |  |
antimony | Antimony and compounds |  | 7440-36-0 | Sb | dust | 0.5 | 0.5 | 0.5 | 50 | none |  |  |  | lungs,heart |  |  |
titanium-dioxide | Titanium dioxide |  | 13463-67-7 | TiO2 | dust | 15 | 10 | 2.4 | 5000 | adequate |  |  |  | lungs |  |  |
portland-cement | Cement dust | Portland cement | 65997-15-1 |  | dust | 15 | 10 | 10 | 5000 | adequate |  |  |  | lungs,skin |  |  |
calcium-oxide | Calcium oxide | quicklime | 1305-78-8 | CaO | dust | 5 | 1/4 | 2 | 25 | adequate |  |  |  | airways,eyes,skin | eyes |  |
sodium-hydroxide | Sodium hydroxide | caustic soda | 1310-73-2 | NaOH | mist | 2 | -/2 | c2 | 10 | adequate |  |  |  | airways,eyes,skin | eyes |  |
sulphuric-acid | Sulphuric acid mist | sulfuric acid;battery acid | 7664-93-9 | H2SO4 | mist | 1 | 0.05 | 1 | 15 | adequate |  | E | AG | airways,eyes | eyes |  |
phosphoric-acid | Phosphoric acid mist |  | 7664-38-2 | H3PO4 | mist | 1 | 1/2 | 1/3 | 1000 | adequate |  | E | AG | airways,eyes | eyes |  |
sodium-cyanide | Sodium cyanide dust | cyanide | 143-33-9 | NaCN | dust | 5 | 1/5 | c5 | 25 | none | yes | B |  | nerves,blood |  |  | With acid or damp air it gives hydrogen cyanide: both filters, and no US cartridge is approved for that.
acrylamide | Acrylamide |  | 79-06-1 | C3H5NO | dust | 0.3 | 0.1 | 0.03 | 60 | none | yes |  |  | nerves | carcinogen |  |
phthalic-anhydride | Phthalic anhydride |  | 85-44-9 | C8H4O3 | dust | 12 | 4/12 | 6 | 60 | adequate |  |  |  | airways | sensitiser |  | Sensitiser.
carbon-black | Carbon black |  | 1333-86-4 | C | dust | 3.5 | 3.5/7 | 3.5 | 1750 | adequate |  |  |  | lungs |  |  |
coal-tar-pitch | Coal tar pitch volatiles |  | 65996-93-2 |  | fume | 0.2 |  | 0.1 | 80 | none |  | A | OV | lungs,skin | carcinogen |  | Particles and vapours together: both filters.
rosin-fume | Rosin-based solder fume | colophony | 8050-09-7 |  | fume |  | 0.05/0.15 |  |  | none |  |  |  | airways | sensitiser |  | Sensitiser: as low as can be done.
flour-dust | Flour dust | baking dust;flour |  |  | dust | 15 | 10/30 |  |  | none |  |  |  | airways | sensitiser |  | Sensitiser: as low as can be done.
softwood-dust | Softwood dust | wood dust, soft;pine dust |  |  | dust | 15 | 5 | 1 |  | none |  |  |  | airways | sensitiser |  | Sensitiser.
cotton-dust | Cotton dust |  |  |  | dust | 1 | 2.5 | 0.2 | 100 | none |  |  |  | lungs |  |  |
mineral-wool | Mineral wool | glass wool;man-made mineral fibre |  |  | dust | 15 | 5 | 5 |  | adequate |  |  |  | skin,airways |  |  |
coal-dust | Coal dust, respirable |  |  |  | dust | 2.4 |  | 1 |  | none |  |  |  | lungs |  |  |
diesel-exhaust | Diesel engine exhaust, as elemental carbon | diesel exhaust;diesel fume;DEEE |  |  | fume |  |  |  |  | none |  |  |  | lungs | carcinogen |  | No limit in the US or UK list; the EU has 0.05 mg/m³ as elemental carbon. Enter the one your assessment uses.
ammonium-chloride | Ammonium chloride fume | sal ammoniac | 12125-02-9 | NH4Cl | fume |  | 10/20 | 10/20 |  | adequate |  |  |  | airways |  |  |
mdi | Methylene diphenyl diisocyanate | MDI;isocyanate;foam hardener | 101-68-8 | C15H10N2O2 | mist | c0.2 | 0.02/0.07 | 0.05/c0.2 | 75 | none | yes |  |  | lungs,airways | sensitiser | Isocyanates sensitise and have no warning properties | UK limit counts the isocyanate group (NCO).
ipdi | Isophorone diisocyanate | IPDI;isocyanate | 4098-71-9 | C12H18N2O2 | mist |  | 0.02/0.07 | 0.045/0.18 |  | none | yes |  |  | lungs,airways | sensitiser | Isocyanates sensitise and have no warning properties | UK limit counts the isocyanate group (NCO). No legal US limit.
manganese-inhalable | Manganese, inhalable dust | | | Mn | dust | c5 | 0.2 | 1/3 | 500 | none | | | | nerves,lungs | | | UK limit of the inhalable part.
welding-fume-stick | Welding fume, stick electrode | MMA welding;manual metal arc;SMAW | | | fume | | | | | adequate | | | | lungs | weld fume | | No limit of its own in either list.
welding-fume-mig | Welding fume, MIG and MAG | MIG welding;MAG welding;GMAW | | | fume | | | | | adequate | | | | lungs | weld fume | | No limit of its own in either list. On aluminium: enter ozone too.
welding-fume-flux-cored | Welding fume, flux-cored wire | flux-cored welding;FCAW | | | fume | | | | | adequate | | | | lungs | weld fume | | No limit of its own in either list. The fume is dense.
welding-fume-tig | Welding fume, TIG | TIG welding;GTAW | | | fume | | | | | adequate | | | | lungs | weld fume | | Little fume: enter ozone and nitrous gases too, and argon in pits and vessels.
welding-fume-stainless | Welding fume, stainless steel | stainless welding | | | fume | | | | | none | | | | lungs | weld fume,carcinogen,sensitiser | | Enter chromium(VI) and nickel beside it.
welding-fume-galvanised | Welding fume, galvanised steel | zinc fume | | | fume | | | | | adequate | | | | lungs | weld fume | | Metal fume fever: enter zinc oxide beside it.
mdf-dust | MDF dust | MDF;medium density fibreboard;fibreboard dust | | | dust | 15 | 5 | 1 | | none | | | | airways | sensitiser | | Sensitiser. With hardwood in it the UK limit is 3 mg/m³.
asphalt-fume | Asphalt fume | bitumen fume;asphalt;bitumen | 8052-42-4 | | fume | | 5/10 | c5 | | adequate | | A | OV | airways,eyes | | | Particles and vapours together: both filters.
metalworking-fluid | Cutting fluid mist, water-mixed | cutting fluid;metalworking fluid;coolant mist;suds | | | oil aerosol | 5 | | 0.5 | | none | | | | airways,skin | sensitiser | | Sensitiser. No UK limit: enter the one your assessment uses.
`,
	{ form: 'dust', organic: false, unit: 'mg/m3' }
);

/** Fibres are counted, not weighed: fibres per cubic centimetre of air. */
const FIBRES = substanceTable(
	`
key | name | synonyms | cas | us | uk | rel | warning | organs | harm | note
asbestos | Asbestos, all forms | chrysotile;amosite;crocidolite | 1332-21-4 | 0.1/1 | 0.1/0.6 | 0.1 | none | lungs | carcinogen | Licensed work in most countries. UK control limit over 4 h, short-term over 10 min; US excursion over 30 min.
ceramic-fibre | Refractory ceramic fibre | RCF |  |  | 0.3 | 0.5 | none | lungs | carcinogen | Counted, as respirable fibres.
`,
	{ form: 'dust', organic: false, unit: 'f/cm3' }
);

/**
 * Biological agents have no limit: the group fixes the least factor.
 * Published: HSE, The Approved List of biological agents, and ACDP groups; the factors are common practice.
 */
const BIOLOGICAL: SubstanceRow[] = [
	{
		key: 'biological-2',
		name: 'Biological agent, group 2',
		synonyms: ['leptospira', 'sewage aerosol'],
		biologicalGroup: 2 as const
	},
	{
		key: 'legionella',
		name: 'Legionella',
		synonyms: ['legionnaires’ disease', 'cooling tower aerosol'],
		biologicalGroup: 2 as const
	},
	{
		key: 'mould',
		name: 'Mould spores',
		synonyms: ['mould', 'mold', 'fungal spores', 'mouldy hay'],
		biologicalGroup: 2 as const,
		harms: ['sensitiser' as const]
	},
	{
		key: 'biological-3',
		name: 'Biological agent, group 3',
		synonyms: ['tuberculosis', 'anthrax', 'psittacosis', 'avian influenza'],
		biologicalGroup: 3 as const
	},
	{
		key: 'biological-4',
		name: 'Biological agent, group 4',
		synonyms: ['haemorrhagic fever'],
		biologicalGroup: 4 as const
	}
].map((row) => ({
	...row,
	form: 'biological',
	organic: false,
	limits: {},
	warning: 'none',
	skin: false,
	note: 'No limit exists; the group fixes the least protection. The site’s biological risk assessment decides.'
}));

export const METALS_AND_DUSTS: SubstanceRow[] = [...PARTICLES, ...FIBRES, ...BIOLOGICAL];
