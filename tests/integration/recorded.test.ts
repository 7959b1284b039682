import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

const FOLDER = 'src/lib/server';
const WRITES = new Set(['write', 'writeAfter', 'writeUnattended']);
/**
 * Keeps what an instrument sent or obeyed, works out what follows from facts, or counts what was tried before anybody
 * was in: nobody did anything that is a record.
 */
const UNRECORDED = [
	'access/attempts.ts: takeTry',
	'access/pins.ts: prove',
	'access/sessions.ts: seenTries',
	'bench/acquire.ts: begin',
	'bench/acquire.ts: keep',
	'drill/sessions.ts: keepDrill',
	'drill/tests.ts: keepTest',
	'people/fit-acquire.ts: acquire',
	'people/fit-acquire.ts: begin',
	'readiness/rebuild-all.ts: rebuildAll'
];

const files = readdirSync(FOLDER, { recursive: true, encoding: 'utf8' }).filter(
	(file) => file.endsWith('.ts') && !file.includes('.test.') && !/^(kernel|db|demo)/.test(file)
);
const sources = new Map(
	files.map((file) => [
		file,
		ts.createSourceFile(
			file,
			readFileSync(join(FOLDER, file), 'utf8'),
			ts.ScriptTarget.Latest,
			true
		)
	])
);

/** Functions of every file by name: what a write calls may record for it. */
const functions = new Map<string, ts.Node>();
for (const source of sources.values())
	source.forEachChild((node) => {
		if (ts.isFunctionDeclaration(node) && node.name) functions.set(node.name.text, node);
		if (ts.isVariableStatement(node))
			for (const one of node.declarationList.declarations)
				if (ts.isIdentifier(one.name) && one.initializer)
					functions.set(one.name.text, one.initializer);
	});

const nameOf = (call: ts.CallExpression): string =>
	ts.isPropertyAccessExpression(call.expression)
		? call.expression.name.text
		: ts.isIdentifier(call.expression)
			? call.expression.text
			: '';

/** Whether code records, itself or by a function that it calls. */
function records(node: ts.Node, seen = new Set<string>()): boolean {
	let found = false;
	const visit = (child: ts.Node): void => {
		if (found) return;
		if (ts.isCallExpression(child)) {
			const name = nameOf(child);
			if (name === 'record') found = true;
			else if (functions.has(name) && !seen.has(name)) {
				seen.add(name);
				const called = functions.get(name);
				if (called && records(called, seen)) found = true;
			}
		}
		child.forEachChild(visit);
	};
	visit(node);
	return found;
}

/** Each call of the write path, by file and the function that it stands in, with its work. */
const writes = [...sources].flatMap(([file, source]) => {
	const found: { where: string; work: ts.Node }[] = [];
	const visit = (within: string) => (node: ts.Node) => {
		const name =
			ts.isFunctionDeclaration(node) && node.name
				? node.name.text
				: ts.isVariableDeclaration(node) && node.parent.parent.parent === source
					? node.name.getText()
					: within;
		if (
			ts.isCallExpression(node) &&
			ts.isIdentifier(node.expression) &&
			WRITES.has(node.expression.text)
		) {
			const work = node.arguments.at(-1);
			if (work) found.push({ where: `${file}: ${name}`, work });
		}
		node.forEachChild(visit(name));
	};
	source.forEachChild(visit(''));
	return found;
});

describe('every write', () => {
	it('is found by this test', () => expect(writes.length).toBeGreaterThanOrEqual(55));

	it.each(writes.map(({ where, work }) => [where, work] as const))(
		'%s records an action of the catalogue',
		(where, work) => expect(records(work)).toBe(!UNRECORDED.includes(where))
	);
});
