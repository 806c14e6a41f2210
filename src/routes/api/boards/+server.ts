import { answers } from '$lib/server/answers';
import { boardsOf } from '$lib/server/questions/board-head';

export const GET = answers((_, person) => boardsOf(person));
