import { timingSafeEqual } from 'node:crypto';
import { fileOf } from '$lib/server/body-limit';
import { takeLetter } from '$lib/server/mail/inbox';
import { notFound, Problem } from '$lib/server/problem';
import { hashOf } from '$lib/server/sign-in';

/** Takes in a letter that somebody answers to one of Harrow's; mail servers bring it, with the key that both are given. */
export async function POST({ request, url }) {
	try {
		const key = process.env.HARROW_MAIL_KEY;
		if (!key) throw notFound('inbox');
		if (!timingSafeEqual(hashOf(request.headers.get('x-harrow-mail-key') ?? ''), hashOf(key)))
			throw new Problem(401, 'mail.key_wrong', 'Letters are brought with the key of this inbox.');
		const answer = await takeLetter(await fileOf(request), url.searchParams.get('to') ?? undefined);
		return Response.json({ said: answer !== null }, { headers: { 'cache-control': 'no-store' } });
	} catch (thrown) {
		if (thrown instanceof Problem) return thrown.response();
		throw thrown;
	}
}
