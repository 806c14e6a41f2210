/** What an address says of how a board is looked at: which cards are shown, and how they are laid out. */
const PARTS = ['text', 'where', 'outside', 'by', 'lanes', 'sort', 'as', 'rows', 'across', 'of'];

/** Of an address only what a lens keeps, in one order: two that look the same are the same. */
export function lensQuery(params: URLSearchParams): string {
	const kept = new URLSearchParams();
	for (const part of PARTS) for (const value of params.getAll(part)) kept.append(part, value);
	return kept.toString();
}
