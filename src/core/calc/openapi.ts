import { z } from 'zod';
import { OPERATIONS } from './registry.ts';

/** The OpenAPI 3.1 description of the calculation interface, made from the same schemas that check it. */
export function openApi(version: string): object {
	const paths = Object.fromEntries(
		OPERATIONS.map((op) => [
			`/api/v1/calc/${op.name}`,
			{
				post: {
					operationId: op.name,
					summary: op.description,
					requestBody: { required: true, content: json(schema(op.input, 'input')) },
					responses: {
						'200': { description: 'The result', content: json(schema(op.output, 'output')) },
						'401': { description: 'Not signed in and no API key' },
						'422': { description: 'Bad input, located', content: json(errorSchema) }
					}
				}
			}
		])
	);
	return {
		openapi: '3.1.0',
		info: {
			title: 'Grevan calculation interface',
			version,
			description:
				'Every judgement and number of the core. It supports a competent person and does not replace one.'
		},
		paths,
		components: {
			securitySchemes: {
				session: { type: 'apiKey', in: 'cookie', name: 'grevan.session_token' },
				key: { type: 'apiKey', in: 'header', name: 'x-api-key' }
			}
		},
		security: [{ session: [] }, { key: [] }]
	};
}

const schema = (type: z.ZodType, io: 'input' | 'output') =>
	z.toJSONSchema(type, { io, unrepresentable: 'any' });
const json = (content: object) => ({ 'application/json': { schema: content } });
const errorSchema = {
	type: 'object',
	properties: {
		error: {
			type: 'object',
			properties: {
				code: { type: 'string' },
				issues: {
					type: 'array',
					items: {
						type: 'object',
						properties: { path: { type: 'string' }, message: { type: 'string' } }
					}
				}
			}
		}
	}
};
