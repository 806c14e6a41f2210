/**
 * A refusal that a person can read: a stable code, one plain sentence, and the field it is about.
 * It leaves the server as problem details (RFC 9457).
 */
export class Problem extends Error {
	readonly status: number;
	readonly code: string;
	readonly field: string | undefined;
	readonly more: Record<string, unknown>;

	constructor(
		status: number,
		code: string,
		sentence: string,
		field?: string,
		more: Record<string, unknown> = {},
	) {
		super(sentence);
		this.status = status;
		this.code = code;
		this.field = field;
		this.more = more;
	}

	response(): Response {
		const { retryAfter, ...more } = this.more;
		const body = {
			type: `urn:harrow:problem:${this.code}`,
			title: this.message,
			status: this.status,
			code: this.code,
			...(this.field ? { field: this.field } : {}),
			...more,
		};
		return new Response(JSON.stringify(body), {
			status: this.status,
			headers: {
				'content-type': 'application/problem+json',
				'cache-control': 'no-store',
				// A refusal that time heals says after how many seconds to try again.
				...(retryAfter === undefined ? {} : { 'retry-after': String(retryAfter) }),
			},
		});
	}
}

export const notFound = (what: string) =>
	new Problem(404, `${what}.not_found`, `There is no such ${what}, or you may not see it.`);
export const signedOut = () =>
	new Problem(
		401,
		'session.expired',
		'You are not signed in, or your session has ended. Sign in and try again.',
	);
