import type { ReportPage } from '../pages/look-back.ts';
import { dayText } from '../calendar/days.ts';
import { REASONS } from '../events/reasons.ts';
import { actionLine } from '../retrospective/file.ts';
import { sidesOf } from '../sprint/settle.ts';

const UNIT = { hours: 'h', points: 'pt', none: '' };

/** What an amount is called in a report: `12.5 h`. */
const amountIn = (unit: keyof typeof UNIT) => (n: number) =>
	`${Math.round(n * 100) / 100} ${UNIT[unit]}`.trim();

const ENTRIES = {
	committed: 'Committed',
	added: 'Added',
	grown: 'Grew',
	burned: 'Burned',
	splitOff: 'Split off',
	shrunk: 'Shrank',
	removed: 'Removed',
	carried: 'Carried',
	returned: 'Back to the backlog',
	dropped: 'Dropped',
	open: 'Open',
};

/** The report of a sprint as Markdown (CommonMark with tables). */
export function reportMarkdown(report: ReportPage, board: { name: string; unit: keyof typeof UNIT }): string {
	const amount = amountIn(board.unit);
	const { sprint, ledger, following } = report;
	const title = (card: string) => `${card} ${plain(report.titles[card] ?? '')}`.trim();
	const { came, became, total } = sidesOf(ledger);
	const lines = [
		`# ${plain(board.name)}: sprint ${sprint.number}`,
		'',
		`${sprint.starts} to ${sprint.ends}${report.closed ? '' : ', still running'}`,
		...(sprint.goal ? ['', `**Goal:** ${plain(sprint.goal)}`] : []),
		...(report.goalMet ? ['', `**Met:** ${report.goalMet}. ${plain(report.goalWords)}`.trim()] : []),
		'',
		'## Ledger',
		'',
		'| What came in | | What became of it | |',
		'| --- | ---: | --- | ---: |',
		...Array.from({ length: Math.max(came.length, became.length) }, (_, i) => {
			const [a, b] = [came[i], became[i]];
			return `| ${a ? ENTRIES[a.kind] : ''} | ${a ? amount(a.amount) : ''} | ${b ? ENTRIES[b.kind] : ''} | ${b ? amount(b.amount) : ''} |`;
		}),
		`| **Sum** | ${amount(total)} | **Sum** | ${amount(total)} |`,
		'',
		'## Day by day',
		'',
		'| Day | Left | Burned | Scope | Guide |',
		'| --- | ---: | ---: | ---: | ---: |',
		...following.days.map(
			(day) =>
				`| ${dayText(day.day)} | ${amount(day.left)} | ${amount(day.burned)} | ${amount(day.scope)} | ${amount(day.guide)} |`,
		),
		...section(
			'Finished',
			report.finished.map((stint) => `- ${title(stint.card)} (${amount(stint.burned)})`),
		),
		...section(
			'Not finished',
			report.unfinished.map(
				(one) =>
					`- ${title(one.card)}: ${one.decision}, ${amount(one.left)} left; ${one.reason === 'other' ? plain(one.words) : REASONS[one.reason]}`,
			),
		),
		...section(
			'Changes of scope',
			report.scope.map(
				(change) =>
					`- ${change.at.slice(0, 16).replace('T', ' ')} UTC, ${change.who ?? 'someone'}: ${change.kind === 'splitOff' ? 'split off' : change.kind} ${amount(change.amount)}, ${title(change.card)}`,
			),
		),
		...section(
			'Hours against budgets',
			report.budgets.map(
				(one) =>
					`- ${plain(one.initiative)}: ${amountIn('hours')(one.worked)} worked of ${amountIn('hours')(one.budget)}${
						board.unit === 'hours' ? `, ${amount(one.left)} left` : ''
					}`,
			),
		),
		...section('Agreed in the retrospective', report.retrospective?.actions.map(actionLine) ?? []),
		...section(
			'Use of hours',
			report.use.map(
				(one) => `- ${plain(one.name)}: ${amountIn('hours')(one.worked)} of ${amountIn('hours')(one.raw)}`,
			),
		),
	];
	return `${lines.join('\n')}\n`;
}

/** The stints of a sprint as rows of a table, the head first. */
export function reportRows(report: ReportPage): (string | number)[][] {
	const why = new Map(report.unfinished.map((one) => [one.card, one]));
	return [
		[
			'card',
			'title',
			'kind',
			'planned',
			'entry',
			'resized',
			'burned',
			'worked',
			'split off',
			'exit',
			'outcome',
			'reason',
		],
		...report.ledger.stints.map((stint) => {
			const one = why.get(stint.card);
			return [
				stint.card,
				report.titles[stint.card] ?? '',
				stint.kind,
				stint.planned ? 'yes' : 'no',
				stint.entry,
				stint.resized,
				stint.burned,
				stint.worked,
				stint.splitOff,
				stint.exit,
				stint.outcome ?? '',
				one ? (one.reason === 'other' ? one.words : REASONS[one.reason]) : '',
			];
		}),
	];
}

/** Text that cannot break out of its line or its table cell. */
function plain(text: string): string {
	return text.replaceAll(/\s+/g, ' ').replaceAll(/([\\`*_[\]<>|#])/g, '\\$1');
}

const section = (title: string, lines: string[]) => (lines.length ? ['', `## ${title}`, '', ...lines] : []);
