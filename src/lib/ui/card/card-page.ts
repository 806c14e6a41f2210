import type { CardView } from '$core/pages/board';
import type { TimeEntry } from '$core/pages/time';
import type { CardEvent } from '$core/board/history-sentences';

/** A card with all that belongs to it, as its panel shows it. */
export interface CardPage extends CardView {
	key: string;
	board: string;
	description: string;
	created: string;
	archivedReason: string | null;
	checklist: { id: string; text: string; done: boolean }[];
	links: {
		kind: 'blocks' | 'relates' | 'split';
		number: number;
		title: string;
		done: boolean;
		comes: boolean;
	}[];
	parentCard: { id: string; number: number; title: string } | null;
	children: { id: string; number: number; title: string; size: number | null; left: number; done: boolean }[];
	/** Time logged on it, the latest day first. */
	time: TimeEntry[];
	history: CardEvent[];
}
