import { answers } from '$lib/server/answers';
import { facesOf } from '$lib/server/questions/faces';
import type { RequestEvent } from './$types';

export const GET = answers(async ({ params }: RequestEvent, person) => facesOf(person, params.board));
