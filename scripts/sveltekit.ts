import type { Plugin } from 'vite';

/** A statement of SvelteKit's server as it is built into the application: where it stands, and what stands there instead. */
interface Change {
	file: RegExp;
	from: string;
	to: string;
}

const CHANGES: Change[] = [
	// A page is never the same twice, as its nonce is another one: reading through all of it for a tag that nobody gets is left out.
	{
		file: /kit\/src\/runtime\/server\/page\/render\.js$/,
		from: 'headers.set(\'etag\', `"${hash(transformed)}"`);',
		to: '',
	},
	// What is done before the server listens can make pages (src/lib/server/warm.ts).
	{
		file: /kit\/src\/runtime\/server\/index\.js$/,
		from: 'await module.init();',
		to: 'await module.init((...asked) => this.respond(...asked));',
	},
];

/** The one place where a package's code is changed. A version of it that is worded otherwise does not build. */
export const sveltekitChanged: Plugin[] = CHANGES.map(({ file, from, to }) => ({
	name: `changed ${file.source}`,
	transform: {
		filter: { id: file },
		handler(code) {
			if (!code.includes(from))
				throw new Error(`SvelteKit has no “${from}” any more: see scripts/sveltekit.ts.`);
			return { code: code.replace(from, to), map: null };
		},
	},
}));
