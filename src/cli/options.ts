import { parseArgs } from 'node:util';

/** Says on standard error what is wrong with a call, and gives the exit code that means it. */
export function refuse(...sentences: string[]): 2 {
	for (const sentence of sentences) process.stderr.write(`${sentence}\n`);
	return 2;
}

/** Reads `--name value` options; a string says what is wrong with the call. */
export function options<N extends string>(
	args: string[],
	required: readonly N[],
	optional: readonly N[] = [],
): Partial<Record<N, string>> | string {
	try {
		const names = [...required, ...optional];
		const { values } = parseArgs({
			args,
			options: Object.fromEntries(names.map((name) => [name, { type: 'string' as const }])),
		});
		const missing = required.filter((name) => values[name] === undefined);
		if (missing.length) return `Give ${missing.map((name) => `--${name}`).join(', ')}.`;
		return values as Partial<Record<N, string>>;
	} catch (error) {
		return (error as Error).message;
	}
}
