import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { BOARD_EVENTS } from '../src/core/events/board-events.ts';
import { CARD_EVENTS } from '../src/core/events/card-events.ts';
import type { BoardEventKind, CardEventKind } from '../src/core/events/event.ts';
import { COMMANDS } from '../src/lib/server/commands/index.ts';
import { useDatabase } from './support/database.ts';
import { scene } from './support/scene.ts';
import { command, refusal } from './support/small-board.ts';
import { board, team, TODAY, undoableCommands } from './support/undoable.ts';

const db = await useDatabase('empty');
const TABLE = undoableCommands(db);

/** What grows with every command: the history itself, and what people are told of it. */
const GROWING = [
	'notice',
	'presence',
	'question',
	'command',
	'command_card',
	'event',
	'event_void',
	'migration',
	'session',
	'sign_in_failure',
];

/** Every row of every other table as text, without the marks that each change leaves. */
async function tables(): Promise<Map<string, Set<string>>> {
	const { rows: names } = await db.query<{ name: string }>(
		`select relname as name from pg_class
		where relkind = 'r' and relnamespace = 'public'::regnamespace and relname <> all($1) order by 1`,
		[GROWING],
	);
	const all = new Map(names.map(({ name }) => [name, new Set<string>()]));
	const each = names.map(
		({ name }) =>
			`select '${name}' as name, (to_jsonb(t) - '{version,last_seq,last_number}'::text[])::text as row from "${name}" t`,
	);
	const { rows } = await db.query<{ name: string; row: string }>(each.join(' union all '));
	for (const { name, row } of rows) all.get(name)!.add(row);
	return all;
}

/** Rows that were not there before: what was made stays findable, archived or withdrawn, and so do its words. */
function left(before: Map<string, Set<string>>, after: Map<string, Set<string>>): string[] {
	const archived = new Set(
		[...after.get('card')!]
			.map((row) => JSON.parse(row))
			.filter((row) => row.archived_reason === 'Taken back')
			.map((row) => row.id),
	);
	return [...after].flatMap(([name, rows]) =>
		[...rows].flatMap((text) => {
			if (before.get(name)!.has(text)) return [];
			const row = JSON.parse(text);
			if (archived.has(row.id) || archived.has(row.card_id) || archived.has(row.to_id)) return [];
			if (name === 'time_entry' && row.withdrawn_at) return [];
			if (name === 'label' || name === 'initiative') return [];
			// Whoever took part goes on being told.
			if (name === 'watch' && row.how === 'took-part') return [];
			// Names and keys that something once had go on leading to it.
			if (name === 'column_name' || name === 'board_key') return [];
			// Sprints that exist by themselves once one is started or settled go on existing.
			if (name === 'sprint' && !row.started_at && row.goal === '') return [];
			return [`${name}: ${text}`];
		}),
	);
}

/** Columns of a card that a command of the table changed and taking it back put back. */
const changed = new Set<string>();
function note(before: Map<string, Set<string>>, after: Map<string, Set<string>>): void {
	const olds = new Map([...before.get('card')!].map((text) => [JSON.parse(text).id, JSON.parse(text)]));
	for (const text of after.get('card')!) {
		const row = JSON.parse(text);
		const old = olds.get(row.id);
		for (const column of old ? Object.keys(row) : [])
			if (JSON.stringify(row[column]) !== JSON.stringify(old[column])) changed.add(column);
	}
}

describe('taking back puts every table as it was', () => {
	const undoable = [...COMMANDS.values()].flatMap((one) =>
		one.about !== 'person' && one.undoable ? [one.name] : [],
	);

	test('every command that says it can be taken back has a row here', () => {
		assert.deepEqual(Object.keys(TABLE).sort(), [...undoable].sort());
	});

	for (const [name, prepare] of Object.entries(TABLE))
		test(name, async () => {
			const s = await scene(db);
			const [person, , input] = await prepare(s);
			const before = await tables();
			const done = await command(person, name, input);
			assert.equal(done.undoable, true, 'it says so in its answer too');
			const between = await tables();
			assert.notDeepEqual(name === 'CommentCard' ? null : between, before, 'it did something');
			note(before, between);
			await command(person, 'UndoCommand', { of: done.id });
			const after = await tables();
			for (const [table, rows] of before)
				for (const row of rows) assert.ok(after.get(table)!.has(row), `${table} lost ${row}`);
			assert.deepEqual(left(before, after), []);
			assert.equal((await refusal(command(person, 'UndoCommand', { of: done.id }))).code, 'undo.already');
		});

	test('every column that a card has in the database was changed by one of them, and put back', async () => {
		const { rows } = await db.query<{ name: string }>(
			`select attname as name from pg_attribute where attrelid = 'card'::regclass and attnum > 0 and not attisdropped`,
		);
		// One that went on to another board is moved back from there; who asked for it stays who asked.
		const fixed = ['id', 'board_id', 'number', 'created_at', 'version', 'moved_to', 'asker_id'];
		assert.deepEqual(
			rows.map(({ name }) => name).filter((name) => !fixed.includes(name) && !changed.has(name)),
			[],
		);
	});
});

test('a setting that was changed again is not taken back over the second change', async () => {
	const s = await scene(db);
	const change = (hours: number) =>
		command(s.board.lead, 'ChangeWeek', {
			...team(s),
			from: TODAY,
			hours: [hours, hours, hours, hours, hours, 0, 0],
		});
	const first = await change(6);
	await change(4);
	const problem = await refusal(command(s.board.lead, 'UndoCommand', { of: first.id }));
	assert.deepEqual([problem.status, problem.code], [409, 'undo.changed']);
	assert.match(problem.message, /^This working week has changed since/);
});

test('who may not do it any more may not take it back either', async () => {
	const s = await scene(db);
	const done = await command(s.board.lead, 'ChangeSettling', {
		...board(s),
		membersSettle: true,
		doneDays: 1,
	});
	await db.query(`update membership set role = 'member' where team_id = $1 and person_id = $2`, [
		s.board.team,
		s.board.lead.id,
	]);
	assert.equal((await refusal(command(s.board.lead, 'UndoCommand', { of: done.id }))).code, 'right.missing');
});

// What people and their hours were before is told as it is: each command about them has its own.
test('whatever happened is of a kind that is known, and keeps of before and after what its kind says', async () => {
	const { rows } = await db.query<{ kind: string; card: boolean; before: string[]; after: string[] }>(
		`with e as (
			select kind, card_id is not null as card, nullif(before, 'null') as before, nullif(after, 'null') as after from event
		)
		select kind, card,
			coalesce(array_agg(distinct b) filter (where b is not null), '{}') as before,
			coalesce(array_agg(distinct a) filter (where a is not null), '{}') as after
		from e
		left join lateral jsonb_object_keys(before) b on true
		left join lateral jsonb_object_keys(after) a on true
		where kind <> 'people'
		group by 1, 2`,
	);
	assert.ok(rows.length > 40, 'this file has made most kinds of events');
	for (const { kind, card, before, after } of rows) {
		const table: Record<string, CardEventKind | BoardEventKind> = card ? CARD_EVENTS : BOARD_EVENTS;
		const known = table[kind];
		assert.ok(known, `${kind} is no kind of event of a ${card ? 'card' : 'board'}`);
		assert.deepEqual(
			{
				before: before.filter((key) => !known.before?.includes(key)),
				after: after.filter((key) => !known.after?.includes(key)),
			},
			{ before: [], after: [] },
			kind,
		);
	}
});
