import type { RetroAction, RetrospectivePage } from '../pages/retrospective.ts';
import { count } from '../words.ts';
import { pilesOf } from './phases.ts';

const plain = (text: string) => text.replace(/\s+/g, ' ').replace(/([\\`*_{}[\]<>#|])/g, '\\$1');

/** An action as a line of Markdown: ticked where it is done. */
export function actionLine({ words, owner, due, done, card }: RetroAction): string {
	const who = [owner?.name, due && `by ${due}`, card && `${card.key}, ${card.stands}`].filter(Boolean);
	return `- [${done ? 'x' : ' '}] ${plain(words)}${who.length ? ` (${plain(who.join(', '))})` : ''}`;
}

/** A retrospective as Markdown: what was agreed first, then the notes, most votes first. */
export function retrospectiveMarkdown(retro: RetrospectivePage, board: string): string {
	const part = (title: string, lines: string[]) => (lines.length ? ['', `## ${title}`, '', ...lines] : []);
	return [
		`# ${plain(board)}: retrospective ${retro.number}${retro.sprint === null ? '' : `, of sprint ${retro.sprint}`}`,
		'',
		`Held on ${retro.openedAt.toISOString().slice(0, 10)}${retro.phase === 'closed' ? '' : ', not closed yet'}`,
		...part('Agreed', retro.actions.map(actionLine)),
		...part('Agreed earlier', retro.before.map(actionLine)),
		...part(
			'Facts',
			retro.facts.map(({ words }) => `- ${plain(words)}`),
		),
		...retro.columns.flatMap((name, place) =>
			part(
				plain(name),
				pilesOf(retro.notes, place).flatMap(({ top, under, votes }) => [
					`- ${plain(top.words)}${top.author ? `, ${plain(top.author.name)}` : ''}${votes ? ` (${count(votes, 'vote')})` : ''}`,
					...under.map(
						(note) => `  - ${plain(note.words)}${note.author ? `, ${plain(note.author.name)}` : ''}`,
					),
				]),
			),
		),
		'',
	].join('\n');
}
