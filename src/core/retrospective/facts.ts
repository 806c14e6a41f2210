import { fsum } from 'd3-array';
import { REASONS } from '../events/reasons.ts';
import type { ReportPage } from '../pages/look-back.ts';
import type { RetroFact } from '../pages/retrospective.ts';
import { amount, count, list, type Unit } from '../words.ts';

const MET = { yes: 'The goal was met', partly: 'The goal was partly met', no: 'The goal was not met' };

/**
 * What a sprint's report says, as things to talk of: of like figures one sentence each.
 * @param href where the report stands, which opens every figure to its cards
 */
export function factsOf(report: ReportPage, unit: Unit, href: string): RetroFact[] {
	const { ledger, sprint } = report;
	const inCards = unit === 'none';
	const say = (n: number) => amount(n, unit);
	const cardsOf = (stints: readonly { card: string }[]) => new Set(stints.map(({ card }) => card)).size;
	const committed = ledger.stints.filter(({ kind }) => kind === 'committed');
	const kept = report.finished.filter(({ kind }) => kind === 'committed');
	const later = report.finished.filter(({ kind }) => kind !== 'committed');
	const burned = (stints: typeof kept) => fsum(stints, (stint) => stint.burned);
	const facts: string[] = [];
	if (sprint.goal)
		facts.push(
			`${report.goalMet ? MET[report.goalMet] : 'The goal'}: ${sprint.goal}${report.goalWords ? ` (${report.goalWords.replace(/[.\s]+$/, '')})` : ''}`,
		);
	facts.push(
		inCards
			? `${cardsOf(kept)} of ${count(cardsOf(committed), 'card')} committed ${cardsOf(kept) === 1 ? 'was' : 'were'} finished`
			: `${say(burned(kept))} of ${say(ledger.committed)} committed ${burned(kept) === 1 ? 'was' : 'were'} delivered, ${cardsOf(kept)} of ${count(cardsOf(committed), 'card')}`,
	);
	const came = ledger.stints.filter(({ kind }) => kind === 'added');
	if (came.length)
		facts.push(
			`${count(cardsOf(came), 'card')} came in later${inCards ? '' : `, with ${say(ledger.added)}`}; ${cardsOf(later)} of them ${cardsOf(later) === 1 ? 'was' : 'were'} finished`,
		);
	if (report.unfinished.length) {
		const by = new Map<string, number>();
		for (const one of report.unfinished) by.set(one.reason, (by.get(one.reason) ?? 0) + 1);
		const most = [...by].sort((a, b) => b[1] - a[1]).slice(0, 3);
		facts.push(
			`${count(cardsOf(report.unfinished), 'card')} ${cardsOf(report.unfinished) === 1 ? 'was' : 'were'} left over: ${list(
				most.map(([reason, n]) => `${REASONS[reason as keyof typeof REASONS].toLowerCase()} (${n})`),
			)}`,
		);
	}
	if (report.surprises)
		facts.push(
			`${amount(report.surprises.kept, 'hours')} were kept back for surprises; they took ${amount(report.surprises.worked, 'hours')}`,
		);
	const over = report.use.filter(({ raw, worked }) => raw > 0 && worked > raw * 1.05);
	if (over.length) facts.push(`${list(over.map(({ name }) => name))} worked more than the hours they had`);
	return facts.map((words) => ({ words: `${words.replace(/[.\s]+$/, '')}.`, href }));
}
