/**
 * Places for labels so that none lies on another: each as near as it can be to where it belongs, in the same order.
 * @param wanted where each label would like to be, in pixels, in any order
 * @param gap the least distance between two labels
 * @param low the first and @param high the last place allowed; when there is too little room, labels overlap evenly
 */
export function dodge(wanted: readonly number[], gap: number, low: number, high: number): number[] {
	const order = wanted.map((_, i) => i).sort((a, b) => wanted[a]! - wanted[b]! || a - b);
	const room = order.length > 1 ? Math.min(gap, (high - low) / (order.length - 1)) : gap;
	const placed = new Array<number>(wanted.length);
	let next = low;
	for (const i of order) {
		placed[i] = Math.max(next, wanted[i]!);
		next = placed[i]! + room;
	}
	let last = high;
	for (const i of order.toReversed()) {
		placed[i] = Math.min(last, placed[i]!);
		last = placed[i]! - room;
	}
	return placed;
}
