import type { SettlePage } from '../../../core/board/settling.ts';
import type { BoardHead, CardView } from '../../../core/board/view.ts';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';
import { CARD_VIEW } from './card-view.ts';
import { accountsOf } from './fold.ts';
import { planPage } from './plan.ts';

/** What settling a board's running sprint needs: its unfinished cards, its ledger, and how full the next one is. */
export async function settlePage(head: BoardHead, person: Person): Promise<SettlePage> {
	const running = head.sprints.find((sprint) => sprint.startedAt && !sprint.closedAt) ?? null;
	const coming = head.sprints.find((sprint) => !sprint.startedAt) ?? null;
	const [[found], { ledgers }, plan] = await Promise.all([
		rows<{
			seq: number;
			members: boolean;
			cards: CardView[];
			checklists: SettlePage['checklists'];
			titles: Record<string, string>;
			last: (NonNullable<SettlePage['last']> & { mine: boolean }) | null;
		}>(
			`select b.last_seq as seq, b.members_settle as members,
				(select coalesce(json_agg(v order by v.rank), '[]') from (
					select ${CARD_VIEW}
					from card c
					join sprint s on s.id = c.sprint_id
					where s.board_id = b.id and s.number = $2 and c.archived_at is null and c.clock <> 'done'
				) v) as cards,
				(select coalesce(json_object_agg(c.id, c.checklist), '{}')
				from card c
				join sprint s on s.id = c.sprint_id
				where s.board_id = b.id and s.number = $2 and c.archived_at is null and c.checklist <> '[]') as checklists,
				(select coalesce(json_object_agg($3 || '-' || number, title), '{}') from card where board_id = b.id
					and ($2 > 0)) as titles,
				(select json_build_object('number', s.number, 'closedAt', s.closed_at, 'by', p.name,
					'undo', case when k.person_id = $4 and k.undone_by is null then k.id end)
				from sprint s
				left join command k on k.id = s.settled_by
				left join person p on p.id = k.person_id
				where s.board_id = b.id and s.closed_at is not null
				order by s.closed_at desc
				limit 1) as last
			from board b
			where b.id = $1`,
			[head.id, running?.number ?? 0, head.key, person.id],
			'settle',
		),
		accountsOf(head),
		coming ? planPage(head, coming.number) : null,
	]);
	const { seq, members, cards, checklists, titles, last } = found!;
	const ledger = ledgers.find((one) => one.number === running?.number) ?? null;
	const named = new Set(ledger?.stints.map((stint) => stint.card));
	return {
		seq,
		sprint: running?.number ?? null,
		ledger,
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
		titles: Object.fromEntries(Object.entries(titles).filter(([card]) => named.has(card))),
	};
}
