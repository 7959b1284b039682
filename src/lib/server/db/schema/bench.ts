import { sql } from 'drizzle-orm';
import {
	check,
	doublePrecision,
	index,
	integer,
	jsonb,
	pgTable,
	primaryKey,
	text,
	timestamp,
	uniqueIndex,
	uuid
} from 'drizzle-orm/pg-core';
import type { TestOutcome } from '../../../../core/bench/breathing-apparatus.ts';
import type { TraceSample } from '../../../../core/bench/trace.ts';
import type { Reason } from '../../../../core/verdict.ts';
import { user } from './accounts.ts';
import { bytes } from './bytes.ts';
import { oneOf } from './columns.ts';
import { item } from './register.ts';

/** A test on the bench. Its readings are in chunks of their own; its verdict is never changed once given. */
export const benchTest = pgTable(
	'bench_test',
	{
		id: uuid('id').primaryKey(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		recipe: text('recipe').notNull(),
		recipeVersion: integer('recipe_version').notNull(),
		/** What the instrument calls itself, or the name of the file it came from. */
		instrument: text('instrument').notNull(),
		volumeL: doublePrecision('volume_l'),
		startedBy: text('started_by')
			.notNull()
			.references(() => user.id),
		startedAt: timestamp('started_at', { withTimezone: true }).notNull(),
		/**
		 * When the bench obeyed; what it holds before that are the readings of another test. Null for a trace from
		 * a file.
		 */
		begunAt: timestamp('begun_at', { withTimezone: true }),
		endedAt: timestamp('ended_at', { withTimezone: true }),
		outcome: text('outcome').$type<TestOutcome>(),
		reasons: jsonb('reasons').$type<Reason[]>(),
		leakPaPerMin: doublePrecision('leak_pa_per_min'),
		startPa: doublePrecision('start_pa'),
		correctedEndPa: doublePrecision('corrected_end_pa'),
		/** Which bench of the list runs it; null for a trace from a file. */
		bench: integer('bench'),
		/** The whole trace once it has ended, columns of numbers as text, deflated; the chunks go then. */
		trace: bytes('trace')
	},
	(t) => [
		index('bench_test_item').on(t.itemId, t.startedAt),
		index('bench_test_started').on(t.startedAt),
		index('bench_test_open').on(t.endedAt),
		uniqueIndex('bench_test_one_at_a_time')
			.on(t.bench)
			.where(sql`${t.endedAt} is null`),
		oneOf<TestOutcome>('bench_test_outcome', t.outcome, [
			'pass',
			'pass, marginal',
			'fail',
			'repeat'
		]),
		check('bench_test_ended_whole', sql`(${t.endedAt} is null) = (${t.outcome} is null)`)
	]
);

/** Readings as they came, in order. Append-only until the trace of the test is written whole. */
export const benchChunk = pgTable(
	'bench_chunk',
	{
		testId: uuid('test_id')
			.notNull()
			.references(() => benchTest.id),
		/** Index of its first reading. */
		first: integer('first').notNull(),
		samples: jsonb('samples').$type<TraceSample[]>().notNull()
	},
	(t) => [primaryKey({ columns: [t.testId, t.first] })]
);
