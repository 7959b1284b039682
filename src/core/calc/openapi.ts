import { z } from 'zod';
import {
	REGISTER_KEYS,
	REGISTER_PAGE,
	type Register,
	REGISTERS,
	rowSchema
} from '../records/registers.ts';
import { OPERATIONS } from './registry.ts';

/** The OpenAPI 3.1 description of the interface, made from the same schemas that check it. */
export function openApi(version: string): object {
	const calculations = Object.fromEntries(
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
			title: 'Grevan interface',
			version,
			description:
				'Every judgement and number of the core, and what the record holds, to be read. It supports a competent person and does not replace one.'
		},
		paths: { ...calculations, ...registerPaths() },
		components: {
			securitySchemes: {
				session: { type: 'apiKey', in: 'cookie', name: 'grevan.session_token' },
				key: { type: 'apiKey', in: 'header', name: 'x-api-key' }
			}
		},
		security: [{ session: [] }, { key: [] }]
	};
}

/** Reading a register page by page: a key needs to reach as far as reading, its person to see what it holds. */
const registerPaths = () =>
	Object.fromEntries(
		REGISTER_KEYS.map((key) => {
			const register: Register = REGISTERS[key];
			return [
				`/api/v1/registers/${key}`,
				{
					get: {
						operationId: `read-${key}`,
						summary: register.what,
						parameters: [
							query(
								'limit',
								{
									type: 'integer',
									minimum: 1,
									maximum: REGISTER_PAGE.most,
									default: REGISTER_PAGE.usual
								},
								'Rows of a page'
							),
							query('after', { type: 'string' }, 'What the page before gave as “next”'),
							...(register.period
								? [
										query(
											'from',
											{ type: 'string', format: 'date' },
											`First day, by ${register.period}`
										),
										query(
											'to',
											{ type: 'string', format: 'date' },
											`Last day, by ${register.period}`
										)
									]
								: [])
						],
						responses: {
							'200': {
								description: 'A page; “next” is null on the last',
								content: json({
									type: 'object',
									properties: {
										register: { const: key },
										rows: { type: 'array', items: rowSchema(register) },
										next: { type: ['string', 'null'] }
									},
									required: ['register', 'rows', 'next']
								})
							},
							'403': { description: 'No key that may read, or its person may not see it' },
							'422': { description: 'Bad input, with its field' }
						}
					}
				}
			];
		})
	);

const query = (name: string, of: object, description: string) => ({
	name,
	in: 'query',
	required: false,
	description,
	schema: of
});

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
