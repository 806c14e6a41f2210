import DOMPurify from 'dompurify';
import { marked } from 'marked';

/** Markdown as HTML that is safe to show: scripts, styles, forms and frames are taken out. */
export function markdown(text: string): string {
	const html = marked.parse(text, { async: false, breaks: true, gfm: true });
	return DOMPurify.sanitize(html, {
		FORBID_TAGS: ['style', 'form', 'input', 'button', 'iframe', 'img'],
		FORBID_ATTR: ['style', 'class', 'id'],
	});
}
