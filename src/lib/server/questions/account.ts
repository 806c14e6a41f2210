import { fsum } from 'd3-array';
import type { AccountPage, BehindAccount, NamedLine } from '../../../core/pages/account.ts';
import type { BehindCard } from '../../../core/pages/look-back.ts';
import {
	account,
	cardsBehind,
	GROUPINGS,
	useOf,
	type AccountLine,
	type Grouping,
} from '../../../core/account/account.ts';
import { dayText, parseDay } from '../../../core/calendar/days.ts';
import { zoneOf, type Day } from '../../../core/calendar/zone.ts';
import { hoursOn } from '../../../core/capacity/hours.ts';
import { tidy } from '../../../core/sums.ts';
import { wholeNames } from '../../../core/words.ts';
import { dayAsked, rangeWithin } from '../asked.ts';
import { rows } from '../database.ts';
import { Problem } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { placedOn, titlesOfKeys, worked, workedOnCards } from './account-facts.ts';
import { LEFT_ON, WORKED_ON } from './initiatives.ts';
import { rotaOf } from './rota.ts';
import { teamOf } from './team.ts';

/** What is asked for: days as texts, this month where they are left out, and what lines are told apart by. */
interface Asked {
	from: string | null;
	to: string | null;
	by: string | null;
}

/**
 * Hours and cost of a team over a range of days, this month unless it is given, beside the equal span before.
 * @throws Problem 422 when the range cannot be read or runs backwards
 */
export async function accountPage(person: Person, team: string, asked: Asked): Promise<AccountPage> {
	const about = await teamOf(person, team);
	const { by, today, from, to, until, before } = spansOf(asked, about.zone);
	const lead = about.role === 'lead';
	const rota = rotaOf(team);
	const [facts, placed, hours, [more]] = await Promise.all([
		worked(person, team, [before.from, from, until], by, lead),
		rota.then((known) => placedOn(person, about, known, from, to)),
		rota,
		rows<{
			budgets: AccountPage['budgets'];
			initiatives: Called[];
			named: { name: string; from: string; to: string }[];
		}>(
			`select
				(select coalesce(json_object_agg(i.id, json_build_object('name', i.name, 'budget', i.budget_hours, 'worked', ${WORKED_ON('i.id')},
					'left', ${LEFT_ON('i.id')})), '{}')
				from initiative i
				join board b on b.id = i.board_id and b.team_id = $1 and b.unit = 'hours'
				join board_right r on r.board_id = b.id and r.person_id = $2
				where i.budget_hours is not null) as budgets,
				(select coalesce(json_agg(json_build_object('id', i.id, 'name', i.name, 'title', b.name)), '[]')
				from initiative i
				join board b on b.id = i.board_id and b.team_id = $1
				join board_right r on r.board_id = b.id and r.person_id = $2) as initiatives,
				(select coalesce(json_agg(json_build_object('name', x.name, 'from', x.starts, 'to', x.ends)), '[]') from (
					select b.name || ', sprint ' || s.number as name, s.starts, s.ends
					from sprint s
					join board b on b.id = s.board_id and b.team_id = $1
					join board_right r on r.board_id = b.id and r.person_id = $2
					where s.started_at is not null and s.ends > $3::date - 60
					order by b.position, s.number desc
				) x) as named`,
			[team, person.id, dayText(from)],
			'account',
		),
	]);
	const { budgets, initiatives, named } = more!;
	const boards = about.boards.map(({ id, name, key }) => ({ id, name, title: key }));
	const found = account(facts, by);
	const each = account(facts, 'person').lines;
	const nameOf = wholeNames(about.people);
	return {
		team: about,
		role: about.role,
		today: dayText(today),
		from: dayText(from),
		to: dayText(to),
		until: dayText(until),
		before: { from: dayText(before.from), to: dayText(before.to) },
		by,
		account: {
			total: found.total,
			lines: called(found.lines, by, {
				person: about.people,
				board: boards,
				initiative: initiatives,
			}),
		},
		use: about.people.flatMap(({ id, gone }) => {
			const hoursTo = (last: Day) => {
				let sum = 0;
				for (let day = from; day <= last; day++) sum += hoursOn(hours, id, day);
				return tidy(sum);
			};
			const [available, plannedOf] = [hoursTo(until), hoursTo(to)];
			const done = each.find((known) => known.about === id)?.hours ?? 0;
			const held = tidy(fsum(placed.get(id) ?? [], (one) => one.hours));
			if (gone && !done) return [];
			return [
				{
					person: id,
					name: nameOf(id),
					available,
					worked: done,
					use: useOf(done, available),
					placed: held,
					plannedOf,
					planned: useOf(held, plannedOf),
				},
			];
		}),
		ranges: [...usualRanges(today), ...named],
		budgets,
	};
}

/**
 * The cards behind a figure of an account, the most hours first.
 * @param of what was worked, or what is placed on somebody
 * @param which the line that is meant, as its account tells it apart, or whom; null: all that was worked
 * @throws Problem 422 when the range cannot be read or runs backwards
 */
export async function accountCards(
	person: Person,
	team: string,
	asked: Asked,
	of: BehindAccount,
	which: string | null,
): Promise<BehindCard[]> {
	const about = await teamOf(person, team);
	const { by, from, to, until } = spansOf(asked, about.zone);
	const found =
		of === 'placed'
			? ((await placedOn(person, about, await rotaOf(team), from, to)).get(which ?? '') ?? [])
			: cardsBehind(await workedOnCards(person, team, [from, from, until], by), by, which);
	const titles = await titlesOfKeys(person, team, found);
	return found.map(({ card, hours }) => ({ card, title: titles[card] ?? '', amount: hours }));
}

/** The days of an account: the range, the last of it that has been, and the equal span before. */
function spansOf(asked: Asked, zone: string) {
	const today = zoneOf(zone).day(now().getTime());
	const [from, to] = rangeOf(asked, today);
	// What has not been is not counted, nor set beside days that have.
	const until = Math.max(from, Math.min(to, today));
	const before = { from: from - (until - from + 1), to: from - 1 };
	return { by: groupingOf(asked.by), today, from, to, until, before };
}

interface Called {
	id: string;
	name: string;
	/** What tells it from another of that name. */
	title: string;
}

/** @throws Problem 422 when hours are not told apart by that */
function groupingOf(asked: string | null): Grouping {
	const by = asked ? GROUPINGS.find((known) => known === asked) : 'person';
	if (by) return by;
	throw new Problem(422, 'invalid.by', `Hours are told apart by ${GROUPINGS.join(', ')}.`, 'by');
}

/** Lines with their names; two of one name are each told from the other. */
function called(
	lines: readonly AccountLine[],
	by: Grouping,
	known: Record<'person' | 'board' | 'initiative', readonly Called[]>,
): NamedLine[] {
	if (by !== 'person' && by !== 'board' && by !== 'initiative' && by !== 'sprint')
		return lines.map((line) => ({ ...line, name: line.about }));
	const name = wholeNames(known[by === 'sprint' ? 'board' : by]);
	return lines.map((line) => {
		const [id, ...number] = line.about.split(' ');
		return { ...line, name: id ? [name(id), ...number].join(' ') : '' };
	});
}

function rangeOf(asked: { from: string | null; to: string | null }, today: Day): [Day, Day] {
	const month = monthOf(today);
	const from = dayAsked(asked.from, 'from') ?? month[0];
	const to = dayAsked(asked.to, 'to') ?? (asked.from ? Math.max(from, today) : month[1]);
	return rangeWithin(from, to);
}

/** The first and last day of the span of months that begins so many months after that of a day. */
function monthOf(day: Day, by = 0, months = 1): [Day, Day] {
	const [year, month] = dayText(day).split('-').map(Number) as [number, number];
	const first = (n: number) =>
		parseDay(new Date(Date.UTC(year, month - 1 + n, 1)).toISOString().slice(0, 10))!;
	return [first(by), first(by + months) - 1];
}

function usualRanges(today: Day): AccountPage['ranges'] {
	const month = Number(dayText(today).slice(5, 7)) - 1;
	const quarter = -(month % 3);
	const range = (name: string, [from, to]: [Day, Day]) => ({ name, from: dayText(from), to: dayText(to) });
	return [
		range('This month', monthOf(today)),
		range('Last month', monthOf(today, -1)),
		range('This quarter', monthOf(today, quarter, 3)),
		range('Last quarter', monthOf(today, quarter - 3, 3)),
	];
}
