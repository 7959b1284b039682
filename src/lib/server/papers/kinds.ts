import { z } from 'zod';
import type { Context } from '../kernel/context.ts';
import { airPaper, batchPaper, cylinderPaper } from './air-and-wash.ts';
import { benchPaper, inspectionPaper, itemPaper, repairPaper } from './equipment.ts';
import type { Paper } from './paper.ts';

const byId = z.uuid();
const byTag = z.string().trim().min(1).max(60);

/** Everything that there is a paper of: how it is named, and what it says. */
export const PAPERS: Readonly<
	Record<string, { id: z.ZodType<string>; of: (context: Context, id: string) => Promise<Paper> }>
> = {
	inspection: { id: byId, of: inspectionPaper },
	'bench-test': { id: byId, of: benchPaper },
	repair: { id: byId, of: repairPaper },
	'air-test': { id: byId, of: airPaper },
	'wash-batch': { id: byId, of: batchPaper },
	cylinder: { id: byTag, of: cylinderPaper },
	item: { id: byTag, of: itemPaper }
};
