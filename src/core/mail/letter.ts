import type { NoticeView } from '../pages/notices.ts';
import { NOTICE_KINDS, type NoticeKind } from '../notices/kinds.ts';
import { noticeAddress } from '../notices/address.ts';
import { count, list } from '../words.ts';

/** A letter before it is set: plain words, the one link that it is about, and how to be sent no more of them. */
export interface Letter {
	subject: string;
	/** Sentences, each a paragraph; what stands between two headings belongs to the first. */
	lines: ({ heading: string } | string)[];
	link: { words: string; href: string };
	foot: string[];
	/** Where one says that one wants no more of these. */
	stop?: string;
}

/** What divides an answer from the letter that it answers. */
export const ANSWER_ABOVE = '— Answer above this line to say it on the card. —';

const MOST_SUBJECT = 180;
const MOST_IN_DIGEST = 40;

const oneLine = (text: string) => text.replace(/[\s\p{Cc}]+/gu, ' ').trim();
const cut = (text: string) =>
	text.length > MOST_SUBJECT ? `${text.slice(0, MOST_SUBJECT).trimEnd()}…` : text;

/** What a notice is called in a subject and a heading: its card, or its board. */
const calledOf = ({ card, page, board }: NoticeView) =>
	card ? `${card.key} ${card.title}` : page?.initiative ? `${page.initiative}, ${board.name}` : board.name;
const placeOf = (origin: string, notice: NoticeView) => origin + noticeAddress(notice);

/** A letter that tells one notice at once. */
export function noticeLetter(
	notice: NoticeView,
	{ origin, stop, answers }: { origin: string; stop: string; answers: boolean },
): Letter {
	const more = notice.times - notice.says.length;
	return {
		subject: cut(oneLine(calledOf(notice))),
		lines: [...notice.says, ...(more > 0 ? [`And ${count(more, 'thing')} more happened to it.`] : [])],
		link: {
			words: `Open ${notice.card ? notice.card.key : notice.board.name} in Harrow`,
			href: placeOf(origin, notice),
		},
		foot: [
			...(answers && (notice.card || notice.page)
				? [`What you answer to this letter is said ${notice.card ? 'on the card' : 'there'}.`]
				: []),
			`You are sent this at once because of: ${NOTICE_KINDS[notice.kind].called.toLowerCase()}.`,
		],
		stop,
	};
}

/** The letter of a day: what somebody was told and has not read, board by board. Null where there is nothing to say. */
export function digestLetter(
	notices: readonly NoticeView[],
	{ origin, stop }: { origin: string; stop: string },
): Letter | null {
	if (!notices.length) return null;
	const told = notices.slice(0, MOST_IN_DIGEST);
	const boards = [...new Set(notices.map(({ board }) => board.name))];
	return {
		subject: cut(
			oneLine(
				`${count(notices.length, 'thing')} to know of ${boards.length > 3 ? count(boards.length, 'board') : list(boards)}`,
			),
		),
		lines: [
			...told.flatMap((notice) => [{ heading: calledOf(notice) }, ...notice.says.slice(0, 1)]),
			...(notices.length > told.length ? [`And ${notices.length - told.length} more.`] : []),
		],
		link: { words: 'Open your notices in Harrow', href: `${origin}/notices` },
		foot: ['This is your daily digest; when it comes, and of what, stands with your notices.'],
		stop,
	};
}

/** What an invitation says. */
export function invitationLetter(given: {
	by: string;
	team: string;
	role: string;
	href: string;
	days: number;
}): Letter {
	const may = {
		lead: 'You would lead it with others',
		member: 'You would work in it',
		viewer: 'You would look on and talk',
	};
	return {
		subject: cut(oneLine(`${given.by} invites you to ${given.team}`)),
		lines: [
			`${given.by} invites you to ${given.team}, a team that works with Harrow. ${may[given.role as keyof typeof may] ?? may.member}.`,
		],
		link: { words: 'Come in', href: given.href },
		foot: [
			`The link holds for ${count(given.days, 'day')}. If you do not know ${given.by}, do nothing: nothing happens then.`,
		],
	};
}

/** What a link to a new password says. */
export function resetLetter(given: { by: string | null; href: string; hours: number }): Letter {
	return {
		subject: 'A new password for Harrow',
		lines: [
			given.by
				? `${given.by} has made you a link with which you set a new password.`
				: 'Somebody, probably you, asked for a new password for your account.',
		],
		link: { words: 'Set a new password', href: given.href },
		foot: [
			`The link works once, within ${count(given.hours, 'hour')}. Until it is used the old password holds; if you asked for nothing, do nothing.`,
		],
	};
}

/** A letter in plain words. */
export function letterText(letter: Letter, answers = false): string {
	const lines = letter.lines.map((line) => (typeof line === 'string' ? line : `* ${oneLine(line.heading)}`));
	return [
		...(answers ? [ANSWER_ABOVE] : []),
		...lines,
		`${letter.link.words}:\n${letter.link.href}`,
		['-- ', ...letter.foot, ...(letter.stop ? [`No more of these: ${letter.stop}`] : [])].join('\n'),
	].join('\n\n');
}

const escaped = (text: string) =>
	text.replace(
		/[&<>"']/g,
		(mark) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[mark]!,
	);

/** The same letter for programs that show more than plain words; it fetches nothing from anywhere. */
export function letterHtml(letter: Letter, answers = false): string {
	const soft = 'color:#5c6670;font-size:14px';
	const body = letter.lines.map((line) =>
		typeof line === 'string'
			? `<p style="margin:0 0 10px">${escaped(line)}</p>`
			: `<h2 style="font-size:16px;margin:18px 0 2px">${escaped(oneLine(line.heading))}</h2>`,
	);
	return `<!doctype html><html lang="en-GB"><head><meta charset="utf-8"><title>${escaped(letter.subject)}</title></head>
<body style="font:16px/1.5 system-ui,sans-serif;color:#1d2730;background:#fff;margin:0;padding:20px;max-width:36em">
${answers ? `<p style="${soft}">${escaped(ANSWER_ABOVE)}</p>` : ''}
${body.join('\n')}
<p style="margin:16px 0"><a style="color:#1c5a70;font-weight:600" href="${escaped(letter.link.href)}">${escaped(letter.link.words)}</a></p>
<p style="${soft};border-top:1px solid #d9d4c7;padding-top:8px">${letter.foot.map(escaped).join('<br>')}${
		letter.stop ? `<br><a style="color:#5c6670" href="${escaped(letter.stop)}">No more of these</a>` : ''
	}</p>
</body></html>`;
}

/** How letters of a kind are stopped, in words. */
export const stopWords = (kind: NoticeKind | 'digest'): string =>
	kind === 'digest' ? 'the daily digest' : `letters at once of “${NOTICE_KINDS[kind].called}”`;
