import { sql } from 'drizzle-orm';
import {
	boolean,
	check,
	date,
	doublePrecision,
	index,
	integer,
	jsonb,
	pgTable,
	serial,
	text,
	uniqueIndex,
	uuid
} from 'drizzle-orm/pg-core';
import type { AirSample } from '../../../../core/air/breathing-air.ts';
import {
	MATERIALS,
	type CylinderLocation,
	type CylinderMaterial
} from '../../../../core/air/cylinder.ts';
import { RIG_ALARMS, type RigAlarm } from '../../../../core/airline/rig.ts';
import type { Verdict } from '../../../../core/verdict.ts';
import { by, moment, oneOf } from './columns.ts';
import { item } from './register.ts';

/** One bank of a source, as it was installed. */
export interface SourceBank {
	waterVolumeL: number;
	fullBar: number;
}

/** Where breathing air comes from: a compressor with its banks, or banks that are brought full. */
export const airSource = pgTable(
	'air_source',
	{
		id: uuid('id').primaryKey(),
		name: text('name').notNull().unique(),
		kind: text('kind').$type<'compressor' | 'banks'>().notNull(),
		oilLubricated: boolean('oil_lubricated').notNull().default(false),
		/** In the order of the valves on the panel. */
		banks: jsonb('banks').$type<SourceBank[]>().notNull().default([]),
		/** It fills cylinders at the panel. */
		fills: boolean('fills').notNull().default(true)
	},
	(t) => [check('air_source_kind', sql`${t.kind} in ('compressor', 'banks')`)]
);

/** Work on a source: its air has to be tested anew. Append-only. */
export const airWork = pgTable(
	'air_work',
	{
		id: uuid('id').primaryKey(),
		sourceId: uuid('source_id')
			.notNull()
			.references(() => airSource.id),
		what: text('what').notNull(),
		doneAt: moment('done_at').notNull(),
		notedBy: by('noted_by')
	},
	(t) => [index('air_work_source').on(t.sourceId, t.doneAt)]
);

export type AirVerdict = Verdict<'pass' | 'fail' | 'incomplete'>;

/** A test of the air of a source, judged by both standards when it was entered. Append-only. */
export const airTest = pgTable(
	'air_test',
	{
		id: uuid('id').primaryKey(),
		sourceId: uuid('source_id')
			.notNull()
			.references(() => airSource.id),
		takenAt: moment('taken_at').notNull(),
		sample: jsonb('sample').$type<AirSample>().notNull(),
		en: jsonb('en').$type<AirVerdict>().notNull(),
		gradeD: jsonb('grade_d').$type<AirVerdict>().notNull(),
		/** By the standard of the site. */
		outcome: text('outcome').$type<AirVerdict['outcome']>().notNull(),
		laboratory: text('laboratory').notNull(),
		enteredBy: by('entered_by'),
		enteredAt: moment('entered_at').notNull()
	},
	(t) => [
		index('air_test_source').on(t.sourceId, t.takenAt),
		oneOf<AirVerdict['outcome']>('air_test_outcome', t.outcome, ['pass', 'fail', 'incomplete'])
	]
);

/** What is stamped on a cylinder, where it is, what was last read on it. */
export const cylinder = pgTable(
	'cylinder',
	{
		itemId: uuid('item_id')
			.primaryKey()
			.references(() => item.id),
		waterVolumeL: doublePrecision('water_volume_l').notNull(),
		ratedBar: integer('rated_bar').notNull(),
		maximumBar: integer('maximum_bar').notNull(),
		material: text('material').$type<CylinderMaterial>().notNull(),
		emptyKg: doublePrecision('empty_kg'),
		thread: text('thread').notNull().default(''),
		manufacturedOn: date('manufactured_on').notNull(),
		lifeEndsOn: date('life_ends_on'),
		testYears: integer('test_years'),
		location: text('location').$type<CylinderLocation>().notNull().default('rack'),
		/** Gauge; null: nobody knows. */
		pressureBar: doublePrecision('pressure_bar'),
		pressureAt: moment('pressure_at'),
		/** When it was last looked at inside. */
		insideAt: moment('inside_at'),
		/** When it was first read with too little pressure, since it last had enough. */
		emptyAt: moment('empty_at'),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		index('cylinder_location').on(t.location),
		oneOf('cylinder_material', t.material, MATERIALS),
		check('cylinder_volume', sql`${t.waterVolumeL} > 0 and ${t.waterVolumeL} <= 500`),
		check('cylinder_rated', sql`${t.ratedBar} between 20 and ${t.maximumBar}`),
		check('cylinder_pressure', sql`${t.pressureBar} between 0 and 450`),
		check('cylinder_place', sql`${t.location} in ('rack', 'filling', 'test house')`)
	]
);

/** Periodic tests of a cylinder. Append-only. */
export const cylinderTest = pgTable(
	'cylinder_test',
	{
		id: uuid('id').primaryKey(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		testedOn: date('tested_on').notNull(),
		passed: boolean('passed').notNull(),
		/** Of the test house, as it is on the cylinder. */
		stamp: text('stamp').notNull(),
		notedBy: by('noted_by'),
		notedAt: moment('noted_at').notNull()
	},
	(t) => [index('cylinder_test_item').on(t.itemId, t.testedOn)]
);

/** Fills of one source under one air test. */
export const fillBatch = pgTable(
	'fill_batch',
	{
		id: uuid('id').primaryKey(),
		number: serial('number').notNull().unique(),
		sourceId: uuid('source_id')
			.notNull()
			.references(() => airSource.id),
		airTestId: uuid('air_test_id')
			.notNull()
			.references(() => airTest.id),
		openedBy: by('opened_by'),
		openedAt: moment('opened_at').notNull(),
		closedAt: moment('closed_at')
	},
	(t) => [
		uniqueIndex('fill_batch_one_open')
			.on(t.sourceId)
			.where(sql`${t.closedAt} is null`)
	]
);

/** A point of a fill: seconds, cylinder in bar, its temperature. */
export interface FillPoint {
	s: number;
	bar: number;
	c: number;
}

/** A fill of one cylinder. It is written whole when it ends and not changed after. */
export const cylinderFill = pgTable(
	'cylinder_fill',
	{
		id: uuid('id').primaryKey(),
		batchId: uuid('batch_id')
			.notNull()
			.references(() => fillBatch.id),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		instrument: text('instrument').notNull(),
		startedBy: by('started_by'),
		startedAt: moment('started_at').notNull(),
		startBar: doublePrecision('start_bar').notNull(),
		endedAt: moment('ended_at'),
		endBar: doublePrecision('end_bar'),
		endC: doublePrecision('end_c'),
		/** What it comes to at 15 °C. */
		settledBar: doublePrecision('settled_bar'),
		outcome: text('outcome').$type<'full' | 'short'>(),
		banksBar: jsonb('banks_bar').$type<number[]>(),
		trace: jsonb('trace').$type<FillPoint[]>()
	},
	(t) => [
		index('cylinder_fill_item').on(t.itemId, t.endedAt),
		index('cylinder_fill_batch').on(t.batchId),
		/** One panel, one cylinder on it. */
		uniqueIndex('cylinder_fill_one_open')
			.on(sql`(${t.endedAt} is null)`)
			.where(sql`${t.endedAt} is null`),
		oneOf('cylinder_fill_outcome', t.outcome, ['full', 'short']),
		check('cylinder_fill_ended_whole', sql`(${t.endedAt} is null) = (${t.outcome} is null)`)
	]
);

/** How an airline rig is put together. */
export const airlineRig = pgTable(
	'airline_rig',
	{
		itemId: uuid('item_id')
			.primaryKey()
			.references(() => item.id),
		sourceId: uuid('source_id')
			.notNull()
			.references(() => airSource.id),
		dryer: text('dryer').notNull().default(''),
		/** Months that its maker gives the sorbent; null: there is none. */
		sorbentMonths: integer('sorbent_months'),
		alarm: text('alarm').$type<RigAlarm>().notNull().default('none'),
		alarmPpm: doublePrecision('alarm_ppm'),
		alarmDays: integer('alarm_days').notNull().default(30),
		regulatorBar: doublePrecision('regulator_bar').notNull(),
		boreMm: doublePrecision('bore_mm').notNull(),
		lengthM: doublePrecision('length_m').notNull(),
		fittingsM: doublePrecision('fittings_m').notNull().default(0),
		outlets: integer('outlets').notNull(),
		leastBar: doublePrecision('least_bar').notNull(),
		wearing: text('wearing').$type<'tight-fitting' | 'hood'>().notNull().default('tight-fitting'),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		oneOf('airline_rig_alarm', t.alarm, RIG_ALARMS),
		oneOf('airline_rig_wearing', t.wearing, ['tight-fitting', 'hood'])
	]
);

/** Changes of sorbent and tests of the alarm of a rig, each with who and when: the tag. Append-only. */
export const rigEvent = pgTable(
	'rig_event',
	{
		id: uuid('id').primaryKey(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		kind: text('kind').$type<'sorbent' | 'alarm'>().notNull(),
		doneOn: date('done_on').notNull(),
		passed: boolean('passed').notNull().default(true),
		note: text('note').notNull().default(''),
		doneBy: by('done_by'),
		notedAt: moment('noted_at').notNull()
	},
	(t) => [
		index('rig_event_item').on(t.itemId, t.kind, t.doneOn),
		oneOf('rig_event_kind', t.kind, ['sorbent', 'alarm'])
	]
);
