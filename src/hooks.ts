import type { Transport } from '@sveltejs/kit';
import { Columnwise, fromText, toText } from '$lib/columnwise';

/** How what is more than plain data travels from the server to a page. */
export const transport: Transport = {
	Columnwise: {
		// Only the server writes them: pages are spared the code.
		encode: (value: unknown) => import.meta.env.SSR && value instanceof Columnwise && toText(value),
		decode: fromText,
	},
};
