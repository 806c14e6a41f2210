import { fsum } from 'd3-array';
import type { BoardHead } from '$core/pages/board';
import { count, list } from '../words';

interface Words {
	text: string;
	tone?: 'strong' | 'care' | 'warn';
}

/** What a board's set-up says of itself, and what is still missing. */
export function setUpSentence(head: BoardHead): Words[] {
	const { columns } = head;
	const slots = fsum(columns, (column) => column.limit ?? 0);
	const clock = columns.find((column) => column.commitment);
	const words: Words[] = [];
	if (head.away) words.push({ text: `${head.name} is put away. `, tone: 'warn' });
	words.push({
		text: `${head.name} has ${count(columns.length, 'column')}${slots ? ` and ${count(slots, 'slot')}` : ''}. `,
		tone: 'strong',
	});
	if (clock) words.push({ text: `A card’s clock starts in ${clock.name}. ` });
	const missing = missingOf(head);
	if (missing.length) words.push({ text: `${missing.join(' ')} `, tone: 'care' });
	words.push({ text: 'Changes show on everybody’s board at once and can be undone.' });
	return words;
}

/** What nobody has said yet. */
function missingOf({ columns, people }: BoardHead): string[] {
	const bare = columns.filter((column) => !column.policy && column.kind !== 'done');
	const missing: string[] = [];
	if (bare.length && bare.length <= 3)
		missing.push(
			`${list(bare.map((column) => column.name))} ${bare.length === 1 ? 'has' : 'have'} no policy.`,
		);
	else if (bare.length) missing.push(`${bare.length} columns have no policy.`);
	if (!columns.some((column) => column.limit !== null)) missing.push('No column has slots.');
	if (people.filter((person) => !person.gone).length === 1) missing.push('Nobody else is in the team yet.');
	return missing;
}
