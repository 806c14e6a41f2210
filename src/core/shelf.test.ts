import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { columnsOf, Places, rowsOf, Shelf, type Packed } from './shelf.ts';
import { atOnce } from './steps.ts';
import { random } from './testing/random.ts';

interface Thing {
	card: string;
	value: number;
}

const byCard = (things: Iterable<Thing>) => [...things].sort((a, b) => (a.card < b.card ? -1 : 1));

/** A shelf of things, some of them loose, the others in bundles; and which bundles have been unpacked. */
function shelfOf(things: readonly Thing[], bundle: number, loose: number) {
	const shelf = new Shelf<Thing>();
	const places = new Places();
	const unpacked: number[] = [];
	for (const thing of things.slice(0, loose)) shelf.set(thing.card, { ...thing });
	for (let from = loose; from < things.length; from += bundle) {
		const some = things.slice(from, from + bundle);
		const text: Packed = { text: JSON.stringify(columnsOf(some)) };
		const number = places.add({ text: JSON.stringify(some.map(({ card }) => card)) });
		shelf.rest(places, number, some.length, () => {
			unpacked.push(number);
			return rowsOf<Thing>(JSON.parse(text.text));
		});
	}
	return { shelf, unpacked };
}

const things = (count: number): Thing[] =>
	Array.from({ length: count }, (_, i) => ({ card: `C-${i}`, value: i }));

describe('a shelf', () => {
	test('says the same as if nothing was packed, whatever is asked of it in whatever order', () => {
		for (let seed = 1; seed <= 40; seed++) {
			const next = random(seed);
			const among = (count: number) => Math.floor(next() * count);
			const all = things(3 + among(40));
			const { shelf } = shelfOf(all, 1 + among(6), among(all.length));
			const plain = new Map(all.map((thing) => [thing.card, { ...thing }]));
			for (let step = 0; step < 60; step++) {
				// Some of them were never on it.
				const card = `C-${among(all.length + 4)}`;
				switch (among(6)) {
					case 0:
						assert.deepEqual(shelf.get(card), plain.get(card));
						break;
					case 1:
						shelf.delete(card);
						plain.delete(card);
						break;
					case 2: {
						shelf.get(card);
						shelf.set(card, { card, value: -step });
						plain.set(card, { card, value: -step });
						break;
					}
					case 3: {
						const [one, other] = [shelf.get(card), plain.get(card)];
						if (one && other) one.value = other.value = step;
						break;
					}
					case 4:
						atOnce(shelf.reach([card, `C-${among(all.length)}`]));
						break;
					case 5:
						if (next() < 0.2) assert.deepEqual(byCard(shelf.values()), byCard(plain.values()));
				}
				assert.equal(shelf.size, plain.size);
			}
			assert.deepEqual(byCard(shelf.values()), byCard(plain.values()));
		}
	});

	test('unpacks what is asked for once, and nothing else', () => {
		const { shelf, unpacked } = shelfOf(things(20), 5, 5);
		assert.equal(shelf.get('C-3')!.value, 3);
		assert.equal(shelf.get('D-1'), undefined);
		assert.deepEqual([...shelf.out()].length, 5);
		assert.deepEqual(unpacked, []);
		assert.equal(shelf.get('C-12')!.value, 12);
		assert.equal(shelf.get('C-13')!.value, 13);
		assert.deepEqual(unpacked, [1]);
		assert.deepEqual(
			[0, 1, 2].map((bundle) => shelf.rests(bundle)),
			[true, false, true],
		);
		assert.equal([...shelf.values()].length, 20);
		assert.deepEqual(unpacked, [1, 0, 2]);
	});

	test('unpacks for whoever must not keep others waiting bundle by bundle', () => {
		const { shelf, unpacked } = shelfOf(things(20), 5, 0);
		let steps = 0;
		for (const _ of shelf.reach(['C-1', 'C-2', 'C-19'])) {
			steps++;
			assert.ok(unpacked.length <= steps);
		}
		assert.deepEqual(unpacked, [0, 3]);
		assert.ok(steps >= 2);
	});
});
