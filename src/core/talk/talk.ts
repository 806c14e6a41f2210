import type { CardEvent } from '../pages/card.ts';

/** Something that was said on a card. */
export interface Comment {
	seq: number;
	at: string;
	who: string | null;
	/** The id of whoever said it. */
	by: string | null;
	/** As it reads now; empty where it was taken back. */
	text: string;
	changed: boolean;
	withdrawn: boolean;
	/** It was said on the board that the card stood on before: nobody answers it any more. */
	old: boolean;
	replies: Comment[];
}

const isOf = (event: CardEvent, kind: string) => event.kind === kind && !event.undone;
const held = (event: CardEvent, key: string) => event.after?.[key] as number | undefined;

/**
 * What was said on a card, as it reads now: answers stand below what they answer.
 * @param history of the card, the earliest first
 */
export function talkOf(history: readonly CardEvent[]): Comment[] {
	const all = new Map<string, Comment>();
	const top: Comment[] = [];
	const key = (event: CardEvent, seq: number) => `${event.old ?? false} ${seq}`;
	for (const event of history) {
		if (event.kind === 'comment') {
			const comment: Comment = {
				...{ seq: event.seq, at: event.at, who: event.who, by: event.by ?? null },
				text: event.undone ? '' : event.value,
				changed: false,
				withdrawn: event.undone,
				old: event.old ?? false,
				replies: [],
			};
			all.set(key(event, event.seq), comment);
			const root = all.get(key(event, held(event, 'replyTo') ?? 0));
			(root?.replies ?? top).push(comment);
		}
		const of = all.get(key(event, held(event, 'of') ?? 0));
		if (of && isOf(event, 'comment-changed') && !of.withdrawn) {
			of.text = event.value;
			of.changed = true;
		}
		if (of && isOf(event, 'comment-withdrawn')) {
			of.text = '';
			of.withdrawn = true;
		}
	}
	return top;
}

/** A history that says no more what somebody has taken back, nor how what they changed read before. */
export function asSaid(history: readonly CardEvent[]): CardEvent[] {
	/** The events that hold what is said now. */
	const stands = new Map<string, CardEvent | null>();
	for (const event of history) {
		const old = event.old ?? false;
		if (event.kind === 'comment') stands.set(`${old} ${event.seq}`, event.undone ? null : event);
		const of = `${old} ${held(event, 'of')}`;
		if (isOf(event, 'comment-changed') && stands.get(of)) stands.set(of, event);
		if (isOf(event, 'comment-withdrawn')) stands.set(of, null);
	}
	const kept = new Set(stands.values());
	return history.map((event) =>
		(event.kind === 'comment' || event.kind === 'comment-changed') && !kept.has(event)
			? { ...event, value: '' }
			: event,
	);
}
