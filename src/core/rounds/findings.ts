import { blocked } from './findings/blocked.ts';
import { carriedAgain } from './findings/carried-again.ts';
import { dueSoon } from './findings/due-soon.ts';
import { late } from './findings/late.ts';
import { milestoneLate } from './findings/milestone-late.ts';
import { nextNotPlanned } from './findings/next-not-planned.ts';
import { noOwner } from './findings/no-owner.ts';
import { notSized } from './findings/not-sized.ts';
import { nothingToDo } from './findings/nothing-to-do.ts';
import { overLimit } from './findings/over-limit.ts';
import { overPromise } from './findings/over-promise.ts';
import { pilingUp } from './findings/piling-up.ts';
import { quiet } from './findings/quiet.ts';
import { sprintOver } from './findings/sprint-over.ts';
import { starved } from './findings/starved.ts';
import { surprisesOver } from './findings/surprises-over.ts';
import { timersLeftOn } from './findings/timer-left-on.ts';
import { tooOld } from './findings/too-old.ts';
import { unanswered } from './findings/unanswered.ts';
import { willNotFit } from './findings/will-not-fit.ts';
import type { Finder, Finding, FindingKind, RoundsState } from './state.ts';

/** Every kind of finding, by who looks for it. */
const FINDERS: Record<FindingKind, Finder> = {
	blocked: blocked,
	'too-old': tooOld,
	'over-limit': overLimit,
	starved: starved,
	'piling-up': pilingUp,
	'over-promise': overPromise,
	'nothing-to-do': nothingToDo,
	'no-owner': noOwner,
	'not-sized': notSized,
	late: late,
	'due-soon': dueSoon,
	'will-not-fit': willNotFit,
	'surprises-over': surprisesOver,
	'carried-again': carriedAgain,
	'timer-left-on': timersLeftOn,
	unanswered: unanswered,
	quiet: quiet,
	'sprint-over': sprintOver,
	'next-not-planned': nextNotPlanned,
	'milestone-late': milestoneLate,
};

/**
 * What needs somebody today, worst first: by severity, then by figure. Every finding names its cards and what can be
 * done about it.
 */
export function findings(state: RoundsState): Finding[] {
	return Object.values(FINDERS)
		.flatMap((find) => find(state))
		.sort((a, b) => b.severity - a.severity || b.figure - a.figure || (a.key < b.key ? -1 : 1));
}
