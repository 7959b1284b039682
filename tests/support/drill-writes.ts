import { randomUUID as id } from 'node:crypto';
import { procedureFor } from '../../src/core/data/procedures.ts';
import { handOver } from '../../src/core/drill/hand-over.ts';
import { beginExam, endExam, keepDrill } from '../../src/lib/server/drill/sessions.ts';
import { keepTest } from '../../src/lib/server/drill/tests.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import type { Role } from '../../src/lib/server/kernel/permissions.ts';

const procedure = procedureFor('half-mask');

/** Every write of the trainer that a service offers, with the least role that may do it. */
export const DRILL_WRITES: [name: string, least: Role, write: (c: Context) => Promise<unknown>][] =
	[
		[
			'keep a drill',
			'viewer',
			(c) =>
				keepDrill(c, {
					id: id(),
					mode: 'drill',
					procedure: procedure.key,
					version: procedure.version,
					handed: handOver({ procedure, seed: 1, level: 1 }),
					answers: [],
					seconds: 1
				})
		],
		[
			'begin an exam',
			'viewer',
			(c) =>
				beginExam(c, {
					id: id(),
					family: 'half-mask',
					level: 2,
					supervisor: { id: 'another', name: 'Another', role: 'supervisor' }
				})
		],
		[
			'keep a short test',
			'viewer',
			(c) => keepTest(c, { id: id(), test: 'mistakes', seed: 1, chosen: [] })
		],
		['end an exam', 'viewer', (c) => endExam(c, { id: id(), examId: id(), answers: [] })]
	];
