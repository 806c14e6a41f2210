/** A card as pasted lines describe it. */
export interface PastedCard {
	title: string;
	/** In hours or points, as the line said; null when it named none. */
	size: number | null;
	checklist: { text: string; done: boolean }[];
	children: Omit<PastedCard, 'children'>[];
}

const SIZE = /\s+(\d+(?:[.,]\d+)?)\s*(h|hours?|pt|pts|points?)\.?$/i;
const CHECK = /^[-*+]?\s*\[([ xX]?)\]\s*(.*)$/;
const BULLET = /^(?:[-*+•]|\d+[.)])\s+/;

/**
 * Reads lines as cards: one line a card. An indented line is a sub-card of the last line that is not; a line such as
 * `- [ ] call the harbour` is a checklist line of the card above it; a size such as `8h` or `5 pt` may end a line.
 * @param unit of the board: a size in the other unit stays part of the title
 */
export function readPaste(text: string, unit: 'hours' | 'points' | 'none'): PastedCard[] {
	const cards: PastedCard[] = [];
	let above: Omit<PastedCard, 'children'> | null = null;
	for (const raw of text.replace(/\r\n?/g, '\n').split('\n')) {
		const line = raw.trim();
		if (!line) continue;
		const check = CHECK.exec(line);
		if (check && above) {
			if (check[2]!.trim()) above.checklist.push({ text: check[2]!.trim(), done: /x/i.test(check[1]!) });
			continue;
		}
		const words = (check ? check[2]! : line.replace(BULLET, '')).trim();
		if (!words) continue;
		const read = sizeOf(words, unit);
		const parent = /^\s/.test(raw) ? cards.at(-1) : undefined;
		above = { ...read, checklist: [] };
		if (parent) parent.children.push(above);
		else {
			const card: PastedCard = { ...read, checklist: [], children: [] };
			cards.push(card);
			above = card;
		}
	}
	return cards;
}

/** A title and the size at its end, where there is one in the board's unit. */
function sizeOf(words: string, unit: 'hours' | 'points' | 'none'): { title: string; size: number | null } {
	const found = SIZE.exec(words);
	const named = found && (/^h/i.test(found[2]!) ? 'hours' : 'points');
	if (!found || named !== unit || found.index === 0) return { title: words, size: null };
	const size = Math.round(Number(found[1]!.replace(',', '.')) * 100) / 100;
	return size > 9999 ? { title: words, size: null } : { title: words.slice(0, found.index).trim(), size };
}
