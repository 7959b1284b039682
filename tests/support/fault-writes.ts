import { randomUUID as id } from 'node:crypto';
import { addFaultPhoto } from '../../src/lib/server/faults/photos.ts';
import { lookInto, recallParts } from '../../src/lib/server/faults/recalls.ts';
import { notConfirmed, reportByHand, takeReportBack } from '../../src/lib/server/faults/reports.ts';
import { lookIntoAlarm } from '../../src/lib/server/teach/clusters.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import type { Role } from '../../src/lib/server/kernel/permissions.ts';

/** Every write on faults and recalls that a service offers, with the least role that may do it. */
export const FAULT_WRITES: [name: string, least: Role, write: (c: Context) => Promise<unknown>][] =
	[
		[
			'write a fault down',
			'viewer',
			(c) => reportByHand(c, { id: id(), tag: 'HM-0001', station: 'exhalation', code: 'CURL' })
		],
		[
			'keep a picture of a fault',
			'viewer',
			(c) => addFaultPhoto(c, { id: id(), defectId: id(), bytes: new TextEncoder().encode('x') })
		],
		[
			'take a report back',
			'viewer',
			(c) => takeReportBack(c, { requestId: id(), reportId: id(), why: 'x' })
		],
		[
			'not confirm a fault',
			'supervisor',
			(c) => notConfirmed(c, { requestId: id(), defectId: id(), why: 'x' })
		],
		['call a lot back', 'technician', (c) => recallParts(c, { id: id(), lotId: id(), why: 'x' })],
		[
			'look into a recall',
			'technician',
			(c) => lookInto(c, { requestId: id(), recallId: id(), tag: 'HM-0001', found: 'x' })
		],
		[
			'look into an alarm',
			'technician',
			(c) => lookIntoAlarm(c, { requestId: id(), alarmId: id(), found: 'x' })
		]
	];
