import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { changedLines } from './notes.ts';

test('a change of notes says which lines came and which went, and nothing of the others', () => {
	assert.deepEqual(changedLines('', 'one\ntwo'), [
		{ text: 'one', came: true },
		{ text: 'two', came: true },
	]);
	assert.deepEqual(changedLines('one\ntwo\nthree', 'one\nTwo\nthree\nfour'), [
		{ text: 'two', came: false },
		{ text: 'Two', came: true },
		{ text: 'four', came: true },
	]);
	assert.deepEqual(changedLines('one\n\n', 'one'), []);
});

test('the lines that stayed, with those that came, are the lines of the new text; with those that went, of the old', () => {
	const lines = fc.array(fc.constantFrom('a', 'b', 'c', 'd e', '- f'), { maxLength: 15 });
	fc.assert(
		fc.property(lines, lines, (before, after) => {
			const changed = changedLines(before.join('\n'), after.join('\n'));
			const counted = (texts: readonly string[]) => {
				const by = new Map<string, number>();
				for (const text of texts) by.set(text, (by.get(text) ?? 0) + 1);
				return by;
			};
			const [was, is] = [counted(before), counted(after)];
			const came = counted(changed.filter((line) => line.came).map(({ text }) => text));
			const went = counted(changed.filter((line) => !line.came).map(({ text }) => text));
			for (const text of new Set([...before, ...after]))
				assert.equal((was.get(text) ?? 0) + (came.get(text) ?? 0) - (went.get(text) ?? 0), is.get(text) ?? 0);
		}),
	);
});
