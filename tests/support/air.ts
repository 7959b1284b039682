import { randomUUID } from 'node:crypto';
import type { AirSample } from '../../src/core/air/breathing-air.ts';
import type { CylinderData } from '../../src/core/air/cylinder.ts';
import {
	noteCylinderTest,
	notePressure,
	saveCylinder
} from '../../src/lib/server/air/cylinders.ts';
import { addSource, enterAirTest } from '../../src/lib/server/air/sources.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import type { SmallSite, TestDatabase } from './database.ts';
import { addPiece } from './yard.ts';

export const STAMP: CylinderData = {
	waterVolumeL: 6.8,
	ratedBar: 300,
	maximumBar: 450,
	material: 'composite',
	emptyKg: 3.9,
	thread: 'M18 × 1.5',
	manufacturedOn: '2022-05-31',
	lifeEndsOn: null,
	testYears: null
};

/** A cylinder with its data, tested, with some pressure left in it. */
export async function addCylinder(
	test: TestDatabase,
	yard: SmallSite,
	tag: string,
	part: Partial<CylinderData> & { bar?: number | null; testedOn?: string } = {}
): Promise<string> {
	const { bar = 40, testedOn = '2024-05-01', ...data } = part;
	const { id } = await addPiece(test, yard, 'cylinder', tag);
	const context = yard.as(yard.people.technician);
	await saveCylinder(context, { requestId: randomUUID(), tag, version: null, ...STAMP, ...data });
	const stamp = { id: randomUUID(), tag, testedOn, passed: true, stamp: 'TH 3' };
	await noteCylinderTest(context, stamp);
	if (bar !== null) await notePressure(context, { requestId: randomUUID(), tag, pressureBar: bar });
	return id;
}

export const GOOD_AIR: AirSample = {
	oxygenPercent: 20.9,
	coPpm: 1,
	co2Ppm: 380,
	oilMgPerM3: 0.1,
	waterMgPerM3: 18,
	odour: false,
	sampledAt: 'filling outlet',
	pressureBar: 300
};

/** A compressor with three banks, tested or not. */
export async function addCompressor(
	context: Context,
	name: string,
	tested: Date | null
): Promise<string> {
	const id = randomUUID();
	await addSource(context, {
		id,
		name,
		kind: 'compressor',
		oilLubricated: true,
		fills: true,
		banks: [200, 250, 300].map(() => ({ waterVolumeL: 50, fullBar: 300 }))
	});
	if (tested) await testAir(context, id, tested);
	return id;
}

export const testAir = (context: Context, sourceId: string, takenAt: Date, part = {}) =>
	enterAirTest(context, {
		id: randomUUID(),
		sourceId,
		takenAt,
		laboratory: 'Test bench',
		sample: { ...GOOD_AIR, ...part }
	});
