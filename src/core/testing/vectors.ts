import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { readBoardFile } from '../exchange/board-file.ts';
import { readHistory } from '../exchange/history-file.ts';

/** Small histories with their true figures, worked out by an independent implementation: name, as-of, range. */
export const VECTORS: [name: string, asOf: string, from?: string, to?: string][] = [
	['small', '2026-04-02T12:00:00Z'],
	['middle', '2026-04-30T09:00:00Z'],
	['large', '2026-05-12T09:00:00Z'],
	['edge', '2026-05-25T09:00:00Z'],
	['changing', '2026-05-20T12:00:00Z'],
	['window', '2026-05-17T20:00:00Z', '2026-03-03', '2026-05-10'],
];

/** The text of a file of the vectors. */
export function vectorFile(name: string): string {
	return readFileSync(`src/core/testing/vectors/${name}`, 'utf8');
}

/** A vector read: its board, its events and the report it must give. */
export function readVector(name: string) {
	const board = readBoardFile(vectorFile(`${name}/board.json`));
	assert.ok(board.ok);
	const history = readHistory(vectorFile(`${name}/history.csv`), board.value);
	assert.ok(history.ok);
	return {
		board: board.value,
		events: [...history.events],
		expected: JSON.parse(vectorFile(`${name}/report.json`)),
	};
}

/** Compares two reports; figures agree to 1e-9. */
export function agree(actual: unknown, expected: unknown, path: string): void {
	if (typeof expected === 'number' && typeof actual === 'number') {
		const close = Math.abs(actual - expected) <= 1e-9 * Math.max(1, Math.abs(expected));
		return assert.ok(close, `${path}: ${actual} is not ${expected}`);
	}
	if (typeof expected !== 'object' || expected === null) return assert.equal(actual, expected, path);
	assert.deepEqual(
		Object.keys(actual as object),
		Object.keys(expected),
		`${path}: the same fields in the same order`,
	);
	for (const [key, value] of Object.entries(expected))
		agree((actual as Record<string, unknown>)[key], value, `${path}.${key}`);
}
