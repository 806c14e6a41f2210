import { openApi } from '$lib/server/openapi';
import { version } from '$app/environment';

export const GET = () => Response.json(openApi(version));
