import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, describe, test } from 'node:test';
import { readBoardFile } from '../src/core/exchange/board-file.ts';
import { readHistory } from '../src/core/exchange/history-file.ts';
import { report } from '../src/core/exchange/report.ts';
import { agree, VECTORS } from '../src/core/testing/vectors.ts';
import { parseDay } from '../src/core/calendar/days.ts';
import { boardByKey } from '../src/lib/server/questions/board-head.ts';
import { flowPage } from '../src/lib/server/questions/flow.ts';
import { now } from '../src/lib/server/time.ts';
import { useDatabase } from './support/database.ts';

const db = await useDatabase('demo');
const folder = mkdtempSync(join(tmpdir(), 'harrow-'));
after(() => rmSync(folder, { recursive: true }));

function harrow(...args: string[]) {
	const { status, stdout, stderr } = spawnSync(
		process.execPath,
		[`${process.env.HARROW_BUILD}/harrow.js`, ...args],
		{
			encoding: 'utf8',
			maxBuffer: 1e9,
			env: process.env,
		},
	);
	return { status, stdout, stderr };
}
const vector = (name: string) => [
	'--board',
	`src/core/testing/vectors/${name}/board.json`,
	'--history',
	`src/core/testing/vectors/${name}/history.csv`,
];

describe('measure', () => {
	const [name, asOf, from, to] = VECTORS.at(-1)!;
	test('prints the report of a history over a range', () => {
		const { status, stdout } = harrow(
			'measure',
			...vector(name),
			'--as-of',
			asOf,
			'--from',
			from!,
			'--to',
			to!,
		);
		assert.equal(status, 0);
		const expected = JSON.parse(readFileSync(`src/core/testing/vectors/${name}/report.json`, 'utf8'));
		const actual = JSON.parse(stdout);
		assert.deepEqual(Object.keys(actual), Object.keys(expected));
		for (const part of ['cards', 'days', 'cycle', 'ageing', 'weeks', 'xmr', 'littlesLaw'])
			agree(actual[part], expected[part], part);
	});

	test('names every line that cannot be read, and measures nothing', () => {
		const { status, stdout, stderr } = harrow('measure', ...vector('bad'), '--as-of', '2026-05-25T09:00:00Z');
		assert.deepEqual([status, stdout], [2, '']);
		assert.deepEqual(
			stderr.match(/^line \d+: \S/gm)?.map((line) => parseInt(line.slice(5))),
			[3, 4, 5, 6, 7, 8, 9, 10],
		);
	});

	test('says in words what is wrong with a call', () => {
		for (const [args, words] of [
			[['measure'], /Give --board, --history, --as-of/],
			[['measure', ...vector('small'), '--as-of', 'now'], /--as-of "now" is not an instant/],
			[
				['measure', ...vector('small'), '--as-of', '2026-05-25T09:00Z', '--from', 'May'],
				/--from "May" is not a day/,
			],
			[['measure', ...vector('nowhere'), '--as-of', '2026-05-25T09:00Z'], /cannot be opened/],
			[['measure', '--frm', 'x'], /Unknown option '--frm'/],
			[['dance'], /There is no command "dance"/],
			[['export', '--board', 'NONE'], /There is no board with the key "NONE"/],
			[['ledger', '--board', 'NONE'], /There is no board with the key "NONE"/],
			[['ledger', '--board', 'TIDE', '--sprint', '99'], /Tidewatch has no sprint 99 that was started/],
			[['ledger', '--board', 'TIDE', '--sprint', 'next'], /"next" is not the number of a sprint/],
			[['ledger', '--board', 'BUOY'], /No sprint of Buoy yard has started/],
			[['check', '--board', 'TIDE'], /Unknown option '--board'/],
		] as const) {
			const { status, stderr } = harrow(...args);
			assert.equal(status, 2);
			assert.match(stderr, words);
		}
	});
});

describe('export', () => {
	for (const key of ['TIDE', 'BUOY', 'SHORE'])
		test(`the files of ${key} measure to every figure of its flow page`, async () => {
			const { status, stdout } = harrow('export', '--board', key, '--out', folder);
			assert.equal(status, 0);
			const [boardPath, historyPath] = stdout.trim().split('\n');
			const board = readBoardFile(readFileSync(boardPath!, 'utf8'));
			assert.ok(board.ok);
			const history = readHistory(readFileSync(historyPath!, 'utf8'), board.value);
			assert.ok(history.ok);
			const head = (await boardByKey(key))!;
			for (const range of [
				{ from: null, to: null },
				{ from: '2026-07-01', to: '2026-09-20' },
			]) {
				const page = await flowPage(head, { ...range, days: null });
				const measured = report(
					board.value,
					history.events,
					now().getTime(),
					parseDay(page.from)!,
					parseDay(page.to)!,
				);
				const { cards: _cards, forecast: _forecast, sprints: _sprints, ...flow } = measured;
				assert.deepEqual(page.report, flow);
				assert.ok(measured.cycle!.n > 5);
				assert.equal(
					page.dots.reduce((cards, dot) => cards + dot.cards, 0),
					measured.cycle!.n,
				);
			}
		});
});

describe('ledger', () => {
	test('prints from the database what measure prints of the exported files, in hours and in points', () => {
		for (const key of ['TIDE', 'SHORE']) {
			const out = harrow('export', '--board', key, '--out', folder);
			const [board, history] = out.stdout.trim().split('\n') as [string, string];
			const measured = JSON.parse(
				harrow('measure', '--board', board, '--history', history, '--as-of', now().toISOString()).stdout,
			);
			for (const sprint of [measured.sprints.at(-2), measured.sprints.at(-1)]) {
				const { status, stdout } = harrow('ledger', '--board', key, '--sprint', String(sprint.number));
				assert.equal(status, 0);
				assert.deepEqual(JSON.parse(stdout), sprint);
				assert.ok(sprint.committed > 0 && sprint.stints.length > 1);
			}
			const latest = harrow('ledger', '--board', key);
			assert.equal(JSON.parse(latest.stdout).number, measured.sprints.at(-1).number);
		}
	});
});

describe('check', () => {
	test('proves that every ledger adds up, and names what does not', async () => {
		const { status, stdout } = harrow('check');
		assert.equal(status, 0);
		assert.match(stdout, /^3 boards, \d+ cards, \d+ sprints, \d+ stints: all ledgers add up\n$/);
		const { rows } = await db.query<{ number: number }>(
			`update card set "left" = "left" + 1 where id = (
				select c.id from card c join board b on b.id = c.board_id and b.key = 'TIDE' where c.clock = 'running' and c.size > 0 limit 1)
			returning number`,
		);
		const wrong = harrow('check');
		assert.equal(wrong.status, 1);
		assert.match(wrong.stderr, new RegExp(`^TIDE-${rows[0]!.number}: its row has .* left of `));
		assert.match(wrong.stdout, /1 do not agree/);
	});
});

test('every setting that the program reads is told in docs/running.md, and every command of its own there is known', () => {
	const running = readFileSync('docs/running.md', 'utf8');
	const sources = readdirSync('src', { recursive: true, encoding: 'utf8' }).filter(
		(file) => /\.(ts|svelte)$/.test(file) && !file.includes('.test.'),
	);
	const read = new Set(
		sources.flatMap((file) =>
			[...readFileSync(`src/${file}`, 'utf8').matchAll(/process\.env\.([A-Z_]+)/g)].map(([, name]) => name!),
		),
	);
	assert.ok(read.has('DATABASE_URL'));
	for (const name of read) assert.ok(running.includes(`\`${name}\``), `${name} is not told`);
	const usage = harrow('--help').stdout;
	for (const [, name] of running.matchAll(/harrow -- (\w+)/g))
		assert.match(usage, new RegExp(`^  ${name}\\b`, 'm'));
});
