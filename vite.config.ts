import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig, type Plugin } from 'vite';
import { bundle, forServers } from './scripts/bundle.ts';

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

export default defineConfig({ ...forServers, plugins: [tailwindcss(), sveltekit(), besides] });
