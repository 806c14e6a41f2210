import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { PanoramaPage } from '../src/core/pages/panorama.ts';
import { readAskedFor } from '../src/core/panorama/asked.ts';
import { accountPage } from '../src/lib/server/questions/account.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { datesPage } from '../src/lib/server/questions/dates.ts';
import { initiativePage } from '../src/lib/server/questions/own-page.ts';
import { looseCards, panoramaPage } from '../src/lib/server/questions/panorama.ts';
import { teamConditions } from '../src/lib/server/questions/sift.ts';
import { roundsPage } from '../src/lib/server/questions/rounds.ts';
import { boardDays } from '../src/lib/server/questions/board-days.ts';
import type { Person } from '../src/lib/server/sign-in.ts';
import { useDatabase } from './support/database.ts';
import { scene, type Scene } from './support/scene.ts';
import { command, refusal, smallBoard } from './support/small-board.ts';
import { at, seen } from './support/sprint.ts';

const db = await useDatabase('empty');
const one = async (id: string) => (await seen(db, id))[0]!;

interface Two extends Scene {
	/** The other board of the team, and a card on it. */
	yard: { id: string; slug: string; key: string };
	chain: string;
	/** The id of the initiative that both boards share: it has the card lined up, the one in work, and the chain. */
	gauges: string;
}

/** A team with two boards, and an initiative over both. */
async function two(): Promise<Two> {
	const s = await scene(db);
	const { lead, team, id: board, key } = s.board;
	const { result } = await command(lead, 'MakeBoard', {
		...{ team, name: `Yard ${key}`, key: `Y${key}`, unit: 'hours', sprintDays: null },
	});
	const yard = result.board as string;
	const { result: made } = await command(lead, 'AddInitiative', { board, name: 'Gauges' });
	const gauges = made.initiative as string;
	await command(lead, 'ShareInitiative', { team, initiative: gauges, wide: true });
	await command(lead, 'AddCards', {
		board: yard,
		cards: [{ title: 'Chain', size: 6, initiative: 'Gauges', start: '2026-11-30', due: '2026-12-02' }],
	});
	const { rows } = await db.query('select id from card where board_id = $1', [yard]);
	for (const card of [s.lined, s.working])
		await command(lead, 'ChangeCards', { board, cards: [await one(card)], initiative: 'Gauges' });
	const { rows: boards } = await db.query('select slug from board where id = $1', [yard]);
	return { ...s, yard: { id: yard, slug: boards[0].slug, key: `Y${key}` }, chain: rows[0].id, gauges };
}
const picture = (person: Person, s: Scene, address = ''): Promise<PanoramaPage> =>
	panoramaPage(person, s.board.team, readAskedFor(new URLSearchParams(address)));
const gaugesOf = async (s: Two, person = s.board.lead) =>
	(await picture(person, s)).initiatives.find(({ id }) => id === s.gauges)!;
const pageOf = async (s: Two, slug = s.board.slug, name = 'Gauges') => {
	const found = await initiativePage(await boardHead(s.board.lead, slug), s.board.lead, name);
	assert.ok('page' in found);
	return found;
};

describe('an initiative over several boards', () => {
	test('counts the same cards, hours and left as the boards and the account do', async () => {
		const s = await two();
		const { lead, member, team } = s.board;
		await command(member, 'LogTime', { card: s.working, day: '2026-11-23', hours: 3 });
		await command(lead, 'LogTime', { card: s.chain, day: '2026-11-23', hours: 2 });
		const gauges = await gaugesOf(s);
		assert.deepEqual(gauges.cards, { all: 3, done: 0, undated: 2 });
		assert.deepEqual(
			gauges.parts.map(({ cards, burned, left }) => [cards, burned, left]),
			[
				[2, 3, 10],
				[1, 2, 4],
			],
		);
		const { rows } = await db.query(
			`select sum("left") as left from card where initiative_id = $1 and archived_at is null`,
			[s.gauges],
		);
		assert.equal(
			gauges.parts.reduce((sum, part) => sum + part.left, 0),
			rows[0].left,
		);
		const { account, budgets } = await accountPage(lead, team, {
			from: '2026-11-01',
			to: '2026-11-30',
			by: 'initiative',
		});
		assert.equal(account.lines.find(({ about }) => about === s.gauges)!.hours, gauges.worked);
		assert.deepEqual(budgets, {});
		await command(lead, 'ChangeBudget', { board: s.board.id, initiative: 'Gauges', hours: 8 });
		const [budget] = Object.values(
			(await accountPage(lead, team, { from: null, to: null, by: null })).budgets,
		);
		assert.deepEqual([budget!.worked, budget!.left], [gauges.worked, 14]);
		// Its page says the same, and who worked on which card when.
		const page = await pageOf(s);
		assert.deepEqual({ ...page.figures, hours: null }, { ...gauges, hours: null });
		assert.equal(
			page.spent.reduce((sum, { hours }) => sum + hours, 0),
			gauges.worked,
		);
		assert.deepEqual(
			new Set(page.spent.map(({ week, month }) => `${week} ${month}`)),
			new Set(['2026-11-23 2026-11']),
		);
	});

	test('a card that is done burned all that was left; a done one that is put away still counts', async () => {
		const s = await two();
		await command(s.board.lead, 'MoveCard', {
			...(await one(s.working)),
			column: s.board.columns.Done,
			reason: 'x',
		});
		const done = await gaugesOf(s);
		assert.deepEqual([done.cards.all, done.cards.done, done.parts[0]!.burned], [3, 1, 8]);
		await command(s.board.lead, 'ArchiveCard', { ...(await one(s.working)), reason: 'Put away' });
		assert.deepEqual((await gaugesOf(s)).parts, done.parts);
		// What is dropped undone is gone from it.
		await command(s.board.lead, 'ArchiveCard', { ...(await one(s.chain)), reason: 'Not needed' });
		assert.deepEqual((await gaugesOf(s)).cards, { all: 2, done: 1, undated: 1 });
	});

	test('will be done by how its own cards have gone, exactly; with fewer than ten nothing is said', async () => {
		const s = await two();
		const { lead, id: board, columns } = s.board;
		const finish = (title: string, day: string) =>
			at(`${day}T10:00:00Z`, async () => {
				await command(lead, 'AddCards', { board, cards: [{ title, initiative: 'Gauges' }] });
				const { rows } = await db.query('select id from card where board_id = $1 and title = $2', [
					board,
					title,
				]);
				await command(lead, 'MoveCard', { ...(await one(rows[0].id)), column: columns.Done });
			});
		for (let i = 0; i < 9; i++) await finish(`Gauge ${i}`, '2026-11-25');
		const then = () => at('2026-11-26T10:00:00Z', () => gaugesOf(s));
		assert.deepEqual([(await then()).finished, (await then()).doneBy], [9, null]);
		await finish('Gauge 10', '2026-11-25');
		const gauges = await then();
		// Three days since its first card was made, on one of them all ten: three more come on the first such day, which there
		// is in five days at 87%, as 1 − (2 ÷ 3)^5, and in four at 80%.
		assert.deepEqual([gauges.finished, gauges.doneBy], [10, '2026-12-01']);
	});

	test('its page stands where it is at home, and is found from every board that shares it', async () => {
		const s = await two();
		const head = await boardHead(s.board.lead, s.yard.slug);
		assert.deepEqual(await initiativePage(head, s.board.lead, 'Gauges'), { home: s.board.slug });
		assert.ok(head.initiatives.includes('Gauges'));
		assert.equal((await pageOf(s)).boards.length, 2);
	});

	test('cards of another board come to it by its name; no second one of that name is made', async () => {
		const s = await two();
		const { rows } = await db.query(`select board_id from initiative where name = 'Gauges' and id = $1`, [
			s.gauges,
		]);
		assert.equal(rows[0].board_id, s.board.id);
		const all = await db.query(
			`select count(*)::integer as n from initiative i join board b on b.id = i.board_id where b.team_id = $1 and i.name = 'Gauges'`,
			[s.board.team],
		);
		assert.equal(all.rows[0].n, 1);
	});

	test('what would make two of one name, or take it from cards that have it, is refused in words', async () => {
		const s = await two();
		const { lead, team, id: board } = s.board;
		const share = (input: object) =>
			command(lead, 'ShareInitiative', { team, initiative: s.gauges, ...input });
		assert.equal((await refusal(share({ wide: false }))).code, 'initiative.used');
		await command(lead, 'AddInitiative', { board: s.yard.id, name: 'Moorings' });
		assert.equal((await refusal(share({ wide: true, name: 'Moorings' }))).code, 'initiative.known');
		assert.equal(
			(await refusal(command(lead, 'AddInitiative', { board: s.yard.id, name: 'Gauges' }))).code,
			'initiative.known',
		);
		assert.equal(
			(await refusal(command(lead, 'ChangeName', { board, initiative: 'Gauges', to: 'Gauge' }))).code,
			'initiative.shared',
		);
		await share({ wide: true, name: 'All gauges' });
		assert.ok((await boardHead(lead, s.yard.slug)).initiatives.includes('All gauges'));
		const start = { board, initiative: 'All gauges', start: '2026-12-10', target: '2026-12-01' };
		assert.equal((await refusal(command(lead, 'ChangeInitiative', start))).code, 'invalid.target');
		assert.equal(
			(await refusal(command(lead, 'ChangeInitiative', { ...start, start: '2026-02-30' }))).code,
			'invalid.start',
		);
	});

	test('time on a card of another board passes its budget once, and those who look after it are told', async () => {
		const s = await two();
		await command(s.board.lead, 'ChangeBudget', { board: s.board.id, initiative: 'Gauges', hours: 2 });
		await command(s.board.member, 'LogTime', { card: s.chain, day: '2026-11-23', hours: 3 });
		const { rows } = await db.query(
			`select count(*)::integer as n from event where kind = 'budget-passed' and board_id = $1`,
			[s.yard.id],
		);
		assert.equal(rows[0].n, 1);
	});
});

describe('stages', () => {
	const STAGES = ['Idea', 'Under way'];
	test('hold so many initiatives; one more is let through with a reason, which stays with it', async () => {
		const s = await two();
		const { lead, team, id: board } = s.board;
		await command(lead, 'ChangeTeam', { team, stages: STAGES, limits: [{ stage: 'Under way', limit: 1 }] });
		await command(lead, 'AddInitiative', { board, name: 'Frost', stage: 'Under way' });
		const go = (more: object = {}) =>
			command(lead, 'StageInitiative', { team, initiative: s.gauges, stage: 'Under way', ...more });
		const refused = await refusal(go());
		assert.equal(refused.code, 'stage.full');
		assert.match(refused.message, /Under way is full \(1 of 1\)/);
		await go({ reason: 'The harbour asks for it' });
		const page = await picture(lead, s);
		assert.deepEqual(page.stages, [
			{ name: 'Idea', limit: null },
			{ name: 'Under way', limit: 1 },
		]);
		assert.deepEqual(
			[(await gaugesOf(s)).stage, (await gaugesOf(s)).letThrough],
			['Under way', 'The harbour asks for it'],
		);
		assert.equal(
			(await refusal(command(lead, 'StageInitiative', { team, initiative: s.gauges, stage: 'Dreamt' }))).code,
			'stage.unknown',
		);
		const limit = { team, limits: [{ stage: 'Dreamt', limit: 2 }] };
		assert.equal((await refusal(command(lead, 'ChangeTeam', limit))).code, 'stage.unknown');
	});

	test('two who take the last place at once: one gets it, the other is told', async () => {
		const s = await two();
		const { lead, team, id: board } = s.board;
		await command(lead, 'ChangeTeam', { team, stages: STAGES, limits: [{ stage: 'Under way', limit: 1 }] });
		const { result } = await command(lead, 'AddInitiative', { board, name: 'Frost' });
		const answers = await Promise.allSettled(
			[s.gauges, result.initiative].map((initiative) =>
				command(lead, 'StageInitiative', { team, initiative, stage: 'Under way' }),
			),
		);
		assert.deepEqual(answers.map(({ status }) => status).sort(), ['fulfilled', 'rejected']);
	});

	test('are moved by a lead, or whoever leads the initiative', async () => {
		const s = await two();
		const { lead, member, team, id: board } = s.board;
		await command(lead, 'ChangeTeam', { team, stages: STAGES });
		const go = () => command(member, 'StageInitiative', { team, initiative: s.gauges, stage: 'Idea' });
		assert.equal((await refusal(go())).code, 'right.missing');
		await command(lead, 'ChangeInitiative', { board, initiative: 'Gauges', lead: member.id });
		await go();
		assert.equal((await gaugesOf(s)).stage, 'Idea');
	});
});

describe('milestones', () => {
	async function withMilestone(day = '2026-12-01'): Promise<Two & { milestone: string }> {
		const s = await two();
		const { lead, team } = s.board;
		const { result } = await command(lead, 'AddMilestone', { team, name: 'Harbour day', day });
		const milestone = result.milestone as string;
		await command(lead, 'ChangeMilestone', { team, milestone, cards: [`${s.yard.key}-1`] });
		return { ...s, milestone };
	}

	test('what must be done before one and will not be is said in the panorama and in the rounds of its board', async () => {
		const s = await withMilestone();
		const [milestone] = (await picture(s.board.member, s)).milestones;
		assert.deepEqual(milestone!.late, [{ what: `${s.yard.key}-1`, days: 1 }]);
		const rounds = async (slug: string) => {
			const { findings } = await roundsPage(await boardHead(s.board.lead, slug), s.board.lead);
			return findings.filter(({ kind }) => kind === 'milestone-late');
		};
		const [finding] = await rounds(s.yard.slug);
		assert.match(finding!.sentence, /^Harbour day, on Tue 1 Dec, will not be met: .*-1 1 day after it\.$/);
		assert.deepEqual(finding!.cards, [1]);
		assert.deepEqual(await rounds(s.board.slug), [], 'it says nothing to a board that has no part in it');
		await command(s.board.lead, 'DateCard', { ...(await one(s.chain)), due: '2026-12-01' });
		assert.deepEqual(await rounds(s.yard.slug), []);
	});

	test('what two leads add to one at once both must be done before it', async () => {
		const s = await withMilestone();
		const { lead, team, key } = s.board;
		await Promise.all(
			[`${key}-1`, `${key}-2`].map((card) =>
				command(lead, 'ChangeMilestone', { team, milestone: s.milestone, cards: [card] }),
			),
		);
		const [milestone] = (await picture(lead, s)).milestones;
		assert.deepEqual(
			milestone!.cards.map((card) => card.key),
			[`${key}-1`, `${key}-2`, `${s.yard.key}-1`],
		);
	});

	test('what changed of one is told', async () => {
		const s = await withMilestone();
		const { lead, team, key } = s.board;
		const change = async (input: object) => {
			const { id } = await command(lead, 'ChangeMilestone', { team, milestone: s.milestone, ...input });
			const { rows } = await db.query('select value from event where command_id = $1', [id]);
			return rows[0].value as string;
		};
		assert.equal(
			await change({ cards: [`${key}-1`, `${s.yard.key}-1`] }),
			'The milestone Harbour day has 1 more to wait for.',
		);
		assert.equal(
			await change({ name: 'Quay day', day: '2026-12-08', withoutCards: [`${key}-1`] }),
			'The milestone Quay day was called Harbour day; is on Tue 8 Dec 2026, before on Tue 1 Dec 2026; has 1 fewer to wait for.',
		);
	});

	test('other dates of a card say before whether it is still met', async () => {
		const s = await withMilestone('2026-12-03');
		const to = async (due: string) =>
			(await datesPage(s.board.lead, `${s.yard.key}-1`, (name) => (name === 'due' ? due : null))).milestones;
		assert.deepEqual(await to('2026-12-03'), [{ name: 'Harbour day', day: '2026-12-03', missed: [] }]);
		assert.deepEqual((await to('2026-12-04'))[0]!.missed, [`${s.yard.key}-1`]);
		// Also where its initiative must be done before.
		const { lead, team } = s.board;
		await command(lead, 'ChangeMilestone', {
			team,
			milestone: s.milestone,
			withoutCards: [`${s.yard.key}-1`],
			initiatives: [s.gauges],
		});
		assert.deepEqual((await to('2026-12-04'))[0]!.missed, [`${s.yard.key}-1`]);
	});

	test('stand in the month of their board, or of all; those of a board that one may not see stand nowhere', async () => {
		const s = await withMilestone();
		const { lead, member, team } = s.board;
		await command(lead, 'ChangeMilestone', { team, milestone: s.milestone, board: s.yard.id });
		const months = async (person: Person, slug: string) =>
			(await boardDays(await boardHead(person, slug), '2026-12')).milestones.map(({ name }) => name);
		assert.deepEqual(await months(member, s.yard.slug), ['Harbour day']);
		assert.deepEqual(await months(member, s.board.slug), []);
		await command(lead, 'ChangeBoard', {
			...{ board: s.yard.id, visibleTo: 'named', people: [{ person: lead.id, changes: true }] },
		});
		assert.deepEqual((await picture(member, s)).milestones, []);
		assert.equal((await picture(lead, s)).milestones.length, 1);
	});

	test('what is no day, no card and no initiative of the team is refused in words, and changes nothing', async () => {
		const s = await withMilestone();
		const { lead, team } = s.board;
		const change = (input: object) =>
			refusal(command(lead, 'ChangeMilestone', { team, milestone: s.milestone, ...input }));
		assert.equal((await change({ day: '2026-13-01' })).code, 'invalid.day');
		assert.equal((await change({ cards: ['NOPE-1'] })).code, 'card.unknown');
		assert.equal((await change({ cards: ['nope'] })).field, 'cards');
		assert.equal((await change({ initiatives: [s.board.id] })).code, 'initiative.unknown');
		const other = await smallBoard(db);
		assert.equal((await change({ board: other.id })).code, 'board.unknown');
		assert.equal((await change({ milestone: s.board.id })).code, 'milestone.not_found');
		const [milestone] = (await picture(lead, s)).milestones;
		assert.deepEqual([milestone!.day, milestone!.cards.length], ['2026-12-01', 1]);
		await command(lead, 'DropMilestone', { team, milestone: s.milestone });
		assert.deepEqual((await picture(lead, s)).milestones, []);
		assert.equal((await change({ name: 'Again' })).code, 'milestone.not_found');
	});
});

describe('the panorama', () => {
	test('holds what has dates over all boards, what blocks what, and how many hang on nothing', async () => {
		const s = await two();
		await command(s.board.lead, 'DateCard', { ...(await one(s.lined)), due: '2026-12-04' });
		await command(s.board.lead, 'LinkCard', {
			...(await one(s.chain)),
			to: `${s.board.key}-2`,
			kind: 'blocks',
		});
		const page = await picture(s.board.viewer, s);
		assert.deepEqual(
			page.cards.map(({ title, start, due }) => [title, start, due]),
			[
				['Chain', '2026-11-30', '2026-12-02'],
				['Lined up, renamed', null, '2026-12-04'],
			],
		);
		assert.deepEqual(page.links, [[0, 1]]);
		assert.equal(page.loose, 2);
		assert.equal(page.kinds, null);
	});

	test('boards by kind of column count the cards that stand there against their slots', async () => {
		const s = await two();
		const { kinds } = await picture(s.board.viewer, s, 'as=kinds');
		const row = kinds!.rows.find(({ board }) => board === s.board.id)!;
		assert.deepEqual(
			row.work.cards.map(({ card }) => card),
			[`${s.board.key}-1`],
		);
		assert.equal(row.work.slots, 3);
		assert.deepEqual([row.queue.cards.length, row.queue.slots], [1, null]);
		assert.equal(kinds!.titles[`${s.board.key}-1`], 'Working');
		// A private card counts there as on its board; what it is called is not told.
		await command(s.board.lead, 'AssignCard', { ...(await one(s.working)), owners: [s.board.lead.id] });
		await command(s.board.lead, 'PrivateCard', { ...(await one(s.working)), private: true });
		const again = (await picture(s.board.viewer, s, 'as=kinds')).kinds!;
		assert.equal(again.rows.find(({ board }) => board === s.board.id)!.work.cards.length, 1);
		assert.equal(again.titles[`${s.board.key}-1`], 'Private card');
	});

	test('is narrowed by any field and by words, as boards are; cards without dates count for initiatives and kinds', async () => {
		const s = await two();
		const { lead, viewer } = s.board;
		await command(lead, 'DateCard', { ...(await one(s.lined)), due: '2026-12-04' });
		await command(lead, 'ChangeCards', { board: s.board.id, cards: [await one(s.lined)], class: 'fixed' });
		await command(lead, 'DescribeCard', { ...(await one(s.chain)), description: 'Of galvanised links' });
		const found = async (address: string) => {
			const { cards, narrowed, kinds } = await picture(viewer, s, address);
			return {
				...{
					titles: cards.map(({ title }) => title),
					initiatives: narrowed!.initiatives,
					words: narrowed!.words,
				},
				work: kinds?.rows.flatMap(({ work }) => work.cards.map(({ card }) => card)),
			};
		};
		const fixed = await found('where=class:fixed');
		assert.deepEqual(fixed, {
			titles: ['Lined up, renamed'],
			initiatives: [s.gauges],
			words: ['Fixed date'],
			work: undefined,
		});
		assert.deepEqual((await found('where=!class:fixed')).titles, ['Chain']);
		assert.deepEqual((await found('q=galvanised')).titles, ['Chain']);
		assert.deepEqual((await found('q=galvanised&where=class:fixed')).titles, []);
		// The card in work has no date.
		const working = await found('as=kinds&q=working');
		assert.deepEqual(
			[working.titles, working.initiatives, working.work],
			[[], [s.gauges], [`${s.board.key}-1`]],
		);
		assert.deepEqual((await found(`as=kinds&where=type:&who=${lead.id}`)).work, []);
		const { offered } = await teamConditions(viewer, s.board.team);
		assert.ok(offered.find(({ id }) => id === 'class')!.choices.some(({ key }) => key === 'fixed'));
		const loose = await looseCards(viewer, s.board.team);
		assert.equal(loose.cards.length, (await picture(viewer, s)).loose);
		assert.equal(loose.titles[`${s.board.key}-1`], 'Working');
		// What a private card is called is not found by whoever may not see it.
		await command(lead, 'AssignCard', { ...(await one(s.chain)), owners: [lead.id] });
		await command(lead, 'PrivateCard', { ...(await one(s.chain)), private: true });
		for (const address of ['q=chain', 'q=galvanised'])
			assert.deepEqual((await found(address)).titles, [], address);
		assert.deepEqual((await found('where=due:2026-11-30')).titles, ['Lined up, renamed']);
		// A name that came and went since is nobody's, and nothing that cannot be read is a fault.
		assert.deepEqual((await found('where=labels:gone')).titles, []);
		assert.equal((await picture(viewer, s, 'where=%E0%A4%A&where=:')).narrowed, null);
		const stranger = (await smallBoard(db)).lead;
		for (const asked of [teamConditions, looseCards])
			await assert.rejects(asked(stranger, s.board.team), { status: 404 });
	});

	test('shows nothing of a board that one may not see, nor counts it; private cards keep their titles', async () => {
		const s = await two();
		const { lead, member, viewer } = s.board;
		await command(lead, 'ChangeBoard', {
			...{ board: s.yard.id, visibleTo: 'named', people: [{ person: lead.id, changes: true }] },
		});
		const page = await picture(member, s);
		assert.deepEqual([page.cards, page.boards.length], [[], 1]);
		assert.deepEqual((await gaugesOf(s, member)).cards, { all: 2, done: 0, undated: 2 });
		await command(lead, 'DateCard', { ...(await one(s.lined)), due: '2026-12-04' });
		await command(lead, 'AssignCard', { ...(await one(s.lined)), owners: [lead.id] });
		await command(lead, 'PrivateCard', { ...(await one(s.lined)), private: true });
		assert.notEqual((await picture(viewer, s)).cards[0]!.title, 'Lined up, renamed');
		assert.equal((await picture(lead, s)).cards.find(({ id }) => id === s.lined)!.title, 'Lined up, renamed');
		assert.equal((await refusal(picture(s.board.outsider, s))).code, 'team.not_found');
	});

	test('ways of looking at it are kept, shared with the team, and let go; what says nothing is none', async () => {
		const s = await two();
		const { lead, member, viewer, team } = s.board;
		const keep = (by: Person, name: string, query: string, shared: boolean) =>
			command(by, 'KeepTeamLens', { team, name, query, shared });
		await keep(member, 'Mine', 'who=nobody', false);
		await keep(lead, 'Late', 'late=yes&from=tide', true);
		const lenses = async (by: Person) =>
			(await picture(by, s)).lenses.map(({ name, query, mine }) => [name, query, mine]);
		assert.deepEqual(await lenses(member), [
			['Mine', 'who=nobody', true],
			['Late', 'late=yes', false],
		]);
		assert.deepEqual(await lenses(viewer), [['Late', 'late=yes', false]]);
		assert.equal((await refusal(keep(member, 'None', 'from=tide', false))).code, 'lens.empty');
		assert.equal((await refusal(keep(viewer, 'All', 'late=yes', true))).code, 'right.missing');
		const late = (await picture(lead, s)).lenses.find(({ name }) => name === 'Late')!.id;
		assert.equal(
			(await refusal(command(member, 'DropTeamLens', { team, lens: late }))).code,
			'right.missing',
		);
		await command(lead, 'DropTeamLens', { team, lens: late });
		assert.deepEqual(await lenses(viewer), []);
	});
});
