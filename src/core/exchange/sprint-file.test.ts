import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { ReportPage } from '../pages/look-back.ts';
import { parseDay } from '../calendar/days.ts';
import type { Ledger } from '../sprint/ledger.ts';
import { reportMarkdown, reportRows } from './sprint-file.ts';

const moves = { resized: 0, worked: 0, splitOff: 0, planned: true, opened: 1, ended: 2 };
const stints: Ledger['stints'] = [
	{ ...moves, card: 'TIDE-1', kind: 'committed', entry: 8, burned: 8, exit: 0, outcome: 'done' },
	{ ...moves, card: 'TIDE-2', kind: 'committed', entry: 5, burned: 2, exit: 3, outcome: 'carried' },
	{
		...moves,
		card: 'TIDE-3',
		kind: 'added',
		planned: false,
		entry: 2,
		burned: 0,
		exit: 2,
		outcome: 'dropped',
	},
];
const report: ReportPage = {
	sprint: { number: 4, starts: '2026-11-16', ends: '2026-11-27', goal: 'Masts | that hold' } as never,
	goalMet: 'partly',
	goalWords: 'Two of *three*.',
	closed: true,
	ledger: {
		number: 4,
		committed: 13,
		added: 2,
		resized: 0,
		burned: 10,
		worked: 9,
		splitOff: 0,
		removed: 0,
		carried: 3,
		returned: 0,
		dropped: 2,
		open: 0,
		delivered: 8,
		unplanned: 0,
		count: 2,
		stints,
		moves: [],
	},
	finished: [stints[0]!],
	following: {
		committed: 13,
		guide: [],
		days: [
			{
				day: parseDay('2026-11-16')!,
				left: 11.25,
				burned: 1.75,
				scope: 13,
				guide: 11.7,
				today: { added: 0, resized: 0, burned: 1.75, splitOff: 0, removed: 0, dropped: 0 },
			},
		],
	},
	scope: [{ at: '2026-11-18T10:30:00.000Z', card: 'TIDE-3', kind: 'added', amount: 2, who: 'Ines Okoro' }],
	unfinished: [
		{ sprint: 4, card: 'TIDE-2', reason: 'waiting', words: '', decision: 'carry', left: 3 },
		{ sprint: 4, card: 'TIDE-3', reason: 'other', words: 'A false\nalarm', decision: 'drop', left: 2 },
	],
	surprises: null,
	use: [{ person: 'p', name: 'Ines Okoro', raw: 40, worked: 9, cards: [] }],
	budgets: [{ initiative: 'Winter', budget: 100, worked: 60, here: 9, left: 12, cards: [] }],
	odds: null,
	titles: { 'TIDE-1': 'Raise [the] mast', 'TIDE-2': 'Wire', 'TIDE-3': '=1+1' },
	before: null,
	retrospective: null,
	after: null,
};

describe('the report of a sprint as a file', () => {
	test('as Markdown: both sides of the ledger, each day, what was finished and what was not and why', () => {
		const lines = reportMarkdown(report, { name: 'Tidewatch', unit: 'hours' }).split('\n');
		for (const line of [
			'# Tidewatch: sprint 4',
			'2026-11-16 to 2026-11-27',
			'**Goal:** Masts \\| that hold',
			'**Met:** partly. Two of \\*three\\*.',
			'| Committed | 13 h | Burned | 10 h |',
			'| Added | 2 h | Carried | 3 h |',
			'|  |  | Dropped | 2 h |',
			'| **Sum** | 15 h | **Sum** | 15 h |',
			'| 2026-11-16 | 11.25 h | 1.75 h | 13 h | 11.7 h |',
			'- TIDE-1 Raise \\[the\\] mast (8 h)',
			'- TIDE-2 Wire: carry, 3 h left; waiting on others',
			'- TIDE-3 =1+1: drop, 2 h left; A false alarm',
			'- 2026-11-18 10:30 UTC, Ines Okoro: added 2 h, TIDE-3 =1+1',
			'- Winter: 60 h worked of 100 h, 12 h left',
			'- Ines Okoro: 9 h of 40 h',
		])
			assert.ok(lines.includes(line), line);
	});

	test('of a sprint that runs it says so, and what has nothing to say is left out', () => {
		const running = { ...report, closed: false, goalMet: null, unfinished: [], scope: [], budgets: [] };
		const text = reportMarkdown(running, { name: 'Shore', unit: 'points' });
		assert.match(text, /2026-11-16 to 2026-11-27, still running/);
		assert.match(text, /\| Committed \| 13 pt \|/);
		for (const gone of ['Met:', '## Not finished', '## Changes of scope', '## Hours against budgets'])
			assert.ok(!text.includes(gone), gone);
	});

	test('as rows: a stint each, with its reason', () => {
		const [head, ...rows] = reportRows(report);
		assert.equal(head!.length, rows[0]!.length);
		assert.deepEqual(rows[0], [
			'TIDE-1',
			'Raise [the] mast',
			'committed',
			'yes',
			8,
			0,
			8,
			0,
			0,
			0,
			'done',
			'',
		]);
		assert.deepEqual(rows[1]!.slice(-2), ['carried', 'waiting on others']);
		assert.deepEqual(rows[2]!.slice(2, 4), ['added', 'no']);
		assert.equal(rows[2]!.at(-1), 'A false\nalarm');
	});
});
