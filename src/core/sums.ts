/** Sums of shares in binary fractions come out a hair off: hours are kept to a millionth. */
export function tidy(hours: number): number {
	return Math.round(hours * 1e6) / 1e6;
}
