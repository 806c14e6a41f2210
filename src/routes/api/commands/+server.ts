import { answers } from '$lib/server/answers';
import { obey } from '$lib/server/door/door';
import { Problem } from '$lib/server/problem';

export const POST = answers(async ({ request }, person) => obey(person, await readJson(request)));

async function readJson(request: Request): Promise<unknown> {
	let text: string;
	try {
		text = await request.text();
	} catch {
		throw new Problem(413, 'body.too_large', 'This is more than one command can carry.');
	}
	try {
		return JSON.parse(text);
	} catch {
		throw new Problem(400, 'body.malformed', 'The body is not JSON.');
	}
}
