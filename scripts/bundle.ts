import { fileURLToPath } from 'node:url';
import { build, type UserConfig } from 'vite';

/**
 * How what runs on a server is built, packages with it: a few files are read in less than half the time that a thousand take.
 * What is native, starts threads or reads files of its own stays outside.
 */
export const forServers = {
	// Command classes carry class-validator decorators; without this they would stay as they are.
	oxc: { decorator: { legacy: true } },
	ssr: {
		noExternal: true,
		external: [
			...['@node-rs/argon2', 'graphile-worker', 'mailparser', 'node-pg-migrate', 'nodemailer', 'pg', 'pino'],
			...['@seriousme/openapi-schema-validator', 'axe-core', 'playwright-core', 'smtp-server'],
			// It asks for all of class-validator: what is built takes of that only what it uses.
			'class-validator-jsonschema',
			...['ts-json-schema-generator', 'vite'],
		],
	},
} satisfies UserConfig;

const source = (folder: string) => fileURLToPath(new URL(`../src/${folder}`, import.meta.url));

/** Builds programs and tests, each an own file of a folder that is named by what is given; what they share is beside them. */
export async function bundle(
	input: Record<string, string>,
	outDir: string,
	sourcemap = false,
): Promise<void> {
	await build({
		...forServers,
		configFile: false,
		logLevel: 'warn',
		resolve: { alias: { $core: source('core'), $lib: source('lib') } },
		build: {
			ssr: true,
			outDir,
			emptyOutDir: false,
			sourcemap,
			rolldownOptions: {
				input,
				output: { entryFileNames: '[name].js', chunkFileNames: 'shared/[name]-[hash].js' },
			},
		},
	});
}
