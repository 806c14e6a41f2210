import { answers } from '$lib/server/answers';
import { cardPage } from '$lib/server/questions/card';
import type { RequestEvent } from './$types';

export const GET = answers(({ params }: RequestEvent, person) => cardPage(person, params.key));
