import type { Present } from '$core/pages/presence';

const PAUSE_MS = 300;

/** Who looks at a board now, and what this page tells the others of itself. */
export class Here {
	people = $state.raw<readonly Present[]>([]);
	/** Names this page to the server; nobody else knows it. */
	readonly page: string = crypto.randomUUID();
	private card: string | null = null;
	private field: string | null = null;
	private told = ' ';
	private timer: ReturnType<typeof setTimeout> | undefined;

	constructor(private readonly slug: () => string) {}

	hear(data: string): void {
		this.people = (JSON.parse(data) as { people: Present[] }).people;
	}

	/** The ids of people who look at the board, or at one card of it; each once. */
	who(card?: string): string[] {
		const meant = this.people.filter((one) => card === undefined || one.card === card);
		return [...new Set(meant.map(({ person }) => person))];
	}

	/** Says which card is open on this page. */
	open(card: string | null): void {
		this.card = card;
		this.field = null;
		this.say();
	}

	/** Says in which field of it somebody writes here. */
	writes(field: string | null): void {
		this.field = field;
		this.say();
	}

	/** The stream has come back: the server may have forgotten what was said. */
	again(): void {
		this.told = ' ';
		if (this.card) this.say();
	}

	private say(): void {
		clearTimeout(this.timer);
		this.timer = setTimeout(() => {
			const body = JSON.stringify({ page: this.page, card: this.card, field: this.field });
			if (body === this.told) return;
			this.told = body;
			// Nobody waits for this, and where it is lost nothing is.
			void fetch(`/api/boards/${this.slug()}/here`, {
				method: 'POST',
				headers: { 'content-type': 'application/json' },
				body,
			}).catch(() => undefined);
		}, PAUSE_MS);
	}
}
