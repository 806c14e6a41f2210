/** Keys of cards in a text, such as TIDE-214, each once: whether there are such cards is not said. */
export const keysIn = (text: string): string[] => [...new Set([...text.matchAll(KEY)].map(([key]) => key))];

/** What looks like the key of a card. */
export const KEY = /(?<![\w/-])[A-Z][A-Z0-9]{1,9}-[1-9]\d{0,8}(?![\w-])/g;
