import assert from 'node:assert/strict';
import { test } from 'node:test';
import { aboutPage } from '../src/lib/server/questions/about.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { setUpPage } from '../src/lib/server/questions/settings.ts';
import { settingSentence } from '../src/core/board/setting-sentence.ts';
import { useDatabase } from './support/database.ts';
import { scene } from './support/scene.ts';
import { command, refusal } from './support/small-board.ts';
import { seen } from './support/sprint.ts';

const db = await useDatabase('empty');

test('types, labels and initiatives are renamed, become one, are retired and offered again', async () => {
	const { board, lined, loose } = await scene(db);
	const change = (input: object) => command(board.lead, 'ChangeName', { board: board.id, ...input });
	await command(board.lead, 'ChangeType', { board: board.id, name: 'Repair', checklist: [] });
	await command(board.lead, 'ChangeType', { board: board.id, name: 'Mending', checklist: [] });
	await command(board.member, 'ChangeCards', {
		board: board.id,
		cards: await seen(db, lined),
		type: 'Repair',
		label: ['night', 'quay'],
		initiative: 'Winter',
	});
	await command(board.member, 'ChangeCards', {
		board: board.id,
		cards: await seen(db, loose),
		type: 'Mending',
		label: ['nights'],
		initiative: 'Winter works',
	});
	const card = async (id: string) =>
		(
			await db.query(
				`select c.type, i.name as initiative,
					array(select l.name from card_label k join label l on l.id = k.label_id where k.card_id = c.id order by 1) as labels
				from card c left join initiative i on i.id = c.initiative_id where c.id = $1`,
				[id],
			)
		).rows[0];

	await change({ type: 'Repair', to: 'Mending' });
	await change({ label: 'nights', to: 'night' });
	await change({ initiative: 'Winter works', to: 'Winter' });
	assert.deepEqual(await card(loose), { type: 'Mending', initiative: 'Winter', labels: ['night'] });
	assert.deepEqual(await card(lined), { type: 'Mending', initiative: 'Winter', labels: ['night', 'quay'] });
	const head = await boardHead(board.lead, board.slug);
	assert.deepEqual(
		[head.types.map((type) => type.name), head.labels, head.initiatives],
		[['Mending'], ['night', 'quay'], ['Winter']],
	);
	await change({ label: 'quay', to: 'harbour' });
	assert.deepEqual((await card(lined)).labels, ['harbour', 'night']);
	await change({ label: 'harbour', retired: true });
	assert.deepEqual((await card(lined)).labels, ['harbour', 'night'], 'what carries it goes on carrying it');
	assert.deepEqual((await boardHead(board.lead, board.slug)).labels, ['night']);

	const setUp = await setUpPage(await boardHead(board.lead, board.slug), board.lead);
	assert.deepEqual(setUp.retired, {
		type: ['Repair'],
		label: ['harbour', 'nights'],
		initiative: ['Winter works'],
	});
	assert.deepEqual(setUp.changes.slice(0, 3).map(settingSentence), [
		'The label harbour is retired.',
		'The label quay is called harbour.',
		'The initiative Winter works became one with Winter.',
	]);
	await change({ label: 'harbour', retired: false });
	assert.deepEqual((await boardHead(board.lead, board.slug)).labels, ['harbour', 'night']);

	assert.equal((await refusal(change({ label: 'nothing', to: 'x' }))).code, 'label.unknown');
	assert.equal((await refusal(change({ label: 'night' }))).field, 'to');
	assert.equal((await refusal(change({ label: 'night', to: 'x'.repeat(41) }))).code, 'invalid.to');
	for (const input of [{ to: 'x' }, { type: 'Repair', label: 'night', to: 'x' }])
		assert.equal((await refusal(change(input))).field, 'type', 'one of the three');
	const asMember = command(board.member, 'ChangeName', {
		board: board.id,
		label: 'night',
		to: 'x',
	});
	assert.equal((await refusal(asMember)).code, 'right.missing');
});

test('what was changed is told with what it was before, and taken back by who did it; what an hour costs only leads read', async () => {
	const { board, column } = await scene(db);
	await command(board.lead, 'ChangeColumn', {
		column: board.columns.Check,
		version: column,
		limit: 4,
		mode: 'hold',
		policy: 'Looked at by another',
	});
	const { rows } = await db.query('select team_id from board where id = $1', [board.id]);
	const rate = (from: number) =>
		command(board.lead, 'ChangeRate', {
			team: rows[0].team_id,
			person: board.member.id,
			from: '2026-11-23',
			rate: from,
		});
	await rate(40);
	await rate(44);
	const told = async (who: typeof board.lead) =>
		(await setUpPage(await boardHead(who, board.slug), who)).changes.slice(0, 3);
	const forLead = await told(board.lead);
	assert.deepEqual(forLead.map(settingSentence).slice(0, 1).concat(settingSentence(forLead[2]!)), [
		`What an hour of ${board.member.name} costs was changed from Mon 23 Nov 2026 on. It was 40, it is 44.`,
		'Check: limit from 1 to 4; over the limit from advise to hold; policy from none to Looked at by another.',
	]);
	assert.ok(forLead.every((change) => change.takeBack));
	const forMember = await told(board.member);
	assert.ok(forMember.every((change) => change.rate === null && change.takeBack === null));
	assert.ok(!JSON.stringify(forMember).includes('44'));
	await command(board.lead, 'UndoCommand', { of: forLead[0]!.takeBack });
	const after = await told(board.lead);
	assert.match(settingSentence(after[0]!), /^Taken back: What an hour/);
	const { rows: rates } = await db.query('select rate from hourly_rate where person_id = $1', [
		board.member.id,
	]);
	assert.equal(Number(rates[0].rate), 40);
});

test('a new card begins with the checklist, size and class of its kind; an old one takes what it has not got', async () => {
	const { board, lined, loose } = await scene(db);
	const on = { board: board.id };
	await command(board.lead, 'ChangeType', {
		...on,
		name: 'Repair',
		checklist: ['Cause'],
		size: 5,
		class: 'fixed',
	});
	const made = await command(board.member, 'AddCards', {
		...on,
		cards: [
			{ title: 'New', type: 'Repair' },
			{ title: 'Large', type: 'Repair', size: 8, class: 'background' },
			{ title: 'Whole', type: 'Repair' },
			{ title: 'Part', parent: 2 },
		],
	});
	const rows = async (ids: readonly string[]) =>
		(
			await db.query(
				`select size, "left", class, jsonb_array_length(checklist) as lines from card where id = any($1::uuid[]) order by number`,
				[ids],
			)
		).rows.map(({ size, left, class: of, lines }) => `${size} ${left} ${of} ${lines}`);
	assert.deepEqual(await rows((made.result.cards as { id: string }[]).map(({ id }) => id)), [
		'5 5 fixed 1',
		'8 8 background 1',
		'null 0 fixed 1',
		'null 0 standard 0',
	]);
	await db.query('update card set size = null, "left" = 0 where id = $1', [loose]);
	const cards = [...(await seen(db, lined)), ...(await seen(db, loose))];
	const [before] = await rows([lined]);
	await command(board.member, 'ChangeCards', { ...on, cards, type: 'Repair' });
	assert.deepEqual(await rows([loose]), ['5 5 fixed 1']);
	assert.equal((await rows([lined]))[0]!.split(' ')[0], before!.split(' ')[0], 'a size that it has stays');
	for (const [input, field] of [
		[{ size: -1 }, 'size'],
		[{ class: 'soon' }, 'class'],
	] as const)
		assert.equal(
			(await refusal(command(board.lead, 'ChangeType', { ...on, name: 'Repair', checklist: [], ...input })))
				.field,
			field,
		);
});

test('an initiative has a target, somebody who leads it, and budgets in hours and in money', async () => {
	const { board, lined } = await scene(db);
	const on = { board: board.id, initiative: 'Winter' };
	await command(board.member, 'ChangeCards', {
		board: board.id,
		cards: await seen(db, lined),
		initiative: 'Winter',
	});
	await command(board.lead, 'ChangeInitiative', { ...on, target: '2026-12-18', lead: board.member.id });
	await command(board.lead, 'ChangeBudget', { ...on, hours: 80 });
	await command(board.lead, 'ChangeBudget', { ...on, money: 12_000 });
	const head = await boardHead(board.lead, board.slug);
	assert.deepEqual((await setUpPage(head, board.lead)).initiatives, {
		Winter: { hours: 80, money: 12_000, target: '2026-12-18', lead: board.member.id },
	});
	assert.deepEqual((await aboutPage(head)).initiatives.Winter!.money, 12_000);
	for (const [name, input, code] of [
		['ChangeInitiative', { target: '2026-02-30' }, 'invalid.target'],
		['ChangeInitiative', { lead: board.viewer.id }, 'lead.unknown'],
		['ChangeInitiative', { initiative: 'Summer' }, 'initiative.unknown'],
		['ChangeBudget', { money: 0 }, 'invalid.money'],
		['ChangeBudget', { hours: 0 }, 'invalid.hours'],
	] as const)
		assert.equal((await refusal(command(board.lead, name, { ...on, ...input }))).code, code, name);
	assert.equal(
		(await refusal(command(board.member, 'ChangeInitiative', { ...on, target: null }))).code,
		'right.missing',
	);
});
