import { draftOf, keepDraft } from '../drafts';

/** A note without an author that was written here: by its key alone Harrow knows that it is this browser’s. */
export interface OwnNote {
	key: string;
	place: number;
	words: string;
}

/** Notes that were written in this browser and lie face down, of one retrospective. Nobody else can read them back. */
export class OwnNotes {
	list = $state.raw<OwnNote[]>([]);
	private readonly of: string;

	constructor(retrospective: string) {
		this.of = `notes-${retrospective}`;
		try {
			this.list = JSON.parse(draftOf(this.of) ?? '[]') as OwnNote[];
		} catch {
			this.list = [];
		}
	}

	/** A key that nobody can guess. */
	static key(): string {
		return [...crypto.getRandomValues(new Uint8Array(24))]
			.map((byte) => byte.toString(16).padStart(2, '0'))
			.join('');
	}

	put(note: OwnNote): void {
		this.keep([...this.list.filter(({ key }) => key !== note.key), note]);
	}

	take(key: string): void {
		this.keep(this.list.filter((note) => note.key !== key));
	}

	/** They were turned over: whose they were is known nowhere any more. */
	forget(): void {
		if (this.list.length) this.keep([]);
	}

	private keep(list: OwnNote[]): void {
		this.list = list;
		keepDraft(this.of, list.length ? JSON.stringify(list) : null);
	}
}
