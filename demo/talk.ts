import { randomUUID } from 'node:crypto';
import { rows } from '../src/lib/server/database.ts';
import { obey } from '../src/lib/server/door/door.ts';
import { boardOfDemo, peopleOfDemo } from './through-the-door.ts';

/** What the people of the demo have said to one another lately, through the same door as everybody: it is what notices tell. */
const SAID: [who: string, board: string, nth: number, text: string, answers?: number][] = [
	[
		'Bram Tolver',
		'TIDE',
		0,
		'The readings of the spring tides are in. @Ines Okoro do we need the neap tides as well?',
	],
	[
		'Yuki Sandel',
		'TIDE',
		1,
		'I have put the names beside the colours. @Petra Lind, have a look when you are at the quay.',
	],
	['Ines Okoro', 'TIDE', 2, '@Bram Tolver, @Yuki Sandel: who of you can take this up before Friday?'],
	['Yuki Sandel', 'TIDE', 2, 'I can, from Thursday on.', 2],
	['Petra Lind', 'TIDE', 3, 'Checked against the harbour book: all good.'],
	['Oskar Venn', 'BUOY', 0, '@Leila Farrow is the spare battery still in the shed?'],
	['Tomas Reyl', 'BUOY', 1, '@team the crane is ours on Monday morning.'],
	[
		'Bram Tolver',
		'TIDE',
		1,
		'One of the names is cut off on small screens, @Ines Okoro. Shall I shorten it?',
	],
];

/** Which boards can be asked for something, and what they tell whoever asks. */
const ASKED: [who: string, key: string, words: string][] = [
	[
		'Ines Okoro',
		'SHORE',
		'School visits are from **Tuesday to Thursday**. Say how many come, and how old they are.',
	],
	['Ines Okoro', 'BUOY', 'Say **which buoy** it is, and what you saw. Is it adrift, call the yard instead.'],
];

/** Who wants letters, and of what: what is not here they are told in Harrow alone. */
const LETTERS: Record<string, Record<string, string>> = {
	'Ines Okoro': { asked: 'mail', mentioned: 'digest', replied: 'digest', 'sprint-over': 'mail' },
	'Petra Lind': { given: 'mail', mentioned: 'digest', due: 'digest', late: 'digest' },
	'Leila Farrow': { asked: 'mail', mentioned: 'mail', said: 'digest' },
};

/** Lets them say it on the cards that they have in hand. */
export async function talkDemo(): Promise<void> {
	const people = await peopleOfDemo();
	const cards = await rows<{ id: string; key: string; version: number }>(
		`select c.id, b.key, c.version from card c
		join board b on b.id = c.board_id
		join board_column k on k.id = c.column_id and k.kind = 'work'
		where c.clock = 'running' and c.archived_at is null and c.blocked_since is null
		order by c.number desc`,
	);
	const nth = (board: string, n: number) => cards.filter(({ key }) => key === board)[n];
	const said: number[] = [];
	const tell = (who: string, command: string, input: object) =>
		obey(people.get(who)!, { id: randomUUID(), command, input });
	for (const [who, key, words] of ASKED)
		await tell(who, 'ChangeAskPage', {
			board: await boardOfDemo(key),
			page: { words, fields: ['description', 'due'], column: null, top: false },
		});
	for (const [who, kinds] of Object.entries(LETTERS)) await tell(who, 'ChooseNotices', { kinds, boards: {} });
	for (const [who, board, n, text, answers] of SAID) {
		const card = nth(board, n);
		if (!card) continue;
		const replyTo = answers === undefined ? undefined : said[answers];
		const { seq } = await tell(who, 'CommentCard', {
			card: card.id,
			text,
			...(replyTo === undefined ? {} : { replyTo }),
		});
		said.push(seq!);
	}
	const toReview = nth('TIDE', 3);
	if (toReview)
		await tell('Petra Lind', 'AskToWatch', { card: toReview.id, people: [people.get('Ines Okoro')!.id] });
}
