/** Ways of telling somebody: in Harrow, and by mail at once or once a day besides; or not at all. */
export const WAYS = ['harrow', 'mail', 'digest', 'none'] as const;
export type Way = (typeof WAYS)[number];

/** What a notice can be about, strongest first: how the choice of it is called, and how people are told who chose nothing. */
export const NOTICE_KINDS = {
	asked: { called: 'Somebody asks you', way: 'harrow' },
	answered: { called: 'What you asked is answered', way: 'harrow' },
	mentioned: { called: 'You are mentioned', way: 'harrow' },
	given: { called: 'A card is given to you', way: 'harrow' },
	'taken-away': { called: 'A card is taken from you', way: 'harrow' },
	review: { called: 'You are asked to review a card', way: 'harrow' },
	watch: { called: 'You are asked to watch a card', way: 'harrow' },
	replied: { called: 'Somebody answers where you talked', way: 'harrow' },
	blocked: { called: 'A card that you watch is blocked', way: 'harrow' },
	unblocked: { called: 'It is unblocked', way: 'harrow' },
	waited: { called: 'What a card of yours waited for is finished', way: 'harrow' },
	finished: { called: 'A card that you watch or gave is finished', way: 'harrow' },
	due: { called: 'A card of yours is due soon', way: 'harrow' },
	late: { called: 'A card of yours is late', way: 'harrow' },
	reminder: { called: 'A reminder comes due', way: 'harrow' },
	'review-due': { called: 'Your review is due soon', way: 'harrow' },
	moved: { called: 'It is moved', way: 'harrow' },
	dated: { called: 'It gets another due date', way: 'harrow' },
	said: { called: 'Something is said on it', way: 'harrow' },
	noted: { called: 'Notes or files of a page that you watch change', way: 'harrow' },
	archived: { called: 'It is archived', way: 'harrow' },
	private: { called: 'It is made private, or open again', way: 'harrow' },
	'sprint-started': { called: 'A sprint is started', way: 'harrow' },
	'sprint-over': { called: 'A sprint is past its end and not settled', way: 'harrow' },
	'sprint-settled': { called: 'A sprint is settled', way: 'harrow' },
	'over-promise': { called: 'You hold more of a sprint than your hours promise', way: 'harrow' },
	budget: { called: 'An initiative has passed its budget', way: 'harrow' },
} as const satisfies Record<string, { called: string; way: Way }>;

export type NoticeKind = keyof typeof NOTICE_KINDS;

/** So many working days before a day somebody can be told of it at most. */
export const MOST_BEFORE = 10;

export const NOTICE_NAMES = Object.keys(NOTICE_KINDS) as NoticeKind[];

/** How somebody wants to be told: kind by kind, and on one board otherwise than elsewhere. What is not said is as it is for all. */
export interface NoticeChoices {
	/** So many working days before it is due one is told of a card, or of a review; 1 where it is not said. */
	before?: number;
	/** At which hour, where one is, the daily digest comes; at 8 where it is not said. */
	digest?: number;
	/** From which hour to which no mail comes at once. */
	quiet?: [number, number] | null;
	kinds?: Partial<Record<NoticeKind, Way>>;
	/** By ids of boards; `all` stands for every kind that is not named. */
	boards?: Record<string, Partial<Record<NoticeKind | 'all', Way>>>;
}

/** How somebody is told of a kind of thing on a board. The door asks the same in SQL. */
export function wayOf(choices: NoticeChoices, kind: NoticeKind, board: string): Way {
	const here = choices.boards?.[board];
	return here?.[kind] ?? here?.all ?? choices.kinds?.[kind] ?? NOTICE_KINDS[kind].way;
}
