import type { BoardHead } from '../../../core/pages/board.ts';
import type {
	RetroAction,
	RetroFact,
	RetroLine,
	RetrospectivePage,
	RetrospectivesPage,
} from '../../../core/pages/retrospective.ts';
import { factsOf } from '../../../core/retrospective/facts.ts';
import { USUAL_COLUMNS } from '../../../core/retrospective/phases.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import { now } from '../time.ts';
import { count } from '../../../core/words.ts';
import { ACTION } from './agreed.ts';
import { reportPage } from './report.ts';

/** The retrospectives of a board, and what the next one would begin with. */
export async function retrospectivesPage(head: BoardHead): Promise<RetrospectivesPage> {
	const [lines, [last], sprints] = await Promise.all([
		rows<RetroLine>(
			`select r.number, s.number as sprint, r.phase, r.opened_at as "openedAt",
				count(a.id)::int as actions,
				count(a.id) filter (where case when a.card_id is null then a.done_at is not null else c.clock = 'done' end)::int as done
			from retrospective r
			left join sprint s on s.id = r.sprint_id
			left join retro_action a on a.retrospective_id = r.id and a.withdrawn_at is null
			left join card c on c.id = a.card_id
			where r.board_id = $1
			group by r.id, s.number
			order by r.number desc
			limit 200`,
			[head.id],
			'retrospectives',
		),
		rows<Pick<RetrospectivesPage, 'columns' | 'anonymous' | 'votes'>>(
			'select columns, anonymous, votes from retrospective where board_id = $1 order by number desc limit 1',
			[head.id],
			'retrospective-last',
		),
		rows<{ number: number }>(
			`select s.number from sprint s
			where s.board_id = $1 and s.started_at is not null
				and not exists (select from retrospective r where r.sprint_id = s.id)
			order by s.number desc limit 6`,
			[head.id],
			'retrospective-sprints',
		),
	]);
	return {
		lines,
		...(last ?? { columns: USUAL_COLUMNS, anonymous: false, votes: 3 }),
		sprints: sprints.map(({ number }) => number),
	};
}

/**
 * A retrospective as somebody sees it: of notes that lie face down their own, and how many there are.
 * @throws Problem 404 when the board has none of that number
 */
export async function retrospectivePage(head: BoardHead, number: number): Promise<RetrospectivePage> {
	if (!Number.isSafeInteger(number) || number > 2_147_483_647 || number < 1) throw notFound('retrospective');
	const [found] = await rows<Omit<RetrospectivePage, 'facts'>>(
		`select r.id, r.number, s.number as sprint, r.columns, r.anonymous, r.votes, r.phase, r.opened_at as "openedAt",
			(select coalesce(sum(v.votes), 0)::int from retro_vote v join retro_note n on n.id = v.note_id
				where n.retrospective_id = r.id and v.person_id = $2) as given,
			(select count(distinct v.person_id)::int from retro_vote v join retro_note n on n.id = v.note_id
				where n.retrospective_id = r.id) as voters,
			(select coalesce(json_agg(json_build_object('id', n.id, 'place', n.place, 'words', n.words, 'on', n.on_id, 'votes', n.votes,
				'author', case when p.id is not null then json_build_object('name', p.name, 'initials', p.initials) end,
				'mine', n.author_id is not distinct from $2::uuid, 'given', coalesce(v.votes, 0))), '[]')
			from retro_note n
			left join person p on p.id = n.author_id
			left join retro_vote v on v.note_id = n.id and v.person_id = $2
			where n.retrospective_id = r.id and (r.phase <> 'write' or n.author_id = $2)) as notes,
			(select json_agg((select count(*) from retro_note n where n.retrospective_id = r.id and r.phase = 'write' and n.place = i - 1) order by i)
			from generate_series(1, cardinality(r.columns)) i) as down,
			(select coalesce(json_agg(${ACTION} order by a.position), '[]')
			from retro_action a where a.retrospective_id = r.id and a.withdrawn_at is null) as actions,
			'[]'::json as before
		from retrospective r
		left join sprint s on s.id = r.sprint_id
		where r.board_id = $1 and r.number = $3`,
		[head.id, head.me, number],
		'retrospective',
	);
	if (!found) throw notFound('retrospective');
	const [before, facts] = await Promise.all([
		rows<{ action: RetroAction }>(
			`select ${ACTION} as action
			from retro_action a
			join retrospective r on r.id = a.retrospective_id and r.board_id = $1 and r.number < $3
			left join card done on done.id = a.card_id
			where a.withdrawn_at is null and (r.number = (select max(l.number) from retrospective l where l.board_id = $1 and l.number < $3)
				or case when a.card_id is null then a.done_at is null else done.clock <> 'done' and done.archived_at is null end)
			order by r.number desc, a.position
			limit 100`,
			[head.id, head.me, number],
			'retrospective-before',
		),
		found.sprint === null ? latelyOf(head) : factsOfSprint(head, found.sprint),
	]);
	return { ...found, before: before.map(({ action }) => action), facts };
}

async function factsOfSprint(head: BoardHead, sprint: number): Promise<RetroFact[]> {
	return factsOf(await reportPage(head, sprint), head.unit, `/boards/${head.slug}/look-back/${sprint}`);
}

/** What the last two weeks were like, where it is about no sprint. */
async function latelyOf(head: BoardHead): Promise<RetroFact[]> {
	const [found] = await rows<{ done: number; hand: number; blocked: number }>(
		`select count(*) filter (where clock = 'done' and finished_at > $3::timestamptz - interval '14 days')::int as done,
			count(*) filter (where clock = 'running')::int as hand,
			count(*) filter (where clock = 'running' and blocked_since is not null)::int as blocked
		from card c where board_id = $1 and archived_at is null and may_see(c, $2)`,
		[head.id, head.me, now()],
		'retrospective-lately',
	);
	const { done, hand, blocked } = found!;
	return [
		{
			words: `${count(done, 'card')} ${done === 1 ? 'was' : 'were'} finished in the last two weeks.`,
			href: `/boards/${head.slug}/flow`,
		},
		{
			words: `${count(hand, 'card')} ${hand === 1 ? 'is' : 'are'} in hand now, ${blocked} of them blocked.`,
			href: `/boards/${head.slug}`,
		},
	];
}
