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

/**
 * Sends a picture and puts it where it belongs; gives the Markdown that shows it in a text, or null where it was not taken.
 * @param attach puts what was sent on its card or page, and gives the id of the file
 */
export async function pictureFor(
	file: File,
	attach: (sent: { upload: string; name: string }) => Promise<string | undefined>,
): Promise<string | null> {
	const sent = await sendFile(file, () => undefined).done;
	const name = file.name || 'picture.png';
	const id = sent?.ok ? await attach({ upload: sent.upload, name }) : undefined;
	return id ? `![${name.replace(/[[\]()\\]/g, ' ')}](/api/files/${id})` : null;
}
