import js from '@eslint/js';
import globals from 'globals';
import svelte from 'eslint-plugin-svelte';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

/** Imports run downwards only: routes → interface and server → core. Each part names what it may not reach for. */
const DIRECTIONS = [
	[
		'src/core/**',
		[
			'**/lib/**',
			'**/routes/**',
			'**/cli/**',
			'$lib*',
			'$app/*',
			'svelte*',
			'@sveltejs/*',
			'flowbite*',
			'pg',
			'd3-*',
			'!d3-array',
		],
	],
	[
		'src/lib/server/**',
		['**/ui/**', '**/routes/**', '**/cli/**', '**/demo/**', 'svelte*', 'flowbite*', 'd3-*', '!d3-array'],
	],
	[
		'src/lib/ui/**',
		[
			'**/server/**',
			'**/routes/**',
			'**/cli/**',
			'$lib/server*',
			'pg',
			'class-validator',
			'class-transformer',
		],
	],
	['src/cli/**', ['**/ui/**', '**/routes/**', '**/demo/**', 'svelte*', 'flowbite*']],
	['demo/**', ['**/ui/**', '**/routes/**', '**/cli/**', '**/tests/**', 'svelte*', 'flowbite*']],
];

/** Within the core too they run one way: each folder may reach for those before it. */
const CORE = [
	'calendar',
	'fields',
	'events',
	'flow',
	'forecast',
	'sprint',
	'capacity',
	'dates',
	'backlog',
	'rounds',
	'account',
	'people',
	'pages',
	'board',
	'panorama',
	'exchange',
];

export default ts.config(
	{ ignores: ['build/', '.svelte-kit/', 'node_modules/', '.harrow/'] },
	js.configs.recommended,
	...ts.configs.recommended,
	...svelte.configs.recommended,
	{ languageOptions: { globals: { ...globals.browser, ...globals.node } } },
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } },
	},
	...DIRECTIONS.map(([folder, never]) => ({
		files: [`${folder}/*.{ts,svelte}`],
		ignores: ['src/core/*/*.ts'],
		rules: {
			'@typescript-eslint/no-restricted-imports': [
				'error',
				{
					patterns: [
						{ group: never, message: 'Imports run downwards only: routes → interface and server → core.' },
					],
				},
			],
		},
	})),
	...CORE.map((folder, i) => ({
		files: [`src/core/${folder}/*.ts`],
		ignores: ['**/*.test.ts'],
		rules: {
			'@typescript-eslint/no-restricted-imports': [
				'error',
				{
					patterns: [
						{ group: DIRECTIONS[0][1], message: 'The core knows nothing of what stands on it.' },
						...(i + 1 < CORE.length
							? [
									{
										group: CORE.slice(i + 1).map((later) => `**/${later}/**`),
										message: `${folder} comes before it: imports in the core run one way.`,
									},
								]
							: []),
					],
				},
			],
		},
	})),
	// What commands take and answer the server declares: pages know it by its types, which leave nothing in their script.
	{ files: ['src/lib/commands.ts'], rules: { '@typescript-eslint/no-restricted-imports': 'off' } },
	{
		rules: {
			'no-undef': 'off',
			'@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
			'@typescript-eslint/no-non-null-assertion': 'off',
			'no-control-regex': 'off',
			// Maps and dates in the interface are replaced whole, never changed in place.
			'svelte/prefer-svelte-reactivity': 'off',
			// Addresses are written out: Harrow is served from the root of its host.
			'svelte/no-navigation-without-resolve': 'off',
		},
	},
);
