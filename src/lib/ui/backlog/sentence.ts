import type { BacklogPage } from '$core/pages/plan';
import type { BoardHead, CardView } from '$core/pages/board';
import { leftOf } from '$core/board/left';
import { amount, count } from '../words';

/** The backlog in a sentence: how much waits, how long it takes, what is not sized yet. */
export function backlogSentence(
	head: Pick<BoardHead, 'unit' | 'sprintDays'>,
	cards: readonly CardView[],
	page: Pick<BacklogPage, 'usual' | 'next'>,
): { waits: string; takes: string; unsized: number; ready: number } {
	const leaves = cards.filter((card) => !card.parts);
	const sized = leaves.filter((card) => card.size !== null);
	const loose = leaves.filter((card) => card.sprint === null);
	const left = leftOf(sized);
	const looseSized = loose.filter((card) => card.size !== null);
	const looseLeft = leftOf(looseSized);
	const each = looseSized.length ? looseLeft / looseSized.length : 0;
	const work = looseLeft + (loose.length - looseSized.length) * each;
	const waits =
		cards.length === 0
			? 'Nothing waits'
			: `${count(cards.length, 'card')} ${cards.length === 1 ? 'waits' : 'wait'}${head.unit === 'none' || !sized.length ? '' : `, ${amount(left, head.unit)} of work`}`;
	const planned = leaves.length - loose.length;
	const unsizedLoose = loose.length - looseSized.length;
	// How long they take is said of the same cards and the same work as are named there.
	const takes =
		page.usual && work > 0
			? `${planned ? `the ${loose.length} on no sprint’s list` : 'they'} hold ${amount(work, head.unit)}${
					unsizedLoose ? `, ${unsizedLoose} without a size taken as the mean of the others` : ''
				}: about ${count(Math.ceil(work / page.usual - 1e-9), 'usual sprint')} of ${amount(page.usual, head.unit)}`
			: '';
	return {
		waits,
		takes,
		unsized: head.unit === 'none' ? 0 : leaves.length - sized.length,
		ready: cards.filter((card) => card.ready).length,
	};
}
