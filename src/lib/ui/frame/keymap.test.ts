import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { describe, test } from 'node:test';
import { KEYMAPS, pressed, type Key, type Place } from './keymap.ts';

const guide = readFileSync('docs/guide.md', 'utf8');
const places = Object.entries(KEYMAPS) as [Place, readonly Key[]][];
const may = { single: true, write: true };

/** The event of a key as keymaps name it. */
const event = (name: string) => {
	const parts = name.split('+');
	const key = parts.pop()!;
	return {
		key,
		ctrlKey: parts.includes('Control'),
		metaKey: false,
		altKey: parts.includes('Alt'),
		shiftKey: parts.includes('Shift'),
	};
};

describe('the keys of a place', () => {
	for (const [place, keys] of places) {
		test(`${place}: each key does one thing, and what it says`, () => {
			const all = keys.flatMap(({ on }) => on);
			assert.equal(new Set(all).size, all.length, 'no key twice');
			for (const { on, does, single, writes } of keys)
				for (const name of on) {
					assert.equal(pressed(place, event(name), may), does, name);
					assert.equal(
						pressed(place, event(name), { single: false, write: true }),
						single ? null : does,
						`${name} with single keys off`,
					);
					assert.equal(
						pressed(place, event(name), { single: true, write: false }),
						writes ? null : does,
						`${name} for a viewer`,
					);
				}
		});
		test(`${place}: the guide lists them, as ? does`, () => {
			for (const { shown, words } of keys)
				assert.ok(guide.includes(`| ${shown} | ${words} |`), `docs/guide.md: | ${shown} | ${words} |`);
		});
	}

	test('a letter is the same with Shift and with the capitals on; with Ctrl or Alt it is none of ours', () => {
		assert.equal(pressed('board', { ...event('n'), key: 'N', shiftKey: true }, may), 'add');
		assert.equal(pressed('board', { ...event('Control+z'), key: 'Z' }, may), 'undo');
		assert.equal(pressed('board', event('Control+n'), may), null);
		assert.equal(pressed('board', event('Alt+b'), may), null);
		assert.equal(pressed('board', event('Control+Shift+z'), may), null);
	});
});
