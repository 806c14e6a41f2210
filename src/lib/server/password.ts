import type { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { Problem } from './problem.ts';

const [LEAST, MOST] = [10, 200];
/** From 0 (guessed at once) to 4; below this it is refused. */
const STRONG_ENOUGH = 3;

let estimator: Promise<ZxcvbnFactory> | undefined;

/** Knows words, names and passwords that have leaked; brought in when it is first needed. */
async function load(): Promise<ZxcvbnFactory> {
	const [{ ZxcvbnFactory: Factory }, common, english] = await Promise.all([
		import('@zxcvbn-ts/core'),
		import('@zxcvbn-ts/language-common'),
		import('@zxcvbn-ts/language-en'),
	]);
	return new Factory({
		dictionary: { ...common.dictionary, ...english.dictionary },
		graphs: common.adjacencyGraphs,
		translations: english.translations,
	});
}

/**
 * Refuses a password that could be guessed, and says why.
 * @param about the person's name and address: what everyone knows makes no password
 * @throws Problem 422
 */
export async function checkNewPassword(
	password: string,
	about: readonly string[],
	field = 'password',
): Promise<void> {
	const refuse = (sentence: string) => new Problem(422, `${field}.weak`, sentence, field);
	if (password.length < LEAST)
		throw refuse(`A password has at least ${LEAST} characters; a few words in a row are easy to keep.`);
	if (password.length > MOST) throw refuse(`A password has at most ${MOST} characters.`);
	const known = about
		.flatMap((text) => text.toLowerCase().split(/[^\p{L}\p{N}]+/u))
		.filter((w) => w.length > 3);
	const part = known.find((word) => password.toLowerCase().includes(word));
	if (part) throw refuse(`This password holds “${part}”, which everyone knows of you. Choose another one.`);
	estimator ??= load();
	const { score, feedback } = (await estimator).check(password, [...about]);
	if (score >= STRONG_ENOUGH) return;
	const why = feedback.warning ?? 'It would be guessed soon.';
	throw refuse(`This password is too weak. ${why} ${feedback.suggestions[0] ?? ''}`.trim());
}
