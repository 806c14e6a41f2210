import { untrack } from 'svelte';
import { SvelteSet } from 'svelte/reactivity';
import type { RetrospectivePage } from '$core/pages/retrospective';
import type { Command, CommandInput } from '../../commands';
import { draftOf, keepDraft } from '../drafts';
import { OwnNotes } from './own-notes.svelte';

/** A note of one’s own, by its id; of an anonymous one also the key that it is held by on this device. */
export interface LyingNote {
	id: string;
	key?: string;
	words: string;
}

type Tell = <C extends Command>(command: C, input: CommandInput<C>) => Promise<boolean>;

/** Notes of a retrospective as somebody writes them: what is begun stays, and anonymous ones are known on this device only. */
export class Writing {
	/** What is begun and not written yet, column by column. */
	begun = $state<Record<number, string>>({});
	private readonly under = new SvelteSet<number>();
	private readonly own = $derived.by(() => new OwnNotes(this.retro().id));

	/**
	 * Made where a component begins.
	 * @param tell sends a command about it; gives whether it was kept
	 */
	constructor(
		private readonly board: () => string,
		private readonly retro: () => RetrospectivePage,
		private readonly tell: Tell,
	) {
		$effect(() => {
			const { id, columns } = retro();
			const drafts = columns.map((_, place) => draftOf(`note-${id}-${place}`) ?? '');
			untrack(() => (this.begun = Object.fromEntries(drafts.entries())));
		});
		$effect(() => {
			if (retro().phase !== 'write') untrack(() => this.own.forget());
		});
	}

	private get of() {
		return { board: this.board(), retrospective: this.retro().id };
	}

	/** Keeps what is begun, or forgets it. */
	draft(place: number, words: string): void {
		keepDraft(`note-${this.retro().id}-${place}`, words || null);
	}

	async write(place: number): Promise<void> {
		const words = (this.begun[place] ?? '').trim();
		if (!words || this.under.has(place)) return;
		this.under.add(place);
		const { anonymous, phase } = this.retro();
		const key = anonymous && phase === 'write' ? OwnNotes.key() : undefined;
		if (await this.tell('WriteNote', { ...this.of, place, words, ...(key ? { key } : {}) })) {
			if (key) this.own.put({ key, place, words });
			this.begun[place] = '';
			this.draft(place, '');
		}
		this.under.delete(place);
	}

	/** One’s own notes of a column that lie face down. */
	mineIn(place: number): LyingNote[] {
		const { anonymous, notes } = this.retro();
		return anonymous
			? this.own.list
					.filter((note) => note.place === place)
					.map(({ key, words }) => ({ id: key, key, words }))
			: notes.filter((note) => note.place === place);
	}

	async change(note: Omit<LyingNote, 'words'>, place: number, words: string): Promise<void> {
		const kept = await this.tell('ChangeNote', { ...this.of, ...named(note), words });
		if (kept && note.key) this.own.put({ key: note.key, place, words });
	}

	async withdraw(note: LyingNote): Promise<void> {
		const kept = await this.tell('WithdrawNote', { ...this.of, ...named(note) });
		if (kept && note.key) this.own.take(note.key);
	}
}

const named = ({ id, key }: Omit<LyingNote, 'words'>) => (key ? { key } : { note: id });
