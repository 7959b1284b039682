import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import js from '@eslint/js';
import imports from 'eslint-plugin-import-x';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteProject from './svelte.config.js';

/** Imports that a folder may not make, with the reason that is shown. */
const refuse = (patterns) => ({
	'no-restricted-imports': ['error', { patterns }]
});
const core = {
	regex:
		'(^|/)(lib|routes|workers)/|^\\$(lib|app|env)|^svelte|^node:|^drizzle|^pg$|^postgres|^better-auth|^pino',
	message: 'src/core is pure: no server, page, clock, file or database.'
};
const routes = { regex: 'routes/', message: 'Imports go one way: routes → lib → core.' };
const server = {
	regex: 'lib/server|\\$lib/server',
	message: 'Components know nothing of the server.'
};
/** What only the one write path may do. */
const writePath = [
	{
		selector: "CallExpression[callee.property.name='transaction']",
		message: 'Change things through write() of the kernel only.'
	},
	{
		selector: 'ImportSpecifier[imported.name=/^audit(Entry|Pending)$/]',
		message: 'The log is written by write() of the kernel only.'
	},
	{
		selector: "ImportSpecifier[imported.name='appendEntries']",
		message: 'The log is written by write() of the kernel only.'
	}
];
/** A spread of a literal hides misspelt fields from the compiler. */
const literalSpread = {
	selector: 'SpreadElement > ObjectExpression',
	message: 'Write the fields out: a spread literal hides misspelt ones from the compiler.'
};
const rawSql = {
	group: ['drizzle-orm'],
	importNames: ['sql'],
	message: 'SQL is written in src/lib/server/db only.'
};

/** Resolves the aliases of the project, and files as they are written. */
const here = import.meta.dirname;
const resolver = {
	interfaceVersion: 3,
	name: 'grevan',
	resolve(specifier, from) {
		const path = specifier.startsWith('$core/')
			? join(here, 'src/core', specifier.slice(6))
			: specifier.startsWith('$lib/')
				? join(here, 'src/lib', specifier.slice(5))
				: specifier.startsWith('.')
					? join(dirname(from), specifier)
					: undefined;
		if (!path) return { found: false };
		const found = [path, `${path}.ts`].find((one) => existsSync(one));
		return found ? { found: true, path: found } : { found: false };
	}
};

/** Without what is no data: the linter hands its configuration on as text. */
const svelteConfig = { ...svelteProject, kit: { ...svelteProject.kit, typescript: undefined } };

export default ts.config(
	{
		ignores: ['node_modules', '.svelte-kit', 'build', '.data', 'test-results', 'playwright-report']
	},
	js.configs.recommended,
	...ts.configs.recommended,
	...svelte.configs.recommended,
	{
		languageOptions: { globals: { ...globals.browser, ...globals.node } },
		rules: {
			'no-undef': 'off',
			'max-lines': ['error', { max: 460, skipBlankLines: true, skipComments: true }],
			'@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
			'no-restricted-syntax': ['error', literalSpread],
			// The app is served at the root of its own host.
			'svelte/no-navigation-without-resolve': 'off'
		}
	},
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } },
		rules: {
			'no-restricted-syntax': [
				'error',
				literalSpread,
				{
					selector: "MemberExpression[object.name='crypto'][property.name='randomUUID']",
					message: 'freshId() makes ids: a page may be made once for many.'
				}
			]
		}
	},
	{
		files: ['src/core/**/*.ts'],
		ignores: ['**/*.test.ts'],
		rules: {
			...refuse([core]),
			'no-restricted-globals': [
				'error',
				'process',
				'window',
				'document',
				'fetch',
				'setTimeout',
				'crypto'
			],
			'no-restricted-syntax': [
				'error',
				literalSpread,
				{
					selector: "MemberExpression[object.name='Math'][property.name='random']",
					message: 'Chance comes in as an argument.'
				},
				{
					selector: "MemberExpression[object.name='Date'][property.name='now']",
					message: 'Time comes in as an argument.'
				},
				{
					selector: "NewExpression[callee.name='Date'][arguments.length=0]",
					message: 'Time comes in as an argument.'
				}
			]
		}
	},
	// A table of worked cases is long and still one thing.
	{
		files: ['**/*.test.ts'],
		rules: { 'max-lines': ['error', { max: 620, skipBlankLines: true }] }
	},
	{ files: ['src/lib/ui/**'], rules: refuse([routes, server]) },
	{
		files: ['src/lib/server/**/*.ts'],
		ignores: ['src/lib/server/db/**'],
		rules: refuse([
			routes,
			{ regex: 'lib/ui|\\$lib/ui', message: 'The server knows nothing of components.' },
			rawSql
		])
	},
	{
		files: ['src/lib/server/**/*.ts', 'src/routes/**/*.ts', 'src/hooks.server.ts'],
		ignores: ['src/lib/server/kernel/**', 'src/lib/server/db/**', 'src/lib/server/demo/**'],
		rules: { 'no-restricted-syntax': ['error', literalSpread, ...writePath] }
	},
	// No cycle, imports of types included.
	{
		files: ['src/**/*.ts', 'instruments/**/*.ts'],
		plugins: { 'import-x': imports },
		settings: {
			'import-x/parsers': { '@typescript-eslint/parser': ['.ts'] },
			'import-x/resolver-next': [resolver]
		},
		rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] }
	},
	{ files: ['src/routes/**/*.svelte'], rules: refuse([server]) },
	{
		files: ['src/routes/**/*.ts'],
		rules: refuse([rawSql, { regex: 'server/db/', message: 'Routes call services.' }])
	}
);
