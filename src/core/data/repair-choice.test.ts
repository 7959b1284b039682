import { describe, expect, it } from 'vitest';
import { FAMILIES } from './families.ts';
import { PROCEDURES } from './procedures.ts';
import { REJECT_CODES } from './reject-codes.ts';
import { repairFor } from './repair-choice.ts';
import { PARTS, REPAIRS, repairsOf } from './repairs.ts';

const MASKS = ['half-mask', 'full-face', 'canister-mask'];
const SUITS = ['gas-tight-suit', 'ventilated-suit'];
/** Every code at every station of every family. */
const EVERY = FAMILIES.flatMap(({ family, stations }) =>
	stations.flatMap(({ key }) =>
		REJECT_CODES.map(({ code }) => ({
			family,
			station: key,
			code,
			repair: repairFor(code, key, family)
		}))
	)
);
const where = (test: (one: (typeof EVERY)[number]) => boolean) =>
	EVERY.filter(test).map(
		({ family, station, code, repair }) => `${family} ${station} ${code}: ${repair.key}`
	);

// Common practice: the repair follows code, station and family; the maker's manual comes first.
describe('the repair of a fault', () => {
	it('is one that the family can have, at every code and every station', () => {
		expect(EVERY.length).toBeGreaterThan(5000);
		expect(where(({ family, repair }) => !repair.families.includes(family))).toEqual([]);
	});

	it('never gives a valve disc for anything but a valve', () =>
		expect(
			where(
				({ station, repair }) =>
					repair.key === 'replace-disc' && !/inhalation|exhalation|exhaust/.test(station)
			)
		).toEqual([]));

	it('ends a half mask whose sealing edge is torn, and gives a full-face mask a new seal', () => {
		for (const code of ['TEAR', 'CRK', 'DIST', 'STIFF', 'STICKY']) {
			expect(repairFor(code, 'facepiece', 'half-mask').key).toBe('retire');
			expect(repairFor(code, 'facepiece', 'full-face').key).toBe('replace-face-seal');
		}
	});

	it('sends a rusted, dented or charred cylinder to the test house, and never to filters', () => {
		for (const code of ['RUST', 'DENTC', 'FIBRE', 'STAMP', 'EMPTY'])
			expect(
				repairFor(
					code,
					code === 'STAMP' ? 'stamp' : code === 'EMPTY' ? 'valve' : 'body',
					'cylinder'
				).key
			).toBe('test-house');
		expect(
			where(
				({ family, repair }) =>
					repair.key === 'replace-filters' &&
					!['half-mask', 'full-face', 'canister-mask', 'powered-blower'].includes(family)
			)
		).toEqual([]);
	});

	it('wipes breathing apparatus and never washes it', () => {
		expect(
			where(
				({ family, repair }) => repair.key === 'clean' && ![...MASKS, ...SUITS].includes(family)
			)
		).toEqual([]);
		for (const station of ['demand', 'reducer', 'frame', 'harness'])
			expect(repairFor('DIRTY', station, 'ba-set').key).toBe('wipe');
	});

	it.each([
		['BOOT', 'boots', 'replace-boots'],
		['HOLE', 'boots', 'replace-boots'],
		['ZIPV', 'zip', 'replace-zip'],
		['WAX', 'zip', 'wax-zip'],
		['GLOVE', 'gloves-left', 'replace-gloves'],
		['ORNG', 'gloves-right', 'replace-orings'],
		['SEAM', 'crotch', 'suit-repair'],
		['CHEM', 'sleeves', 'retire']
	])('gas-tight suit, %s at %s: %s', (code, station, repair) =>
		expect(repairFor(code, station, 'gas-tight-suit').key).toBe(repair)
	);

	it.each([
		['half-mask', 'prefilter-left', 'ONCE', 'replace-adapter'],
		['full-face', 'cup', 'MISS', 'replace-cup'],
		['full-face', 'lens', 'BOND', 'replace-face-seal'],
		['full-face', 'diaphragm', 'DIAPH', 'replace-diaphragm'],
		['half-mask', 'harness', 'CRK', 'replace-cradle'],
		['full-face', 'gasket-left', 'DISC', 'replace-closing-disc'],
		['full-face', 'insert', 'LOOSE', 'replace-insert'],
		['canister-mask', 'canister', 'RATTLE', 'replace-canister'],
		['powered-blower', 'battery', 'RUST', 'replace-battery'],
		['powered-blower', 'hose', 'CUT', 'replace-blower-hose'],
		['airline', 'alarm', 'ALRM', 'replace-co-alarm'],
		['half-mask', 'exhalation', 'CURL', 'replace-disc'],
		['ba-set', 'cylinder', 'FILL', 'refill'],
		['ba-set', 'cylinder', 'STAMP', 'change-cylinder'],
		['opened-filter', 'body', 'RATTLE', 'discard-filter']
	])('%s, %s, %s: %s', (family, station, code, repair) =>
		expect(repairFor(code, station, family).key).toBe(repair)
	);

	it('does not end what a part can mend, at the faults that the lists ask for', () => {
		const ended = PROCEDURES.flatMap((p) =>
			p.steps.flatMap((s) =>
				s.rejects
					.filter((code) => repairFor(code, s.station, p.family).retires)
					.map((code) => `${p.family} ${s.station} ${code}`)
			)
		);
		// What is left is the body of a half mask, a suit attacked through, a filter, a cylinder past its life.
		for (const line of ended)
			expect(line).toMatch(
				/^(half-mask (facepiece|label)|gas-tight-suit (sleeves|crotch|visor)|ventilated-suit (label|body)|opened-filter|cylinder stamp)/
			);
	});
});

describe('the jobs', () => {
	it('name families that exist, parts that the store keeps, and a proof for each', () => {
		const families = new Set(FAMILIES.map(({ family }) => family));
		for (const repair of REPAIRS) {
			expect(repair.families.length, repair.key).toBeGreaterThan(0);
			for (const family of repair.families) expect(families, repair.key).toContain(family);
			for (const { part, quantity } of repair.parts) {
				expect(PARTS, repair.key).toHaveProperty(part);
				expect(quantity).toBeGreaterThan(0);
			}
			expect(repair.proof.length, repair.key).toBeGreaterThan(0);
			expect(repair.steps.length, repair.key).toBeGreaterThan(0);
		}
		expect(new Set(REPAIRS.map(({ key }) => key)).size).toBe(REPAIRS.length);
	});

	it('are each the usual one of some fault, and every family can be ended', () => {
		const used = new Set(EVERY.map(({ repair }) => repair.key));
		expect(REPAIRS.filter(({ key }) => !used.has(key)).map(({ key }) => key)).toEqual([]);
		for (const { family } of FAMILIES)
			expect(repairsOf(family).some(({ retires }) => retires)).toBe(true);
	});

	it('that are small are those that nobody has to look at again', () =>
		expect(REPAIRS.filter(({ small }) => small).map(({ key }) => key)).toEqual([
			'replace-bag',
			'refit',
			'wipe',
			'relabel',
			'recharge',
			'refill'
		]));
});
