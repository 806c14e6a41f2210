import assert from 'node:assert/strict';
import { test } from 'node:test';
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
		`What an hour of ${board.member.name} costs was changed from 2026-11-23 on. It was 40, it is 44.`,
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
