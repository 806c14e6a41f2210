import type { Instant } from '../calendar/zone.ts';
import type { BoardSprint } from './board.ts';

/** A sprint that starts or closes at an instant. */
export interface Edge {
	at: Instant;
	order: number;
	kind: 'start' | 'close';
	sprint: BoardSprint;
}

/** What starts and closes in time order: at one instant what closes, then what starts; what closes the instant it starts, after its start. */
export function edgesOf(sprints: readonly BoardSprint[]): Edge[] {
	const edges: Edge[] = [];
	for (const sprint of sprints) {
		if (sprint.startedAt === null) continue;
		edges.push({ at: sprint.startedAt, order: 1, kind: 'start', sprint });
		const order = sprint.closedAt === sprint.startedAt ? 2 : 0;
		if (sprint.closedAt !== null) edges.push({ at: sprint.closedAt, order, kind: 'close', sprint });
	}
	return edges.sort((a, b) => a.at - b.at || a.order - b.order);
}

/** Whether a sprint still starts or closes when it did. */
export const sameEdge = (a: Edge | undefined, b: Edge) =>
	a !== undefined && a.at === b.at && a.kind === b.kind && a.sprint.number === b.sprint.number;
