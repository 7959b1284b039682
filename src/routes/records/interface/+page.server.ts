import { z } from 'zod';
import { OPERATIONS } from '$core/calc/registry';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = () => ({
	operations: OPERATIONS.map((op) => ({
		name: op.name,
		description: op.description,
		input: JSON.stringify(
			z.toJSONSchema(op.input, { io: 'input', unrepresentable: 'any' }),
			null,
			2
		),
		output: JSON.stringify(
			z.toJSONSchema(op.output, { io: 'output', unrepresentable: 'any' }),
			null,
			2
		)
	}))
});
