import { once } from 'node:events';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { run } from 'node:test';
import { spec } from 'node:test/reporters';
import { chromium } from 'playwright-core';
import { bundle } from '../../scripts/bundle.ts';

/*
 * Runs test files, built beside the application that they try, with one browser for all of them, those that take longest first. Asked of it: `run.ts FILE...`.
 * How long each took here is kept beside the databases of this checkout, for the next time; to begin with it is as in
 * times.json, in seconds.
 */
const TIMES = '.harrow/test-times.json';
const LONGEST_MS = 180_000;

const read = (file: string | URL) =>
	existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as Record<string, number>) : {};
const files = process.argv.slice(2);
const took = read(TIMES);
const usual = read(new URL('times.json', import.meta.url));
const expected = (file: string) => took[file] ?? (usual[file] ?? 2) * 1000;
files.sort((a, b) => expected(b) - expected(a));
/** Each is built to a file of its own, in the folder of the application: what it starts lies there. */
const build = process.env.HARROW_BUILD!;
const builtAs = (file: string) => `${file.replaceAll('/', '-').slice(0, -'.ts'.length)}`;
const others = ['settle-and-die', 'other-process'].map((name) => [name, `tests/support/${name}.ts`]);
await bundle(Object.fromEntries([...files.map((file) => [builtAs(file), file]), ...others]), build, true);

const browser = await chromium.launchServer({
	executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
	host: '127.0.0.1',
	args: [
		'--no-sandbox',
		'--disable-gpu',
		'--disable-quic',
		'--no-first-run',
		'--disable-background-networking',
		'--disable-component-update',
		'--disable-sync',
		// Pages of one device are drawn by one process, so that the next page need not start one.
		'--renderer-process-limit=1',
	],
});
process.env.HARROW_BROWSER = browser.wsEndpoint();

process.execArgv = ['--enable-source-maps'];
const tests = run({
	files: files.map((file) => `${build}/${builtAs(file)}.js`),
	// What measures time runs by itself.
	concurrency: files.every((file) => file.endsWith('timing.test.ts')) ? 1 : availableParallelism(),
	timeout: LONGEST_MS,
});
tests.on('test:fail', () => (process.exitCode = 1));
const seen = new Set<string>();
const heard = (test: { file?: string; nesting: number; details: { duration_ms: number } }) => {
	const file = files.find(
		(known) =>
			test.nesting === 0 && [known, `/${builtAs(known)}.js`].some((name) => test.file?.endsWith(name)),
	);
	if (!file) return;
	took[file] = Math.round((seen.has(file) ? took[file]! : 0) + test.details.duration_ms);
	seen.add(file);
};
tests.on('test:pass', heard);
tests.on('test:fail', heard);
const said = tests.compose(new spec());
// Whoever reads this may stop reading.
process.stdout.on('error', () => process.exit(1));
said.pipe(process.stdout);
await once(said, 'end');
writeFileSync(TIMES, JSON.stringify(took, null, '\t'));
await browser.close();
