import { randomUUID as id } from 'node:crypto';
import {
	beginBatch,
	giveUpBatch,
	intoBatch,
	outOfBatch,
	readBath,
	stepBatch
} from '../../src/lib/server/care/batches.ts';
import { lookOver } from '../../src/lib/server/care/look-over.ts';
import { closeStock, openStock } from '../../src/lib/server/care/stock.ts';
import { bringItem, wipeItem } from '../../src/lib/server/custody/bring-back.ts';
import { breakSeal, sealItem } from '../../src/lib/server/custody/seals.ts';
import { returnItem } from '../../src/lib/server/custody/returns.ts';
import { handOutItems } from '../../src/lib/server/handout/hand-out.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import type { Role } from '../../src/lib/server/kernel/permissions.ts';

const asked = () => ({ id: id(), wearerId: id(), tags: ['HM-0001'], planId: null, minutes: null });
const batch = () => ({ requestId: id(), batchId: id() });

/** Every write of the counter and the wash line that a service offers, with the least role that may do it. */
export const CUSTODY_WRITES: [
	name: string,
	least: Role,
	write: (c: Context) => Promise<unknown>
][] = [
	['hand out', 'technician', (c) => handOutItems(c, asked())],
	[
		'hand out against the gate',
		'supervisor',
		(c) => handOutItems(c, { ...asked(), override: 'Rescue.' })
	],
	['bring back', 'technician', (c) => returnItem(c, { id: id(), tag: 'HM-0001' })],
	['put away', 'technician', (c) => bringItem(c, { requestId: id(), tag: 'HM-0001', to: 'shelf' })],
	['seal', 'technician', (c) => sealItem(c, { requestId: id(), tag: 'HM-0001', number: '1' })],
	['break a seal', 'viewer', (c) => breakSeal(c, { requestId: id(), tag: 'HM-0001', why: 'x' })],
	['wipe', 'technician', (c) => wipeItem(c, { id: id(), tag: 'HM-0001' })],
	['begin a batch', 'technician', (c) => beginBatch(c, { id: id(), cleaner: 'neutral' })],
	['scan into a batch', 'technician', (c) => intoBatch(c, { ...batch(), tag: 'HM-0001' })],
	['take out of a batch', 'technician', (c) => outOfBatch(c, { ...batch(), tag: 'HM-0001' })],
	[
		'read a bath',
		'technician',
		(c) => readBath(c, { id: id(), batchId: id(), celsius: 40, measured: false })
	],
	['go on with a batch', 'technician', (c) => stepBatch(c, { ...batch(), to: 'wash' })],
	['give a batch up', 'technician', (c) => giveUpBatch(c, { ...batch(), why: 'x' })],
	['look over', 'technician', (c) => lookOver(c, { id: id(), tag: 'HM-0001', faults: [] })],
	[
		'open stock',
		'technician',
		(c) =>
			openStock(c, {
				id: id(),
				name: `C ${id().slice(0, 6)}`,
				agent: 'chlorine',
				percent: 5,
				strengthAs: 'available chlorine',
				openedOn: '2026-11-01',
				halfLifeDays: null,
				expiresOn: null,
				leftMl: 100,
				labelMin: null
			})
	],
	['take stock away', 'technician', (c) => closeStock(c, { requestId: id(), id: id(), version: 1 })]
];
