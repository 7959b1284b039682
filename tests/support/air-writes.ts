import { randomUUID } from 'node:crypto';
import { noteRigEvent, saveRig } from '../../src/lib/server/air/airlines.ts';
import {
	bringCylinder,
	noteCylinderTest,
	noteInside,
	notePressure,
	saveCylinder
} from '../../src/lib/server/air/cylinders.ts';
import {
	enterTeam,
	leave,
	seeAlarm,
	tellPressure,
	turnTeam
} from '../../src/lib/server/air/entries.ts';
import {
	finishFill,
	openBank,
	pumpBank,
	rejectCylinder,
	startFill
} from '../../src/lib/server/air/fills.ts';
import { simulatePanel } from '../../src/lib/server/air/panel.ts';
import { changeWearer } from '../../src/lib/server/air/simulated-wearers.ts';
import { addSource, enterAirTest, noteWork } from '../../src/lib/server/air/sources.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import type { Role } from '../../src/lib/server/kernel/permissions.ts';
import { GOOD_AIR, STAMP } from './air.ts';

const id = () => randomUUID();
const tag = 'HM-0001';
const NOWHERE = '127.0.0.1:9';
const RIG = {
	tag,
	version: null,
	sourceId: id(),
	dryer: '',
	sorbentMonths: null,
	alarm: 'none' as const,
	alarmPpm: null,
	alarmDays: 30,
	regulatorBar: 6,
	boreMm: 13,
	lengthM: 10,
	fittingsM: 0,
	outlets: 1,
	leastBar: 4,
	wearing: 'hood' as const
};
const DAY = '2026-11-01';

type Write = (c: Context) => Promise<unknown>;

/** Every write of the air section, with the least role that may do it. */
export const AIR_WRITES: [name: string, least: Role, write: Write][] = (
	[
		[
			'enter a stamp',
			(c) => saveCylinder(c, { requestId: randomUUID(), tag, version: null, ...STAMP })
		],
		[
			'note a periodic test',
			(c) => noteCylinderTest(c, { id: id(), tag, testedOn: DAY, passed: true, stamp: 'x' })
		],
		['note a pressure', (c) => notePressure(c, { requestId: randomUUID(), tag, pressureBar: 1 })],
		['note a look inside', (c) => noteInside(c, { requestId: randomUUID(), tag })],
		['bring a cylinder', (c) => bringCylinder(c, { requestId: randomUUID(), tag, to: 'rack' })],
		[
			'add a source of air',
			(c) =>
				addSource(c, {
					id: id(),
					name: id(),
					kind: 'banks' as const,
					banks: [],
					oilLubricated: false,
					fills: false
				})
		],
		[
			'enter an air test',
			(c) =>
				enterAirTest(c, {
					id: id(),
					sourceId: id(),
					takenAt: new Date(0),
					laboratory: 'x',
					sample: GOOD_AIR
				})
		],
		['note work on a source', (c) => noteWork(c, { id: id(), sourceId: id(), what: 'x' })],
		['start a fill', (c) => startFill(c, NOWHERE, { id: id(), tag, sourceId: id(), looked: true })],
		[
			'open a bank',
			(c) => openBank(c, NOWHERE, { requestId: randomUUID(), fillId: id(), bank: 1 })
		],
		['pump a bank', (c) => pumpBank(c, NOWHERE, { requestId: randomUUID(), bank: 1 })],
		['end a fill', (c) => finishFill(c, NOWHERE, { requestId: randomUUID(), id: id() })],
		['reject a cylinder', (c) => rejectCylinder(c, { id: id(), tag, step: 'x', code: 'LABEL' })],
		['tell the simulated panel', (c) => simulatePanel(c, NOWHERE, { speed: 1, fault: 'none' })],
		['send a team in', (c) => enterTeam(c, { id: id(), task: 'x', placeId: null, wearers: [] })],
		[
			'tell a pressure',
			(c) => tellPressure(c, { id: id(), wearerId: id(), bar: 1, corrects: false })
		],
		['turn a team', (c) => turnTeam(c, { requestId: randomUUID(), teamId: id() })],
		['take a wearer out', (c) => leave(c, { requestId: randomUUID(), wearerId: id(), endBar: 1 })],
		['see an alarm', (c) => seeAlarm(c, { requestId: randomUUID(), wearerId: id(), key: 'x' })],
		[
			'tell a simulated wearer',
			(c) => changeWearer(c, NOWHERE, { channel: 'T', lPerMin: 1, fault: 'none', speed: 1 })
		],
		['put a rig together', (c) => saveRig(c, { requestId: randomUUID(), ...RIG })],
		[
			'sign the tag of a rig',
			(c) =>
				noteRigEvent(c, {
					id: id(),
					tag,
					kind: 'alarm' as const,
					doneOn: DAY,
					passed: true,
					note: ''
				})
		]
	] as [string, Write][]
).map(([name, write]) => [name, 'technician', write]);
