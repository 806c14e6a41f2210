import type { Kept } from './kept-commands';
import type { Refusal } from './send';

/** What has to be said though nobody waits for it. */
export interface Told {
	sentence: string;
	/** What was refused, beside what stands there now, field by field. */
	both: { mine: string; now: string }[];
	/** Sends what was refused all the same, over what stands there now. */
	again?: () => void;
}

/**
 * What is said of a command that an earlier page had left and that was refused.
 * @param again sends the command once more, with another input
 */
export function toldOf(
	{ command, input }: Pick<Kept, 'command' | 'input'>,
	refusal: Refusal,
	again: (input: object) => void,
): Told {
	const now = (refusal.now ?? {}) as Record<string, unknown>;
	const both = written(input).map(([name, mine]) => ({ mine, now: name in now ? shown(now[name]) : '' }));
	const { version } = refusal;
	return {
		sentence: `${words(command)} was refused: ${refusal.title}`,
		both,
		...(typeof version === 'number' && 'version' in input
			? { again: () => again({ ...input, version }) }
			: {}),
	};
}

const TYPED = ['title', 'text', 'description', 'start', 'due', 'left', 'size', 'percent', 'note', 'reason'];
const shown = (value: unknown): string =>
	typeof value === 'string' || typeof value === 'number' ? String(value) : '';

/** What somebody wrote or chose in a command, field by field: none of it is lost with a refusal. */
const written = (input: object): [name: string, value: string][] =>
	TYPED.flatMap((name) => {
		const value = shown((input as Record<string, unknown>)[name]);
		return value ? [[name, value] as [string, string]] : [];
	});

/** `Move card` of `MoveCard` */
const words = (command: string) => command.replace(/(?!^)[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
