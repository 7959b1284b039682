import { calculate, OPERATIONS } from './registry.ts';

/** What a run of the command line prints and how it ends. */
export interface CommandResult {
	output: string;
	exitCode: 0 | 2;
}

/** The list of operations, one a line. */
export function listOperations(): string {
	const widest = Math.max(...OPERATIONS.map((op) => op.name.length)) + 2;
	return OPERATIONS.map((op) => `${op.name.padEnd(widest)}${op.description}\n`).join('');
}

/** One JSON document in, one out. Bad input ends with 2. */
export function runOne(name: string, text: string): CommandResult {
	const result = calculateText(name, text);
	return { output: `${JSON.stringify(result.value, null, 2)}\n`, exitCode: result.ok ? 0 : 2 };
}

/** One JSON document per line, one line of output for each; a bad line gives its error on its line. */
export function runLine(name: string, line: string): string {
	return `${JSON.stringify(calculateText(name, line).value)}\n`;
}

function calculateText(name: string, text: string): ReturnType<typeof calculate> {
	let input: unknown;
	try {
		input = JSON.parse(text);
	} catch (error) {
		const message = error instanceof Error ? error.message : 'not JSON';
		return {
			ok: false,
			value: {
				error: { code: 'invalid_input', issues: [{ path: '', message: `Not JSON: ${message}` }] }
			}
		};
	}
	return calculate(name, input);
}
