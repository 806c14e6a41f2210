/** What a notice is about: a card, the page of a board or an initiative, or a board as a whole. */
interface About {
	board: { slug: string };
	card: { key: string } | null;
	page: { initiative: string | null } | null;
}

/** Where what a notice is about is looked at. */
export function noticeAddress({ card, page, board }: About): string {
	if (card) return `/cards/${card.key}`;
	const of = `/boards/${board.slug}`;
	if (!page) return of;
	return page.initiative === null
		? `${of}/about`
		: `${of}/initiatives/${encodeURIComponent(page.initiative)}`;
}
