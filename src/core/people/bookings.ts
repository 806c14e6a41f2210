/** The parts of a day for which somebody can be put down, as ranges of its halves. */
export const HALVES = { day: '[0,2)', morning: '[0,1)', afternoon: '[1,2)' } as const;
export type DayPart = keyof typeof HALVES;

/** The part that a range of halves is. */
export const partOf = (halves: string): DayPart =>
	halves === HALVES.morning ? 'morning' : halves === HALVES.afternoon ? 'afternoon' : 'day';
