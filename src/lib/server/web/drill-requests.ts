import { z } from 'zod';
import { endExam, keepDrill } from '../drill/sessions.ts';
import { keepTest } from '../drill/tests.ts';
import type { Context } from '../kernel/context.ts';
import { clientId, parse } from './request.ts';
import { readingsBody } from './run-requests.ts';

const stepKey = z.string().max(60);
const code = z.string().max(12);
const answers = z
	.array(
		z.object({
			step: stepKey,
			value: z.enum(['good', 'reject', 'not fitted', 'cleared']),
			code: code.nullable(),
			readings: readingsBody.nullish()
		})
	)
	.max(400);
const share = z.number().min(0).max(1);
const handed = z.object({
	seed: z.number().int(),
	level: z.union([z.literal(1), z.literal(2), z.literal(3)]),
	faults: z.array(z.object({ step: stepKey, code })).max(10),
	near: z.array(stepKey).max(10),
	vary: z.record(stepKey, z.object({ amount: share, at: share })),
	readings: z.record(stepKey, readingsBody)
});
const walked = z.object({
	id: clientId,
	mode: z.enum(['learn', 'drill']),
	procedure: z.string().max(60),
	version: z.number().int().min(1),
	handed,
	answers,
	seconds: z.number().min(0).max(86_400)
});
const answeredTest = z.object({
	id: clientId,
	test: z.string().max(40),
	seed: z.number().int(),
	chosen: z.array(z.number().int().min(0).max(9)).max(20)
});
const ended = z.object({ id: clientId, examId: clientId, answers });

/** What the trainer takes from a page, at once or later from its outbox: by the last part of its address. */
export const DRILL_REQUESTS = {
	sessions: (context: Context, body: unknown) => keepDrill(context, parse(walked, body)),
	tests: (context: Context, body: unknown) => keepTest(context, parse(answeredTest, body)),
	exams: (context: Context, body: unknown) => endExam(context, parse(ended, body))
};
export type DrillRequest = keyof typeof DRILL_REQUESTS;
export const DRILL_URL = /^\/api\/drill\/(sessions|exams|tests)$/;
