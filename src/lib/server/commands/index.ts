import { addAbsence } from './add-absence.ts';
import { addCard } from './add-card.ts';
import { addCards } from './add-cards.ts';
import { archiveCard } from './archive-card.ts';
import { assignCard } from './assign-card.ts';
import { blockCard } from './block-card.ts';
import { changeCadence } from './change-cadence.ts';
import { changeCards } from './change-cards.ts';
import { changeColumn } from './change-column.ts';
import { changeShares } from './change-shares.ts';
import { changeSkills } from './change-skills.ts';
import { changeSprint } from './change-sprint.ts';
import { changeType } from './change-type.ts';
import { changeWeek } from './change-week.ts';
import { checklistCard } from './checklist-card.ts';
import { classifyCard } from './classify-card.ts';
import { commentCard } from './comment-card.ts';
import { correctLeft } from './correct-left.ts';
import { dateCard } from './date-card.ts';
import { describeCard } from './describe-card.ts';
import { linkCard, unlinkCard } from './link-card.ts';
import { makeToken } from './make-token.ts';
import { moveCard } from './move-card.ts';
import { nestCard } from './nest-card.ts';
import { placeCards } from './place-cards.ts';
import { planCards } from './plan-cards.ts';
import { readCalendar } from './read-calendar.ts';
import { removeMember } from './remove-member.ts';
import { renameCard } from './rename-card.ts';
import { replenishBoard } from './replenish-board.ts';
import { restoreCard } from './restore-card.ts';
import { revokeToken } from './revoke-token.ts';
import { setHoliday } from './set-holiday.ts';
import { shareOut } from './share-out.ts';
import { sizeCard } from './size-card.ts';
import { splitCard } from './split-card.ts';
import { startSprint } from './start-sprint.ts';
import { unblockCard } from './unblock-card.ts';
import { waitFor } from './wait-for.ts';
import { undoCommand } from './undo-command.ts';
import { withdrawAbsence } from './withdraw-absence.ts';
import { changeTime, removeTime } from './change-time.ts';
import { logTime } from './log-time.ts';
import { settleSprint } from './settle-sprint.ts';
import { startTimer, stopTimer } from './run-timer.ts';
import { dismissFinding, recallFinding } from './dismiss-finding.ts';
import { changeBudget } from './change-budget.ts';
import { changeName } from './change-name.ts';
import { changeRate } from './change-rate.ts';
import { changeSettling } from './change-settling.ts';
import type { AnyCommand } from './command.ts';

const all: AnyCommand[] = [
	addAbsence,
	addCard,
	addCards,
	archiveCard,
	assignCard,
	blockCard,
	changeCadence,
	changeCards,
	changeColumn,
	changeShares,
	changeSkills,
	changeSprint,
	changeType,
	changeWeek,
	checklistCard,
	classifyCard,
	commentCard,
	correctLeft,
	dateCard,
	describeCard,
	linkCard,
	makeToken,
	moveCard,
	nestCard,
	placeCards,
	planCards,
	readCalendar,
	removeMember,
	renameCard,
	replenishBoard,
	restoreCard,
	revokeToken,
	setHoliday,
	shareOut,
	sizeCard,
	splitCard,
	startSprint,
	unblockCard,
	waitFor,
	undoCommand,
	unlinkCard,
	withdrawAbsence,
	changeBudget,
	changeName,
	changeRate,
	changeSettling,
	changeTime,
	dismissFinding,
	recallFinding,
	logTime,
	removeTime,
	settleSprint,
	startTimer,
	stopTimer,
];

/** Every command there is, by its name. */
export const COMMANDS: ReadonlyMap<string, AnyCommand> = new Map(
	all.map((command) => [command.name, command]),
);
