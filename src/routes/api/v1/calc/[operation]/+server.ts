import { heavy } from '$lib/server/jobs/heavy';
import { asRefusal, STATUS } from '$lib/server/kernel/refusal';
import { jsonBody } from '$lib/server/web/request';

/** One calculation: signed in, or with a key. Bad input: 422 with the same body as the command line. */
export const POST = async ({ params, request, locals }) => {
	if (!locals.actor)
		return Response.json({ message: 'Sign in, or send a key in x-api-key.' }, { status: 401 });
	try {
		const input = await jsonBody(request);
		const result = await heavy('calculate', { name: params.operation, input });
		const unknown = !result.ok && result.value.error.code === 'unknown_operation';
		return Response.json(result.value, { status: result.ok ? 200 : unknown ? 404 : 422 });
	} catch (cause) {
		const refusal = asRefusal(cause);
		if (!refusal) throw cause;
		const issues = [{ path: '', message: refusal.message }];
		return Response.json(
			{ error: { code: 'invalid_input', issues } },
			{ status: STATUS[refusal.kind] }
		);
	}
};
