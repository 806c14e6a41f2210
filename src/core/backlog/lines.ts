/** Where a sprint would be full, in a backlog: below the card at this index. */
export interface SprintLine {
	below: number;
	/** 1 for the sprint that is planned next, 2 for the one after it … */
	sprint: number;
	/** Work above the line since the one before it. */
	holds: number;
}

/**
 * The lines in a backlog where the team's usual sprints would end: the first when what is free in the next sprint is
 * used up, each further one a usual sprint later. A card goes to the sprint in which its work ends; cards on a sprint's
 * list and parts of other cards weigh nothing.
 * @param weights what is left of each card, in order
 * @param free what the next sprint can still take
 * @param usual what a usual sprint finishes; nothing is said at 0 or less
 */
export function sprintLines(
	weights: readonly number[],
	free: number,
	usual: number,
	most = 12,
): SprintLine[] {
	if (!(usual > 0)) return [];
	const lines: SprintLine[] = [];
	let room = Math.max(0, free);
	let holds = 0;
	weights.forEach((weight, i) => {
		// A card larger than a whole sprint is given one to itself.
		if (weight > 0 && holds + weight > room + 1e-9 && (holds > 0 || room < usual)) {
			lines.push({ below: i - 1, sprint: lines.length + 1, holds });
			room = usual;
			holds = 0;
		}
		holds += weight;
	});
	return lines.slice(0, most);
}
