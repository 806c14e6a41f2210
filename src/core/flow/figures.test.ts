import assert from 'node:assert/strict';
import { test } from 'node:test';
import { calendarDays, workingDays } from '../calendar/day-count.ts';
import { parseDay, weekday } from '../calendar/days.ts';
import { parseInstant } from '../calendar/instant.ts';
import { readVector, VECTORS } from '../testing/vectors.ts';
import { flowFigures, waitingShare } from './figures.ts';
import { lifetimes } from './lifetime.ts';
import { flowOf } from './fold.ts';
import { cardReport, flowReport } from './report.ts';

for (const [name, asOf] of VECTORS)
	test(`the figures of the ${name} history hang together`, () => {
		const { board, events } = readVector(name);
		const at = parseInstant(asOf)!;
		const today = board.zone.day(at);
		const flow = flowOf(board, events, at);
		const figures = flowFigures(board, flow, at, today - 60, today + 5);
		assert.deepEqual(figures.report, flowReport(board, flow, at, today - 60, today));
		assert.equal(figures.finished.length, figures.report.cycle?.n ?? 0);
		assert.equal(
			figures.finished.length,
			figures.report.days.reduce((sum, day) => sum + day.finished, 0),
		);
		assert.deepEqual(
			figures.standing.map((cards) => cards.length),
			board.columns.map(({ name, kind }) =>
				kind === 'done' ? 0 : figures.report.days.at(-1)!.columns[name],
			),
		);
		const hours = figures.finished.reduce(
			(sum, { card }) => sum + cardReport(flow.lives.byCard.get(card)!, board, at, calendarDays).cycleHours!,
			0,
		);
		const spent = figures.columnHours.reduce((sum, h) => sum + h, 0) + figures.blockedHours;
		assert.ok(Math.abs(spent - hours) < 1e-6, `${spent} of ${hours} hours are accounted for`);
		const share = waitingShare(figures);
		assert.ok(share === null || (share >= -1e-9 && share <= 1 + 1e-9));
		assert.equal(
			figures.allWeeks.reduce((sum, week) => sum + week.finished, 0),
			lifetimes(board, events, at).filter((life) => life.state === 'done').length,
		);
	});

test('in working days every figure of days is at most the calendar’s', () => {
	const { board, events } = readVector('large');
	const at = parseInstant('2026-05-12T09:00:00Z')!;
	const [from, to] = [parseDay('2026-02-01')!, parseDay('2026-05-12')!];
	const flow = flowOf(board, events, at);
	const calendar = flowFigures(board, flow, at, from, to);
	const working = flowFigures(
		board,
		flow,
		at,
		from,
		to,
		workingDays((day) => weekday(day) < 5),
	);
	assert.ok(working.report.cycle!.p85 < calendar.report.cycle!.p85);
	working.finished.forEach((card, i) => assert.ok(card.took <= calendar.finished[i]!.took && card.took >= 1));
	working.report.ageing.forEach((age, i) => assert.ok(age.ageDays <= calendar.report.ageing[i]!.ageDays));
});
