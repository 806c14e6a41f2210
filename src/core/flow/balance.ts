import { fsum } from 'd3-array';

/** Little's law over a window: is the work in hand what throughput and cycle time imply? */
export interface LittlesLaw {
	meanWip: number;
	throughputPerDay: number;
	meanCycleDays: number;
	implied: number;
	/** Mean work in hand ÷ implied; null when nothing is implied. */
	ratio: number | null;
}

/**
 * Little's law: work in hand = throughput × cycle time, where cycle time is in whole elapsed days (hours ÷ 24).
 * Null when no card was finished in the window.
 * Source: J. D. C. Little, "A Proof for the Queuing Formula L = λW", 1961.
 * @param wip work in hand at the end of each day of the window
 * @param hours the hours each card finished in the window took from start to finish
 */
export function littlesLaw(wip: readonly number[], hours: readonly number[]): LittlesLaw | null {
	if (!hours.length || !wip.length) return null;
	const meanWip = fsum(wip) / wip.length;
	const throughputPerDay = hours.length / wip.length;
	const meanCycleDays = fsum(hours, (h) => h / 24) / hours.length;
	const implied = throughputPerDay * meanCycleDays;
	return { meanWip, throughputPerDay, meanCycleDays, implied, ratio: implied ? meanWip / implied : null };
}
