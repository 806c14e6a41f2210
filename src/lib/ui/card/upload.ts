import type { Refusal } from '../send';

/** A file that is on its way to the server. */
export interface Sending {
	/** Resolves with what the server calls it, or why it did not take it; null when it was called back. */
	done: Promise<{ ok: true; upload: string } | { ok: false; refusal: Pick<Refusal, 'title'> } | null>;
	cancel(): void;
}

/**
 * Sends a file; how far it is comes as a share of it.
 * @param onshare told again and again, from 0 to 1
 */
export function sendFile(file: Blob, onshare: (share: number) => void): Sending {
	// Only this one tells how much of a body has gone.
	const request = new XMLHttpRequest();
	const done: Sending['done'] = new Promise((resolve) => {
		request.upload.onprogress = ({ loaded, total }) => onshare(total ? loaded / total : 0);
		request.onabort = () => resolve(null);
		request.onerror = () =>
			resolve({
				ok: false,
				refusal: {
					title: 'The connection was lost before the file was there. Nothing was kept; send it again.',
				},
			});
		request.onload = () => {
			try {
				const answer = JSON.parse(request.responseText);
				resolve(request.status < 300 ? { ok: true, upload: answer.upload } : { ok: false, refusal: answer });
			} catch {
				resolve({ ok: false, refusal: { title: 'The file was not taken. Try again in a moment.' } });
			}
		};
	});
	request.open('POST', '/api/uploads');
	request.setRequestHeader('content-type', 'application/octet-stream');
	request.send(file);
	return { done, cancel: () => request.abort() };
}

/** A picture in a text: the Markdown that shows it, or why it was not taken. */
export type Pictured = { shown: string } | { problem: string };

/**
 * Sends a picture and puts it where it belongs.
 * @param attach puts what was sent on its card or page, and gives the id of the file; what is refused there is said there
 */
export async function pictureFor(
	file: File,
	attach: (sent: { upload: string; name: string }) => Promise<string | undefined>,
): Promise<Pictured> {
	const sent = await sendFile(file, () => undefined).done;
	const name = file.name || 'picture.png';
	if (!sent?.ok) return { problem: sent?.refusal.title ?? `${name} was not sent.` };
	const id = await attach({ upload: sent.upload, name });
	if (!id) return { problem: `${name} was not put there.` };
	return { shown: `![${name.replace(/[[\]()\\]/g, ' ')}](/api/files/${id})` };
}
