import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import { test } from 'node:test';

const LIBRARY = 'node_modules/flowbite-svelte/dist';

test('app.css names the folder of every component of the library that is used: without it, it would have no styles', () => {
	const styles = readFileSync('src/app.css', 'utf8');
	const named = [...styles.matchAll(/@source '\.\.\/node_modules\/flowbite-svelte\/dist\/([^']+)'/g)].flatMap(
		([, path]) => {
			const [, before, among] = /^([^{]*)\{(.*)\}$/.exec(path!)!;
			return among!.split(',').map((one) => before + one);
		},
	);
	const parts = readdirSync(LIBRARY, { recursive: true, encoding: 'utf8' });
	const pages = readdirSync('src', { recursive: true, encoding: 'utf8' }).filter((path) =>
		path.endsWith('.svelte'),
	);
	const used = new Set(
		pages.flatMap((page) =>
			[...readFileSync(`src/${page}`, 'utf8').matchAll(/import \{([^}]+)\} from 'flowbite-svelte'/g)].flatMap(
				([, names]) => names!.split(',').map((name) => name.trim()),
			),
		),
	);
	assert.ok(used.size > 5, [...used].join());
	for (const name of used) {
		const part = parts.find((path) => path.endsWith(`/${name}.svelte`));
		assert.ok(part && named.some((folder) => part.startsWith(`${folder}/`)), name);
	}
});
