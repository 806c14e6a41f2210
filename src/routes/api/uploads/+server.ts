import { answers } from '$lib/server/answers';
import { fileOf } from '$lib/server/body-limit';
import { keepUpload } from '$lib/server/files';
import { Problem } from '$lib/server/problem';

/** Takes a file as it is; AttachFiles puts it on a card then. What nobody puts on one goes after a day. */
export const POST = answers(async ({ request }, person) => {
	if (person.scope !== 'write') throw new Problem(403, 'token.read_only', 'This token may only read.');
	return keepUpload(person, await fileOf(request));
});
