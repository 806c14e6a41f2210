import type { Ledger, Stint } from '../../../core/sprint/ledger.ts';
import { columnwise } from '../../columnwise.ts';

interface Lists {
	stints: Stint[];
	moves: Ledger['moves'];
	/** Stints that ended done. */
	done: Stint[];
}

const known = new WeakMap<Ledger, Lists>();

/** The long lists of a ledger as they go to pages: the same until something happens in its sprint, so that they are written once. */
export function listsOf(ledger: Ledger): Lists {
	let lists = known.get(ledger);
	if (!lists) {
		lists = {
			stints: columnwise(ledger.stints),
			moves: columnwise(ledger.moves),
			done: columnwise(ledger.stints.filter(({ outcome }) => outcome === 'done')),
		};
		known.set(ledger, lists);
	}
	return lists;
}
