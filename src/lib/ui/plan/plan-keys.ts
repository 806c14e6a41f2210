import type { CardView } from '$core/pages/board';
import type { Ask } from '../board/ask';
import type { Picked } from '../board/picked.svelte';
import { pressed, type Does } from '../frame/keymap';
import type { PlanAsk } from './ask';
import { rowId, type InRow, type PlanSpot } from './plan-spot.svelte';
import type { PlanState } from './plan-state.svelte';

/** What keys of a plan work on. */
interface On {
	plan: PlanState;
	spot: PlanSpot;
	picked: Picked;
	/** Whether single keys do something. */
	single: boolean;
	mayEdit: boolean;
	/** What an action on a card speaks of. */
	meant: (card: CardView) => CardView[];
	/** Gives cards to a person, to nobody, or back to the backlog; from whom, where several have it. */
	give: (cards: CardView[], to: string, from?: string) => unknown;
	/** Asks something about the plan, or about cards. */
	onask: (ask: PlanAsk) => void;
	oncards: (ask: Ask) => void;
	onundo: () => void;
	onkeys: () => void;
}

/** Does what a key means on a plan. */
export function onPlanKey(event: KeyboardEvent, on: On): void {
	const { plan, spot, picked, meant } = on;
	const target = event.target as HTMLElement;
	if (target.matches('input:not([type="checkbox"]), textarea, select')) return;
	const does = pressed('plan', event, { single: on.single, write: on.mayEdit });
	if (!does || does === 'find' || does === 'open') return;
	if (does === 'unpick' && !picked.ids.size) return;
	const { key } = event;
	const block = spot.inRow(target);
	const id = block ? undefined : target.closest<HTMLElement>('li[data-card]')?.dataset.card;
	const at = plan.backlog.findIndex((one) => one.id === id);
	const card = block?.card ?? plan.backlog[at];
	if (!card && does !== 'undo' && does !== 'help' && does !== 'unpick') return;
	const acts: Record<Exclude<Does<'plan'>, 'find' | 'open'>, () => unknown> = {
		go: () => (block ? spot.goInRows(block, key) : spot.goInBacklog(at, key)),
		along: () =>
			block
				? spot.goInRows(block, key)
				: key === 'ArrowRight' && on.mayEdit && on.onask({ kind: 'give', cards: meant(card!) }),
		hand: () => block && handOn(on, block, key),
		'take-out': () => block && takeOut(on, block),
		pick: () => picked.pick(card!, false),
		unpick: () => picked.clear(),
		give: () => on.onask({ kind: 'give', cards: meant(card!) }),
		size: () => !card!.parts && on.oncards({ kind: 'size', card: card! }),
		owners: () => on.oncards({ kind: 'owners', cards: meant(card!) }),
		undo: on.onundo,
		help: on.onkeys,
	};
	event.preventDefault();
	acts[does]();
}

/** Gives a card of a row to the next person up or down. */
function handOn({ plan, spot, meant, give }: On, { at, row, card }: InRow, key: string): void {
	const target = plan.rows[at + (key === 'ArrowUp' ? -1 : 1)];
	if (!target || (key !== 'ArrowUp' && key !== 'ArrowDown')) return;
	give(meant(card), rowId(target), row.person?.id);
	void spot.focusIn(target, card);
}

function takeOut({ spot, meant, give }: On, { row, index, card }: InRow): void {
	const next = row.blocks[index + 1] ?? row.blocks[index - 1];
	give(meant(card), 'backlog');
	if (next) void spot.focusIn(row, next.card);
}
