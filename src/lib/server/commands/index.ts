import { changeFace } from './board/change-face.ts';
import { copyCards } from './card/copy-cards.ts';
import { attachFiles, pictureCard, removeFile } from './card/files.ts';
import { lineToCard } from './card/line-to-card.ts';
import { percentCard } from './card/percent-card.ts';
import { privateCard } from './card/private-card.ts';
import { reviewCard } from './card/review-card.ts';
import { sendCards } from './card/send-cards.ts';
import { tickLine } from './card/tick-line.ts';
import { addField } from './board/add-field.ts';
import { changeField } from './board/change-field.ts';
import { setField } from './card/set-field.ts';
import { addInitiative } from './board/add-initiative.ts';
import { changeInitiative } from './board/change-initiative.ts';
import { dropLens, keepLens } from './board/lenses.ts';
import { archiveCards } from './card/archive-cards.ts';
import { moveCards } from './card/move-cards.ts';
import { addLane } from './board/add-lane.ts';
import { changeLane } from './board/change-lane.ts';
import { addColumn } from './board/add-column.ts';
import { moveClock } from './board/move-clock.ts';
import { placeColumn } from './board/place-column.ts';
import { retireColumn } from './board/retire-column.ts';
import { changeBoard } from './board/change-board.ts';
import { keepTemplate } from './team/keep-template.ts';
import { makeBoard } from './team/make-board.ts';
import { dropReminder, remindCard } from './card/remind-card.ts';
import { askForCard, sayOnAsked } from './ask/ask-for-card.ts';
import { changeAskPage } from './ask/change-ask-page.ts';
import { agreeAction, changeAction } from './retrospective/actions.ts';
import { holdRetrospective, moveRetrospective } from './retrospective/hold.ts';
import { changeNote, layNote, voteNote, withdrawNote, writeNote } from './retrospective/notes.ts';
import { retryLetter } from './team/retry-letter.ts';
import { makeTeam } from './team/make-team.ts';
import { dropTeamLens, keepTeamLens } from './team/lenses.ts';
import { shareInitiative, stageInitiative } from './team/initiatives.ts';
import { changeTeam } from './team/change-team.ts';
import { invite } from './people/invite.ts';
import { revokeInvitation } from './people/revoke-invitation.ts';
import { takeInvitation } from './people/take-invitation.ts';
import { changeMember } from './people/change-member.ts';
import { bringBackMember } from './people/bring-back-member.ts';
import { makeReset } from './people/make-reset.ts';
import { changeYou } from './you/change-you.ts';
import { changePassword } from './you/change-password.ts';
import { endSession } from './you/end-session.ts';
import { addCard } from './card/add-card.ts';
import { addCards } from './card/add-cards.ts';
import { archiveCard } from './card/archive-card.ts';
import { assignCard } from './card/assign-card.ts';
import { blockCard } from './card/block-card.ts';
import { changeCards } from './card/change-cards.ts';
import { checklistCard } from './card/checklist-card.ts';
import { classifyCard } from './card/classify-card.ts';
import { changeComment, commentCard, withdrawComment } from './talk/comment-card.ts';
import { askToWatch, watchCard } from './card/watch-card.ts';
import { attachToPage, removePageFile } from './page/files.ts';
import { writeNotes } from './page/notes.ts';
import { changePageComment, commentPage, withdrawPageComment } from './page/talk.ts';
import { addMilestone, changeMilestone, dropMilestone } from './dates/milestones.ts';
import { moveDates } from './dates/move-dates.ts';
import { watchPage } from './page/watch-page.ts';
import { watchBoard } from './board/watch-board.ts';
import { chooseNotices, markNotices } from './you/notices.ts';
import { correctLeft } from './card/correct-left.ts';
import { dateCard } from './card/date-card.ts';
import { describeCard } from './card/describe-card.ts';
import { linkCard, unlinkCard } from './card/link-card.ts';
import { moveCard } from './card/move-card.ts';
import { nestCard } from './card/nest-card.ts';
import { placeCards } from './card/place-cards.ts';
import { renameCard } from './card/rename-card.ts';
import { replenishBoard } from './card/replenish-board.ts';
import { restoreCard } from './card/restore-card.ts';
import { shareOut } from './card/share-out.ts';
import { sizeCard } from './card/size-card.ts';
import { splitCard } from './card/split-card.ts';
import { unblockCard } from './card/unblock-card.ts';
import { waitFor } from './card/wait-for.ts';
import { changeCadence } from './sprint/change-cadence.ts';
import { changeSprint } from './sprint/change-sprint.ts';
import { planCards } from './sprint/plan-cards.ts';
import { settleSprint } from './sprint/settle-sprint.ts';
import { startSprint } from './sprint/start-sprint.ts';
import { changeTime, removeTime } from './time/change-time.ts';
import { logTime } from './time/log-time.ts';
import { startTimer, stopTimer } from './time/run-timer.ts';
import { agreeAbsence } from './people/agree-absence.ts';
import { bookDays, dropBookings, noteWeek } from './people/bookings.ts';
import { addAbsence } from './people/add-absence.ts';
import { changeRate } from './people/change-rate.ts';
import { changeShares } from './people/change-shares.ts';
import { changeSkills } from './people/change-skills.ts';
import { changeWeek } from './people/change-week.ts';
import { readCalendar } from './people/read-calendar.ts';
import { removeMember } from './people/remove-member.ts';
import { setHoliday } from './people/set-holiday.ts';
import { withdrawAbsence } from './people/withdraw-absence.ts';
import { changeBudget } from './board/change-budget.ts';
import { changeColumn } from './board/change-column.ts';
import { changeName } from './board/change-name.ts';
import { changeSettling } from './board/change-settling.ts';
import { changeType } from './board/change-type.ts';
import { dismissFinding, recallFinding } from './board/dismiss-finding.ts';
import { endCalendarAddress, makeCalendarAddress } from './you/calendar-address.ts';
import { makeToken } from './you/make-token.ts';
import { revokeToken } from './you/revoke-token.ts';
import type { AnyCommand } from '../door/command.ts';
import { doTogether } from '../door/together.ts';
import { undoCommand } from '../door/undo.ts';

const all = [
	addCard,
	addCards,
	archiveCard,
	assignCard,
	blockCard,
	changeCards,
	checklistCard,
	classifyCard,
	commentCard,
	correctLeft,
	dateCard,
	describeCard,
	linkCard,
	unlinkCard,
	moveCard,
	nestCard,
	placeCards,
	renameCard,
	replenishBoard,
	restoreCard,
	shareOut,
	sizeCard,
	splitCard,
	unblockCard,
	waitFor,
	changeCadence,
	changeSprint,
	planCards,
	settleSprint,
	startSprint,
	changeTime,
	removeTime,
	logTime,
	startTimer,
	stopTimer,
	addAbsence,
	changeRate,
	changeShares,
	changeSkills,
	changeWeek,
	readCalendar,
	removeMember,
	setHoliday,
	withdrawAbsence,
	changeBudget,
	changeColumn,
	changeName,
	changeSettling,
	changeType,
	dismissFinding,
	recallFinding,
	makeToken,
	revokeToken,
	changeBoard,
	keepTemplate,
	makeBoard,
	makeTeam,
	retryLetter,
	remindCard,
	dropReminder,
	changeAskPage,
	askForCard,
	sayOnAsked,
	holdRetrospective,
	moveRetrospective,
	writeNote,
	changeNote,
	withdrawNote,
	layNote,
	voteNote,
	agreeAction,
	changeAction,
	changeTeam,
	invite,
	revokeInvitation,
	takeInvitation,
	changeMember,
	bringBackMember,
	makeReset,
	changeYou,
	changePassword,
	endSession,
	addColumn,
	moveClock,
	placeColumn,
	retireColumn,
	addField,
	changeField,
	setField,
	keepLens,
	dropLens,
	archiveCards,
	moveCards,
	addLane,
	changeLane,
	changeInitiative,
	reviewCard,
	percentCard,
	privateCard,
	attachFiles,
	removeFile,
	pictureCard,
	tickLine,
	lineToCard,
	copyCards,
	sendCards,
	changeFace,
	markNotices,
	chooseNotices,
	watchCard,
	askToWatch,
	watchBoard,
	attachToPage,
	moveDates,
	addMilestone,
	changeMilestone,
	dropMilestone,
	addInitiative,
	shareInitiative,
	stageInitiative,
	keepTeamLens,
	dropTeamLens,
	agreeAbsence,
	bookDays,
	dropBookings,
	noteWeek,
	makeCalendarAddress,
	endCalendarAddress,
	changePageComment,
	commentPage,
	removePageFile,
	watchPage,
	withdrawPageComment,
	writeNotes,
	changeComment,
	withdrawComment,
	doTogether,
	undoCommand,
] as const;

type Every = (typeof all)[number];

/** What every command takes and answers, by its name: the one list that door, published description and pages go by. */
export type Commands = {
	[C in Every as C['name']]: C extends { input: new () => infer I; run(...args: never[]): Promise<infer D> }
		? { input: I; result: ResultOf<D> }
		: never;
};

type ResultOf<D> = Exclude<D, void> extends { result?: infer R } ? Exclude<R, undefined> : never;

/** Every command there is, by its name. */
export const COMMANDS: ReadonlyMap<string, AnyCommand> = new Map(
	all.map((command): [string, AnyCommand] => [command.name, command]),
);
