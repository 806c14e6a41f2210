import type { SettlePage } from '../../../core/pages/settling.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';
import { accountsOf } from './fold.ts';
import { listsOf } from './ledger-lists.ts';
import { openCardsOf } from './open-cards.ts';
import { planPage } from './plan.ts';
import { titlesOf } from './titles.ts';

/** What settling a board's running sprint needs: its unfinished cards, its ledger, and how full the next one is. */
export async function settlePage(head: BoardHead, person: Person): Promise<SettlePage> {
	const running = head.sprints.find((sprint) => sprint.startedAt && !sprint.closedAt) ?? null;
	const coming = head.sprints.find((sprint) => !sprint.startedAt) ?? null;
	const [[found], open, { ledgers }, plan] = await Promise.all([
		rows<{
			members: boolean;
			checklists: SettlePage['checklists'];
			last: (NonNullable<SettlePage['last']> & { mine: boolean }) | null;
		}>(
			`select b.members_settle as members,
				(select coalesce(json_object_agg(c.id, c.checklist), '{}')
				from card c
				join sprint s on s.id = c.sprint_id
				where s.board_id = b.id and s.number = $2 and c.archived_at is null and c.checklist <> '[]' and may_see(c, $3)) as checklists,
				(select json_build_object('number', s.number, 'closedAt', s.closed_at, 'by', p.name,
					'undo', case when k.person_id = $3 and k.undone_by is null then k.id end)
				from sprint s
				left join command k on k.id = s.settled_by
				left join person p on p.id = k.person_id
				where s.board_id = b.id and s.closed_at is not null
				order by s.closed_at desc
				limit 1) as last
			from board b
			where b.id = $1`,
			[head.id, running?.number ?? 0, person.id],
			'settle',
		),
		openCardsOf(
			head,
			`sprint ${running?.number}`,
			(card) => card.sprint !== null && card.sprint === running?.number,
		),
		accountsOf(head),
		coming ? planPage(head, coming.number) : null,
	]);
	const { members, checklists, last } = found!;
	const { seq, cards } = open;
	const unfinished = new Set(cards.map(({ number }) => `${head.key}-${number}`));
	const ledger = ledgers.find((one) => one.number === running?.number) ?? null;
	return {
		seq,
		sprint: running?.number ?? null,
		// How it came to be so nobody asks for here.
		ledger: ledger && { ...ledger, stints: listsOf(ledger).stints, moves: [] },
		cards,
		checklists,
		next: plan && {
			number: coming!.number,
			people: plan.people,
			learned: plan.learned,
			cards: plan.cards.filter((card) => card.sprint === coming!.number),
		},
		maySettle: head.role === 'lead' || (head.role === 'member' && members),
		last: last && {
			number: last.number,
			closedAt: last.closedAt,
			by: last.by,
			undo: running ? null : last.undo,
		},
		titles: await titlesOf(
			head,
			ledger?.stints.flatMap(({ card }) => (unfinished.has(card) ? [] : card)) ?? [],
		),
	};
}
