import { sql } from 'drizzle-orm';
import {
	boolean,
	check,
	doublePrecision,
	index,
	integer,
	pgTable,
	serial,
	text,
	uniqueIndex,
	uuid
} from 'drizzle-orm/pg-core';
import type { AlarmKind, EntryReading } from '../../../../core/air/entry.ts';
import { user } from './accounts.ts';
import { by, moment, oneOf } from './columns.ts';
import { item, place } from './register.ts';

/** A team that went in together. */
export const entryTeam = pgTable(
	'entry_team',
	{
		id: uuid('id').primaryKey(),
		number: serial('number').notNull().unique(),
		task: text('task').notNull(),
		placeId: uuid('place_id').references(() => place.id),
		marginMin: integer('margin_min').notNull(),
		openedBy: by('opened_by'),
		openedAt: moment('opened_at').notNull(),
		turnedAt: moment('turned_at'),
		closedAt: moment('closed_at')
	},
	(t) => [
		index('entry_team_open')
			.on(t.openedAt)
			.where(sql`${t.closedAt} is null`)
	]
);

/** A wearer of a team, with the set as it went in and as it came out. */
export const entryWearer = pgTable(
	'entry_wearer',
	{
		id: uuid('id').primaryKey(),
		teamId: uuid('team_id')
			.notNull()
			.references(() => entryTeam.id),
		wearer: text('wearer').notNull(),
		/** The set worn, where it has a tag. */
		setId: uuid('set_id').references(() => item.id),
		waterVolumeL: doublePrecision('water_volume_l').notNull(),
		startBar: doublePrecision('start_bar').notNull(),
		warningBar: doublePrecision('warning_bar').notNull(),
		expectedLPerMin: doublePrecision('expected_l_per_min').notNull(),
		/** Name of its telemetry; null: the gauge is told by hand. */
		channel: text('channel'),
		startedAt: moment('started_at').notNull(),
		endedAt: moment('ended_at'),
		endBar: doublePrecision('end_bar')
	},
	(t) => [
		index('entry_wearer_team').on(t.teamId),
		index('entry_wearer_set').on(t.setId),
		index('entry_wearer_name').on(t.wearer, t.endedAt),
		uniqueIndex('entry_wearer_set_once')
			.on(t.setId)
			.where(sql`${t.endedAt} is null`),
		uniqueIndex('entry_wearer_channel_once')
			.on(t.channel)
			.where(sql`${t.endedAt} is null`),
		uniqueIndex('entry_wearer_once')
			.on(t.wearer)
			.where(sql`${t.endedAt} is null`),
		check('entry_wearer_ended_whole', sql`(${t.endedAt} is null) = (${t.endBar} is null)`),
		check('entry_wearer_falls', sql`${t.endBar} <= ${t.startBar}`)
	]
);

/** Every pressure that was told or sent. Append-only. */
export const entryReading = pgTable(
	'entry_reading',
	{
		seq: serial('seq').primaryKey(),
		/** Made by the client, so that one told twice is once. */
		id: uuid('id').notNull().unique(),
		wearerId: uuid('wearer_id')
			.notNull()
			.references(() => entryWearer.id),
		at: moment('at').notNull(),
		bar: doublePrecision('bar').notNull(),
		by: text('by').$type<EntryReading['by']>().notNull(),
		corrects: boolean('corrects').notNull().default(false)
	},
	(t) => [
		index('entry_reading_wearer').on(t.wearerId, t.at),
		oneOf<EntryReading['by']>('entry_reading_by', t.by, ['hand', 'telemetry'])
	]
);

/** Alarms as they fell due, and who has seen them. */
export const entryAlarm = pgTable(
	'entry_alarm',
	{
		id: uuid('id').primaryKey(),
		wearerId: uuid('wearer_id')
			.notNull()
			.references(() => entryWearer.id),
		kind: text('kind').$type<AlarmKind>().notNull(),
		key: text('key').notNull(),
		dueAt: moment('due_at').notNull(),
		raisedAt: moment('raised_at').notNull(),
		seenBy: text('seen_by').references(() => user.id),
		seenAt: moment('seen_at')
	},
	(t) => [
		uniqueIndex('entry_alarm_once').on(t.wearerId, t.key),
		oneOf<AlarmKind>('entry_alarm_kind', t.kind, [
			'check gauge',
			'telemetry lost',
			'turn back',
			'be out',
			'warning'
		])
	]
);
