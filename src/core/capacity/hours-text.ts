/**
 * Hours as people write them: `1.5`, `1,5`, `1:30`, `1h 30m`, `90m`, `2h`. To a hundredth of an hour.
 * @returns null when the text is no such figure, or nothing
 */
export function readHours(text: string): number | null {
	const plain = text.trim().toLowerCase().replace(',', '.');
	const clock = /^(\d{1,3}):([0-5]\d)$/.exec(plain);
	const words = /^(?:(\d{1,3}(?:\.\d{1,2})?)\s*h)?\s*(?:(\d{1,4})\s*m(?:in)?)?$/.exec(plain);
	let hours: number;
	if (clock) hours = Number(clock[1]) + Number(clock[2]) / 60;
	else if (/^\d{0,3}(\.\d{1,2})?$/.test(plain) && /\d/.test(plain)) hours = Number(plain);
	else if (words && (words[1] || words[2])) hours = Number(words[1] ?? 0) + Number(words[2] ?? 0) / 60;
	else return null;
	return Math.round(hours * 100) / 100;
}

/** Hours and minutes as a clock shows them: `1:12`. */
export function clockText(hours: number): string {
	const minutes = Math.round(hours * 60);
	return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`;
}
