import type { Spent } from '../account/spent.ts';
import type { NotesChange } from '../talk/notes.ts';
import type { Attachment, CardEvent, NamedCard } from './card.ts';
import type { InitiativeFigures, PanoramaBoard } from './panorama.ts';

/** The page of a board, or of one of its initiatives: talk, notes and files that are of no single card. */
export interface OwnPage {
	/** The name of the initiative whose page it is; null: the board's own. */
	initiative: string | null;
	/** Markdown. */
	notes: string;
	version: number;
	/** Who changed the notes, and what, the latest first. */
	changes: NotesChange[];
	files: Attachment[];
	/** What was said, oldest first. */
	history: CardEvent[];
	/** Cards that notes and talk name by their keys, as far as whoever looks may see them. */
	named: Record<string, NamedCard>;
	/** Ids of those who are told of what is said here; whether whoever looks is among them. */
	told: string[];
	watching: boolean;
}

/** An initiative on its own page, beside what every place of its board knows. */
export interface InitiativePage {
	figures: InitiativeFigures;
	/** The boards on which its cards lie, as far as one sees them. */
	boards: Pick<PanoramaBoard, 'id' | 'name' | 'slug' | 'key' | 'unit'>[];
	/** The stages of the team. */
	stages: { name: string; limit: number | null }[];
	/** What was worked for it, by whom, when, on which card; people’s names and cards’ titles beside it. */
	spent: Spent[];
	people: Record<string, string>;
	titles: Record<string, string>;
	page: OwnPage;
}
