import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';

/** One thing that can be asked of the app. */
export interface Target {
	/** As it stands in the routes, with its parameters in brackets. */
	route: string;
	kind: 'page' | 'action' | 'endpoint';
	method: string;
	/** Name of the form action. */
	action?: string;
	/** Names that its file reads: fields of a form, keys of a body, parameters of a query. */
	names: readonly string[];
	/** Words that its file knows, as likely values. */
	words: readonly string[];
}

const ROUTES = 'src/routes';
/** What every form may carry, and names that mean something to a language. */
const ALWAYS = ['id', 'requestId', 'version', 'note', 'asPerson', '__proto__', 'constructor'];

/** Everything that the routes offer, read off their sources. */
export function targets(): Target[] {
	return readdirSync(ROUTES, { recursive: true, encoding: 'utf8' })
		.filter((file) => /\+(page\.server|server|page)\.(ts|svelte)$/.test(file))
		.sort()
		.flatMap((file) => targetsOf(file));
}

function targetsOf(file: string): Target[] {
	const route = `/${file.replace(/\/?\+[^/]+$/, '')}`;
	if (file.endsWith('+page.svelte'))
		return [{ route, kind: 'page', method: 'GET', names: ['q', 'page', 'next'], words: [] }];
	const text = readFileSync(join(ROUTES, file), 'utf8');
	const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
	const names = new Set(ALWAYS);
	const words = new Set<string>();
	const [actions, methods] = [new Set<string>(), new Set<string>()];
	const visit = (node: ts.Node): void => {
		if (ts.isPropertyAssignment(node) || ts.isShorthandPropertyAssignment(node))
			names.add(node.name.getText().replace(/['"]/g, ''));
		if (ts.isStringLiteral(node) && node.text.length < 30) words.add(node.text);
		if (ts.isVariableStatement(node) && /^export const/.test(node.getText()))
			for (const one of node.declarationList.declarations) {
				const name = one.name.getText();
				if (/^[A-Z]+$/.test(name)) methods.add(name);
				if (name === 'actions' && one.initializer && ts.isObjectLiteralExpression(one.initializer))
					for (const property of one.initializer.properties)
						if (property.name) actions.add(property.name.getText());
			}
		node.forEachChild(visit);
	};
	visit(source);
	const known = { route, names: [...names], words: [...words] };
	if (file.endsWith('+server.ts'))
		return [...methods].map((method) => ({ ...known, kind: 'endpoint', method }));
	return [...actions].map((action) => ({ ...known, kind: 'action', method: 'POST', action }));
}
