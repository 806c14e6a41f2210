/** The address at which a card stands open beside the page that is shown. */
export function cardAddress(here: URL, card: { number: number | string }): string {
	const url = new URL(here);
	url.searchParams.set('card', String(card.number));
	return url.pathname + url.search;
}
