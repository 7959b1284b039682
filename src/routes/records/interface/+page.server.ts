import { z } from 'zod';
import { OPERATIONS } from '$core/calc/registry';
import { REGISTER_KEYS, REGISTERS } from '$core/records/registers';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = () => ({
	registers: REGISTER_KEYS.map((key) => ({ key, what: REGISTERS[key].what })),
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
