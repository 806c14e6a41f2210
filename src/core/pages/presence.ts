/** Somebody who looks at a board now: at a card of it, writing in a field. A private card is told to nobody. */
export interface Present {
	person: string;
	card: string | null;
	field: string | null;
}
