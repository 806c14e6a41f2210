import DOMPurify from 'dompurify';
import { Marked, type Tokens } from 'marked';
import type { NamedCard } from '$core/pages/card';
import { KEY } from '$core/talk/keys';

/** Pictures are those that were put on a card or a page; others would tell their servers who looks. */
const OWN_PICTURE = /^\/api\/files\/[0-9a-f-]{36}$/;
DOMPurify.addHook('afterSanitizeAttributes', (node) => {
	if (node.tagName !== 'IMG') return;
	if (!OWN_PICTURE.test(node.getAttribute('src') ?? '')) {
		node.replaceWith(document.createTextNode(node.getAttribute('alt') ?? ''));
		return;
	}
	node.setAttribute('loading', 'lazy');
});

/**
 * Markdown as HTML that is safe to show: scripts, styles, forms and frames are taken out.
 * @param named cards that the text may name by their keys: those are links, struck out where the card is finished
 */
export function markdown(text: string, named: Readonly<Record<string, NamedCard>> = {}): string {
	const marked = new Marked({
		extensions: [
			{
				name: 'card',
				level: 'inline',
				start: (source) => source.search(KEY),
				tokenizer(source): (Tokens.Generic & { key: string }) | undefined {
					const found = new RegExp(`^(?:${KEY.source})`).exec(source)?.[0];
					return found && named[found] ? { type: 'card', raw: found, key: found } : undefined;
				},
				renderer: ({ key }) => {
					const { title, done } = named[key as string]!;
					const words = (done ? `${title}, finished` : title).replace(
						/[&<>"]/g,
						(one) => `&#${one.charCodeAt(0)};`,
					);
					return `<a href="/cards/${key}" title="${words}">${done ? `<s>${key}</s>` : key}</a>`;
				},
			},
		],
	});
	marked.use({
		renderer: {
			image: ({ href, text: words }) => {
				const alt = words.replace(/[&<>"]/g, (one) => `&#${one.charCodeAt(0)};`);
				if (!OWN_PICTURE.test(href)) return alt;
				return `<a href="${href}" target="_blank" rel="noopener"><img src="${href}" alt="${alt || 'Picture'}"></a>`;
			},
		},
	});
	const html = marked.parse(text, { async: false, breaks: true, gfm: true });
	return DOMPurify.sanitize(html, {
		FORBID_TAGS: ['style', 'form', 'input', 'button', 'iframe'],
		FORBID_ATTR: ['style', 'class', 'id'],
	});
}
