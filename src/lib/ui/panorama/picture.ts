import { dayText, parseDay } from '$core/calendar/days';
import { spanOf } from '$core/dates/follow';
import type { PanoramaPage } from '$core/pages/panorama';
import type { Asked } from '$core/panorama/asked';
import { barOf, datesOf, keyOf, linesOf, progressOf, rowsOf, stretchOf } from '$core/panorama/rows';
import { dateWords } from '../words';
import { acrossOf, ticksOf } from './scale';
import { besideBar, endWords, figuresOf } from './words';

const LABEL = 250;
const HEAD = 60;
const FONT = 'font-family="sans-serif" font-size="11"';
const INK = '#1d2b26';
const SOFT = '#4f5b53';
const BRICK = '#9c3a2b';

const escaped = (text: string) =>
	text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!);
const short = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

/** The whole timeline as one picture (SVG), for a file and for paper: every row, whatever is in sight. */
export function timelinePicture(page: PanoramaPage, asked: Asked, ruler: string | null): string {
	const today = parseDay(page.today)!;
	const rows = rowsOf(page, asked, new Set());
	const across = acrossOf(stretchOf(page, rows), asked.by);
	const x = (day: number) => LABEL + across.x(day);
	const parts: string[] = [];
	const text = (at: number, y: number, words: string, more = '') =>
		parts.push(`<text x="${at}" y="${y}" ${FONT} fill="${INK}" ${more}>${escaped(words)}</text>`);
	const rect = (at: number, y: number, wide: number, high: number, fill: string, more = '') =>
		parts.push(
			`<rect x="${at}" y="${y}" width="${Math.max(2, wide)}" height="${high}" fill="${fill}" ${more}/>`,
		);
	let y = HEAD;
	/** Where each row begins. */
	const tops: number[] = [];
	const bars: (() => void)[] = [];
	for (const row of rows) {
		const top = y;
		if (row.kind === 'group') {
			y += row.initiative ? 40 : 26;
			bars.push(() => {
				text(8, top + 16, short(row.name, 38), 'font-weight="bold"');
				const one = row.initiative;
				if (!one) return;
				const bar = barOf(one, today);
				const wide = (bar.end - bar.start + 1) * across.wide;
				const share = progressOf(page, one) ?? 0;
				rect(x(bar.start), top + 6, wide, 14, '#f0dcb2', 'stroke="#b07014"');
				rect(x(bar.start), top + 6, wide * share, 14, '#2f5d4c');
				text(x(bar.start), top + 32, figuresOf(page, one), `fill="${SOFT}" style="fill:${SOFT}"`);
				const end = endWords(one, page.today);
				const doneBy = one.doneBy && end?.tone === 'late' ? parseDay(one.doneBy)! : bar.end;
				if (doneBy > bar.end)
					parts.push(
						`<path d="M${x(bar.end + 1)} ${top + 13}H${x(doneBy)}" stroke="${BRICK}" stroke-width="2"/>`,
					);
				if (end)
					text(
						x(Math.max(doneBy, bar.end) + 1) + 6,
						top + 17,
						end.text,
						end.tone === 'late' ? `style="fill:${BRICK}"` : '',
					);
			});
			continue;
		}
		y += 22;
		const card = page.cards[row.at]!;
		const span = spanOf(datesOf(card))!;
		bars.push(() => {
			text(24, top + 14, short(`${keyOf(page, card)} ${card.title}`, 38));
			const [fill, stroke] = {
				none: ['#cfe0e8', '#2b6480'],
				running: ['#fffdf7', INK],
				done: ['#2f5d4c', '#2f5d4c'],
				dropped: ['#e9e1d0', SOFT],
			}[card.clock] as [string, string];
			rect(
				x(span.start),
				top + 3,
				(span.end - span.start + 1) * across.wide - 1,
				15,
				fill,
				`stroke="${stroke}"`,
			);
			text(x(span.end + 1) + 10, top + 14, besideBar(page, card), `style="fill:${SOFT}"`);
		});
	}
	const high = y + 16;
	const wide = LABEL + across.days * across.wide + 40;
	for (const { day, words } of ticksOf(across, asked.by)) {
		parts.push(`<path d="M${x(day)} ${HEAD - 8}V${high}" stroke="#d8d0bd"/>`);
		text(x(day) + 3, 40, words, `style="fill:${SOFT}"`);
	}
	for (const { day, name } of page.holidays)
		rect(x(parseDay(day)!), HEAD, across.wide, high - HEAD, '#e9e1d0', `data-name="${escaped(name)}"`);
	for (const { board, name, number, starts, ends, state } of page.sprints) {
		const [a, b] = [Math.max(across.start, parseDay(starts)!), parseDay(ends)!];
		if (board !== ruler || b < across.start) continue;
		rect(
			x(a),
			8,
			(b - a + 1) * across.wide - 2,
			18,
			state === 'closed' ? '#e9e1d0' : 'none',
			`stroke="${INK}" ${state === 'coming' ? 'stroke-dasharray="4 3"' : ''}`,
		);
		text(x(a) + 4, 21, (b - a + 1) * across.wide > name.length * 7 ? name : String(number));
	}
	for (const { day, name } of page.milestones) {
		const at = x(parseDay(day)!);
		if (at < LABEL) continue;
		parts.push(`<path d="M${at} 44V${high}" stroke="#66496f" stroke-dasharray="2 3"/>`);
		text(at + 4, 54, name, 'style="fill:#66496f" font-weight="bold"');
	}
	parts.push(`<path d="M${x(today) + across.wide / 2} 44V${high}" stroke="${BRICK}" stroke-width="2"/>`);
	for (const {
		link: [from, to],
		rows: [above, below],
		crossed,
	} of linesOf(page, rows)) {
		const [a, b] = [tops[above]!, tops[below]!];
		const [x1, x2] = [
			x(spanOf(datesOf(page.cards[from]!))!.end + 1),
			x(spanOf(datesOf(page.cards[to]!))!.start),
		];
		const path =
			x2 > x1 + 12
				? `M${x1} ${a + 11}H${x1 + 6}V${b + 11}H${x2}`
				: `M${x1} ${a + 11}h5V${(a + b) / 2 + 11}H${x2 - 7}V${b + 11}h7`;
		parts.push(`<path d="${path}" fill="none" stroke="${crossed ? BRICK : INK}"/>`);
	}
	for (const bar of bars) bar();
	return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${wide} ${high}" width="${wide}" height="${high}" role="img"><title>${escaped(`${page.team.name}, ${dateWords(dayText(across.start), page.today)} to ${dateWords(dayText(across.start + across.days - 1), page.today)}`)}</title><rect width="100%" height="100%" fill="#ffffff"/>${parts.join('')}</svg>`;
}
