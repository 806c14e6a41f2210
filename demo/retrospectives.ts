import { randomUUID } from 'node:crypto';
import { rows } from '../src/lib/server/database.ts';
import { obey } from '../src/lib/server/door/door.ts';
import { now } from '../src/lib/server/time.ts';
import { peopleOfDemo } from './through-the-door.ts';

const COLUMNS = ['Went well', 'Held us up', 'To try'];
/** Notes of the last retrospective of the demo: by whom, in which column, and on which earlier one they were laid. */
const NOTES: [who: string, place: number, words: string, votes: number, on?: number][] = [
	['Bram Tolver', 0, 'The alert page held through the storm', 2],
	['Yuki Sandel', 0, 'Two of us on one card: finished in a day', 0],
	['Petra Lind', 0, 'Nobody was called at night', 1],
	['Bram Tolver', 1, 'Three days of waiting for the harbour’s permit', 3],
	['Petra Lind', 1, 'Permits again', 0, 3],
	['Yuki Sandel', 1, 'Readings came in two formats', 2],
	['Ines Okoro', 1, 'We began the map before the figures were agreed', 1],
	['Ines Okoro', 2, 'Ask for permits when a card is sized, not when it is begun', 0],
	['Yuki Sandel', 2, 'No new card on Fridays', 3],
];
/** What was agreed, who sees to it, by when, and whether it is done. */
const AGREED: [words: string, who: string, days: number, done: boolean][] = [
	['Ask for permits when a card is sized', 'Bram Tolver', 9, false],
	['One format for readings, agreed with the yard', 'Yuki Sandel', 12, false],
	['Finish before beginning on Fridays', 'Ines Okoro', -4, true],
];

/** Lets them look back together on the last sprint that was settled. */
export async function lookBackDemo(): Promise<void> {
	const people = await peopleOfDemo();
	const [board] = await rows<{ id: string; sprint: number }>(
		`select b.id, max(s.number) as sprint from board b join sprint s on s.board_id = b.id and s.closed_at is not null
		where b.key = 'TIDE' group by b.id`,
	);
	if (!board) return;
	const tell = (who: string, command: string, input: object) =>
		obey(people.get(who)!, { id: randomUUID(), command, input });
	const { result } = await tell('Ines Okoro', 'HoldRetrospective', {
		board: board.id,
		sprint: board.sprint,
		columns: COLUMNS,
		anonymous: false,
		votes: 3,
	});
	const of = { board: board.id, retrospective: result.retrospective };
	const on = (from: string) => tell('Ines Okoro', 'MoveRetrospective', { ...of, from });
	for (const [who, place, words] of NOTES) await tell(who, 'WriteNote', { ...of, place, words });
	await on('write');
	const known = new Map(
		(
			await rows<{ id: string; words: string }>(
				'select id, words from retro_note where retrospective_id = $1',
				[result.retrospective],
			)
		).map(({ id, words }) => [words, id]),
	);
	const idOf = (n: number) => known.get(NOTES[n]![2])!;
	for (const [n, [who, , , , under]] of NOTES.entries())
		if (under !== undefined) await tell(who, 'LayNote', { ...of, note: idOf(n), on: idOf(under) });
	await on('lay');
	const voters = ['Ines Okoro', 'Bram Tolver', 'Yuki Sandel', 'Petra Lind'];
	let given = 0;
	for (const [n, [, , , votes]] of NOTES.entries())
		for (let vote = 0; vote < votes; vote++, given++)
			await tell(voters[given % voters.length]!, 'VoteNote', { ...of, note: idOf(n), votes: 1 });
	await on('vote');
	for (const [words, owner, days, done] of AGREED) {
		const due = new Date(now().getTime() + days * 86_400_000).toISOString().slice(0, 10);
		const agreed = await tell('Ines Okoro', 'AgreeAction', {
			...{ ...of, words, owner: people.get(owner)!.id, due, asCard: false },
		});
		if (done)
			await tell(owner, 'ChangeAction', {
				board: board.id,
				action: agreed.result.action,
				version: 1,
				done: true,
			});
	}
	await on('agree');
}
