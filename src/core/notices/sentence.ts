import { format, parseISO } from 'date-fns';
import { CARD_EVENTS } from '../events/card-events.ts';
import { BOARD_EVENTS } from '../events/board-events.ts';
import type { BoardEventName, CardEventName } from '../events/kinds.ts';
import type { Happened } from '../events/event.ts';
import type { NoticeKind } from './kinds.ts';

/** An event as a notice tells it. */
export interface ToldEvent extends Happened {
	kind: string;
	/** What it is to whoever is told. */
	as: NoticeKind;
	/** It is about a card, not about a board as a whole. */
	card: boolean;
	/** Of amounts on its board: ` h`, ` points` or nothing. */
	unit: string;
}

const MOST_WORDS = 240;

/** The words of a comment on one line, without the marks of Markdown, cut where they are many. */
export function plainWords(text: string): string {
	const plain = text
		.replace(/```[\s\S]*?(```|$)/g, ' … ')
		.replace(/!?\[([^\]]*)\]\([^)]*\)/g, '$1')
		.replace(/^\s*(#{1,6}|>|[-*+]|\d+\.)\s+/gm, '')
		.replace(/(\*\*|__|~~|`)/g, '')
		.replace(/\s+/g, ' ')
		.trim();
	return plain.length > MOST_WORDS ? `${plain.slice(0, MOST_WORDS).trimEnd()}…` : plain;
}

/** What happened, in a sentence to whoever is told: `Ines Okoro gave it to you.` */
export function noticeSentence(event: ToldEvent): string {
	const who = event.who ?? 'Somebody';
	const words = () => (event.value ? `“${plainWords(event.value)}”` : 'something that was taken back.');
	switch (event.as) {
		case 'given':
			return `${who} gave it to you.`;
		case 'taken-away':
			return `${who} took it from you.`;
		case 'review':
			return `${who} asks you to review it.`;
		case 'watch':
			return `${who} asks you to watch it.`;
		case 'asked':
			return `${who} asks you: ${words()}`;
		case 'answered':
			return `${who} answers you: ${words()}`;
		case 'mentioned':
			return `${who} names you: ${words()}`;
		case 'replied':
		case 'said':
			return `${who}: ${words()}`;
		case 'waited':
			return `${who} finished it: what waited for it can go on.`;
		case 'finished':
			return `${who} finished it.`;
	}
	if (event.as === 'budget') return BOARD_EVENTS['budget-passed'].says(event);
	if (event.as === 'noted') return notedSentence(event, who);
	if (!event.card) return `${who}: ${BOARD_EVENTS[event.kind as BoardEventName].says(event)}`;
	const { says } = CARD_EVENTS[event.kind as CardEventName];
	return `${who} ${says(event, { place: '', size: null, unit: event.unit })}`;
}

/** What happened to the notes or files of a page. */
const notedSentence = ({ kind, value }: ToldEvent, who: string): string =>
	kind === 'attached' ? `${who} put a file there: ${value}.` : `${who} changed the notes.`;

/** What somebody is reminded of: `You wanted to be reminded: call the yard.` */
export function reminderSentence(by: string | null, words: string): string {
	const what = plainWords(words).replace(/[.\s]+$/, '');
	return `${by ? `${by} reminds you` : 'You wanted to be reminded'}${what ? `: ${what}` : ''}.`;
}

/** That a day is near, or has passed, in a sentence to whoever is told. */
export function daySentence(kind: NoticeKind, day: string, sprint: string | null): string {
	const on = format(parseISO(day), 'EEE d MMM');
	switch (kind) {
		case 'late':
			return `It was due on ${on}, and is not finished.`;
		case 'review-due':
			return `You are to review it by ${on}.`;
		case 'over-promise':
			return `You hold more of ${sprint ?? 'the sprint'}, which ends on ${on}, than your hours promise.`;
		case 'sprint-over':
			return `${sprint ?? 'The sprint'} ended on ${on}, and is not settled.`;
		default:
			return `It is due on ${on}.`;
	}
}
