import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

export default ts.config(
	{ ignores: ['build/', '.svelte-kit/', 'node_modules/', 'data/', '.cache/', 'demo/'] },
	js.configs.recommended,
	...ts.configs.recommended,
	...svelte.configs.recommended,
	{
		languageOptions: { globals: { ...globals.browser, ...globals.node } },
		rules: {
			eqeqeq: ['error', 'always', { null: 'ignore' }],
			'no-console': ['error', { allow: ['error', 'warn'] }],
			'@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
			'svelte/no-navigation-without-resolve': 'off',
			'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
			'max-lines': ['error', { max: 350, skipBlankLines: false, skipComments: false }],
			'max-len': [
				'error',
				{ code: 120, tabWidth: 2, ignoreStrings: true, ignoreTemplateLiterals: true, ignoreRegExpLiterals: true }
			]
		}
	},
	{ files: ['**/*.ts', '**/*.svelte'], rules: { 'no-undef': 'off' } },
	{ files: ['**/*.svelte', '**/*.svelte.ts'], languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } } },
	// Controls are the library's, wrapped once in lib/parts; a chart may draw its own.
	{
		files: ['src/routes/**/*.svelte'],
		rules: {
			'svelte/no-restricted-html-elements': [
				'error',
				{
					elements: ['select', 'input', 'textarea', 'button', 'dialog', 'table', 'details'],
					message: 'Take the control from lib/parts or from Carbon: native ones stand in charts alone.'
				}
			]
		}
	},
	// A head of two rows, which the library does not have.
	{ files: ['src/routes/trials/?id?/ShiftTable.svelte'], rules: { 'svelte/no-restricted-html-elements': 'off' } },
	{
		files: ['src/lib/server/**', 'src/routes/**'],
		ignores: ['src/lib/server/**/queries.ts', 'src/lib/server/**/queries/**', 'src/lib/server/{base,demo}/**'],
		rules: {
			'no-restricted-syntax': [
				'error',
				{ selector: "CallExpression[callee.name='sql']", message: 'SQL stands in the queries of its room.' },
				{
					selector: "CallExpression[callee.property.name='prepare']",
					message: 'SQL stands in the queries of its room.'
				}
			]
		}
	},
	{ files: ['scripts/**', 'bench/**', 'demo-web/main.ts'], rules: { 'no-console': 'off' } },
	{
		files: ['test/**'],
		languageOptions: { globals: globals.mocha },
		rules: {
			'@typescript-eslint/no-unused-expressions': 'off',
			'@typescript-eslint/no-explicit-any': 'off',
			// A describe is a function of any length; what it holds is not.
			'max-lines-per-function': 'off'
		}
	}
);
