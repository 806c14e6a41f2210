import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig, type Plugin } from 'vite';
import { bundle, forServers } from './scripts/bundle.ts';
import { sveltekitChanged } from './scripts/sveltekit.ts';

/** What runs beside the application: what it computes in threads of their own, and the command line. */
const BESIDE = {
	'workers/calendar-file': 'src/workers/calendar-file.ts',
	'workers/sprint-odds': 'src/workers/sprint-odds.ts',
	harrow: 'src/cli/harrow.ts',
};

/** It is built once the application is there, in the same folder. */
const besides: Plugin = {
	name: 'besides',
	apply: 'build',
	applyToEnvironment: ({ name }) => name === 'ssr',
	closeBundle: {
		sequential: true,
		order: 'post',
		async handler() {
			if (process.env.HARROW_BESIDES === 'built') return;
			process.env.HARROW_BESIDES = 'built';
			await bundle(BESIDE, 'build');
		},
	},
};

/**
 * What the core is made of: what it has computed and kept is used again only by the same one, and
 * by the application alone: what proves something on the command line reads the history.
 */
function coreHash(): string {
	const hash = createHash('sha256');
	const files = readdirSync('src/core', { recursive: true, encoding: 'utf8' });
	for (const file of files.filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts')).sort())
		hash.update(readFileSync(`src/core/${file}`));
	return hash.digest('hex').slice(0, 16);
}

export default defineConfig({
	...forServers,
	define: { HARROW_CORE: JSON.stringify(coreHash()) },
	plugins: [tailwindcss(), sveltekit(), sveltekitChanged, besides],
});
