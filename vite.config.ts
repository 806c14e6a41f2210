import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { build, defineConfig, type Plugin } from 'vite';

const SERVER_WORKERS = ['src/workers/calendar-file.ts', 'src/workers/sprint-odds.ts'];

/** What the server computes in threads of its own is built beside the application, once that is there. */
const serverWorkers: Plugin = {
	name: 'server-workers',
	apply: 'build',
	applyToEnvironment: ({ name }) => name === 'ssr',
	closeBundle: {
		sequential: true,
		order: 'post',
		async handler() {
			if (process.env.HARROW_WORKERS === 'built') return;
			process.env.HARROW_WORKERS = 'built';
			await build({
				configFile: false,
				logLevel: 'warn',
				build: {
					ssr: true,
					outDir: 'build/workers',
					emptyOutDir: true,
					rolldownOptions: { input: SERVER_WORKERS },
				},
			});
		},
	},
};

/** What the core is made of: what it has computed and kept is used again only by the same one. */
function coreHash(): string {
	const hash = createHash('sha256');
	const files = readdirSync('src/core', { recursive: true, encoding: 'utf8' });
	for (const file of files.filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts')).sort())
		hash.update(readFileSync(`src/core/${file}`));
	return hash.digest('hex').slice(0, 16);
}

export default defineConfig({
	define: { HARROW_CORE: JSON.stringify(coreHash()) },
	plugins: [tailwindcss(), sveltekit(), serverWorkers],
	// Command classes carry class-validator decorators; without this they would stay in the server bundle as they are.
	oxc: { decorator: { legacy: true } },
});
