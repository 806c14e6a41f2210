import { reads } from '$lib/server/answers';
import { boardsOf } from '$lib/server/questions/board-head';

export const GET = reads('/api/boards', (_, person) => boardsOf(person));
