import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

/** What a text or a list is bounded by. */
const BOUNDS = new Set(['max', 'length', 'regex', 'datetime']);
/** What only the installation itself says, never a visitor. */
const OWN = ['lib/server/web/config.ts'];

const files = ['routes', 'lib/server'].flatMap((folder) =>
	readdirSync(join('src', folder), { recursive: true, encoding: 'utf8' })
		.filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
		.map((file) => `${folder}/${file}`)
);

/** Names that are called on a schema, from the inside out. */
function chain(node: ts.Node): string[] {
	const { parent } = node;
	if (!ts.isPropertyAccessExpression(parent) || parent.expression !== node) return [];
	const call = parent.parent;
	if (!ts.isCallExpression(call) || call.expression !== parent) return [];
	return [parent.name.text, ...chain(call)];
}

/** Schemas of texts and lists in a file that nothing bounds, by their line. */
function unbounded(file: string): string[] {
	const source = ts.createSourceFile(
		file,
		readFileSync(join('src', file), 'utf8'),
		ts.ScriptTarget.Latest,
		true
	);
	const found: string[] = [];
	const visit = (node: ts.Node): void => {
		if (
			ts.isCallExpression(node) &&
			ts.isPropertyAccessExpression(node.expression) &&
			node.expression.expression.getText() === 'z' &&
			['string', 'array'].includes(node.expression.name.text) &&
			!chain(node).some((name) => BOUNDS.has(name))
		)
			found.push(
				`${file}:${source.getLineAndCharacterOfPosition(node.getStart()).line + 1}: ${node.getText().slice(0, 60)}`
			);
		node.forEachChild(visit);
	};
	visit(source);
	return found;
}

describe('what comes in', () => {
	it('has a most for every text and every list', () => {
		const checked = files.filter((file) => !OWN.includes(file));
		expect(checked.length).toBeGreaterThan(100);
		expect(checked.flatMap(unbounded)).toEqual([]);
	});
});
