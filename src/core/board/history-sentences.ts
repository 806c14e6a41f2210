import { REASONS, type Reason } from '../sprint/carry-over.ts';

/** Something that happened to a card, as its page is told of it. */
export interface CardEvent {
	seq: number;
	at: string;
	kind: string;
	value: string;
	who: string | null;
	before: Record<string, unknown> | null;
	after: Record<string, unknown> | null;
	/** It was taken back later and counts in no figure. */
	undone: boolean;
	command: string | null;
}

export interface Sentence {
	at: string;
	seq: number;
	text: string;
	undone: boolean;
}

const UNIT = { hours: ' h', points: ' points', none: '' };

/**
 * The history of a card in plain sentences.
 * @param events oldest first
 * @param unit of the card's board
 */
export function historySentences(events: readonly CardEvent[], unit: keyof typeof UNIT): Sentence[] {
	let place = '';
	let size: string | null = null;
	return events.flatMap((event) => {
		const say = sentence(event, { place, size, unit: UNIT[unit] });
		if (!event.undone && event.kind === 'column') place = event.value;
		if (!event.undone && event.kind === 'sized') size = event.value;
		return say
			? [{ at: event.at, seq: event.seq, undone: event.undone, text: `${event.who ?? 'Someone'} ${say}` }]
			: [];
	});
}

function sentence(event: CardEvent, so: { place: string; size: string | null; unit: string }): string | null {
	const { kind, value, before, after } = event;
	switch (kind) {
		case 'created':
			return `made this card: “${value}”.`;
		case 'column': {
			const through = after?.letThrough
				? ` It was let through over the limit: ${String(after.letThrough)}.`
				: '';
			if (!value) return `put it back to the backlog from ${so.place || 'the board'}.`;
			return `${so.place ? `moved it from ${so.place} to ${value}` : `brought it to ${value}`}.${through}`;
		}
		case 'ordered':
			return so.place ? 'moved it within its column.' : 'moved it within the backlog.';
		case 'blocked':
			return `marked it as blocked: ${value}.`;
		case 'waits-for':
			return `said what it waits for: ${value}.`;
		case 'unblocked':
			return 'unblocked it.';
		case 'sized':
			return so.size === null
				? `sized it at ${value}${so.unit}.`
				: `changed its size from ${so.size}${so.unit} to ${value}${so.unit}.`;
		case 'left':
			return `corrected what is left to ${value}${so.unit}${after?.reason ? `: ${String(after.reason)}` : ''}.`;
		case 'worked':
			return after?.for && after.for !== event.who
				? `logged ${value} h on it for ${String(after.for)}.`
				: `worked ${value} h on it.`;
		case 'time-changed':
			return value
				? `corrected ${String(before?.hours ?? '')} h that were logged on it to ${value} h.`
				: `took back ${String(before?.hours ?? '')} h that were logged on it.`;
		case 'unfinished':
			return `said why it was not finished in sprint ${String(after?.sprint ?? '')}: ${after?.words ? String(after.words) : (REASONS[value as Reason] ?? value)}.`;
		case 'split':
			return `split off ${value}${so.unit} to another card.`;
		case 'sprint':
			return value ? `put it on sprint ${value}.` : 'took it off the sprint.';
		case 'planned':
			return value === 'yes' ? 'marked it as planned.' : 'marked it as unplanned.';
		case 'owner':
			return event.who === value ? 'took it.' : `gave it to ${value}.`;
		case 'unowner':
			return event.who === value ? 'no longer owns it.' : `took it from ${value}.`;
		case 'type':
			return value ? `made its type ${value}.` : 'took away its type.';
		case 'class':
			return `made its class ${value === 'fixed' ? 'fixed date' : value}.`;
		case 'label':
			return `labelled it ${value}.`;
		case 'unlabelled':
			return `took the label ${value} off.`;
		case 'start':
			return value ? `set its start to ${value}.` : 'took away its start.';
		case 'initiative':
			return value ? `made it part of ${value}.` : 'took it out of its initiative.';
		case 'ready':
			return value === 'yes' ? 'marked it as ready.' : 'took back that it is ready.';
		case 'part-of':
			return value ? `made it a sub-card of ${value}.` : 'let it stand by itself.';
		case 'committed':
			return `started sprint ${value} with it.`;
		case 'split-to':
			return `split card ${value} off it.`;
		case 'split-from':
			return `split it off card ${value}.`;
		case 'comment':
			return 'said something.';
		case 'linked':
			return after?.kind === 'blocks' ? `said that it blocks ${value}.` : `linked it to ${value}.`;
		case 'unlinked':
			return `took away its link to ${value}.`;
		case 'line-added':
			return `added to its checklist: ${value}.`;
		case 'line-changed':
			return `changed a checklist line to: ${value}.`;
		case 'line-done':
			return `ticked off: ${value}.`;
		case 'line-undone':
			return `has still to do: ${value}.`;
		case 'line-removed':
			return `took off its checklist: ${value}.`;
		case 'lines-ordered':
			return 'put its checklist into another order.';
		case 'due':
			return value ? `set its due date to ${value}.` : 'took away its due date.';
		case 'renamed':
			return `renamed it from “${String(before?.title ?? '')}” to “${value}”.`;
		case 'described':
			return 'changed its description.';
		case 'archived':
			return value ? `archived it: ${value}.` : 'archived it.';
		case 'restored':
			return 'restored it.';
		case 'undone':
			return 'took that back.';
		default:
			return null;
	}
}
