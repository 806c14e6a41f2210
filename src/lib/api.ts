import type { Part } from '../core/capacity/promise.ts';
import type { LineError } from '../core/exchange/history-file.ts';
import type { Head, Mapping, TableCard } from '../core/exchange/card-file.ts';
import type { BoardCards, BoardHead, SeenBoard } from '../core/pages/board.ts';
import type { CardPage } from '../core/pages/card.ts';
import type { DaysPage } from '../core/pages/days.ts';
import type { DatesPage, ShiftPage } from '../core/pages/dates.ts';
import type { Found } from '../core/pages/find.ts';
import type { MinePage } from '../core/pages/mine.ts';
import type { NoticesPage } from '../core/pages/notices.ts';
import type { NamedCards, PanoramaPage, TeamConditions } from '../core/pages/panorama.ts';
import type { FlowPage } from '../core/pages/flow.ts';
import type { BehindCard, LookBackPage, ReportPage } from '../core/pages/look-back.ts';

/**
 * What can be read over the API, by its path, and what each answers. Types only: routes answer what stands here or do not
 * compile, and the published description is made from it.
 */
export interface Reads {
	'/api/boards': SeenBoard[];
	'/api/boards/{board}': BoardHead & BoardCards;
	'/api/boards/{board}/room': Room;
	'/api/boards/{board}/flow': FlowPage;
	'/api/boards/{board}/look-back': LookBackPage;
	'/api/boards/{board}/look-back/cards': BehindCard[];
	'/api/boards/{board}/look-back/{sprint}': ReportPage;
	'/api/boards/{board}/table': TableSeen;
	'/api/boards/{board}/shift': ShiftPage;
	'/api/cards/{key}': CardPage;
	'/api/cards/{key}/dates': DatesPage;
	'/api/teams/{team}/panorama': PanoramaPage;
	'/api/teams/{team}/dates': DatesPage;
	'/api/teams/{team}/conditions': TeamConditions;
	'/api/teams/{team}/loose': NamedCards;
	'/api/teams/{team}/days': DaysPage;
	'/api/find': Found[];
	'/api/mine': MinePage;
	'/api/notices': NoticesPage;
}
export type Read = keyof Reads;

/** A card that was made. */
interface CardMade {
	card: string;
	number: number;
}

/**
 * What commands answer beside that they were done, by their names; those that are not here answer nothing more. Types only:
 * a command that answers otherwise does not compile with `commands.ts`.
 */
export interface Results {
	AddAbsence: { absence: string };
	AddCard: CardMade;
	AddCards: { cards: { id: string; number: number }[] };
	AddColumn: { column: string };
	AddField: { field: string; choices: { id: string; name: string }[] };
	AddInitiative: { initiative: string };
	AddLane: { lane: string };
	AddMilestone: { milestone: string };
	/** With the card that was made of it, where one was. */
	AgreeAction: { action: string; card?: string; number?: number };
	/** The key of the card, by which whoever asked follows it. */
	AskForCard: { key: string };
	AttachFiles: { files: string[] };
	AttachToPage: { files: string[] };
	/** For how many days somebody was put down. */
	BookDays: { days: number };
	/** How many cards bear the name. */
	ChangeName: { cards: number };
	CopyCards: { cards: CardMade[] };
	HoldRetrospective: { retrospective: string; number: number };
	/** Its id; the link itself is the answer's secret. */
	Invite: { invitation: string };
	KeepLens: { lens: string };
	KeepTeamLens: { lens: string };
	KeepTemplate: { template: string };
	LineToCard: CardMade;
	LogTime: { entry: string };
	MakeBoard: { board: string; slug: string };
	MakeCalendarAddress: { address: string };
	/** Whether the link was mailed; else it is the answer's secret. */
	MakeReset: { mailed: boolean };
	MakeTeam: { team: string };
	MakeToken: { token: string };
	/** How many were changed. */
	MarkNotices: { notices: number };
	/** How many cards' clocks are read otherwise now. */
	MoveClock: { cards: number };
	/** How many cards have other dates now. */
	MoveDates: { moved: number };
	MoveRetrospective: { phase: 'write' | 'lay' | 'vote' | 'agree' | 'closed' };
	/** How many days were read from the file. */
	ReadCalendar: { read: number };
	RemindCard: { reminder: string };
	/** How many cards went elsewhere. */
	RetireColumn: { cards: number };
	/** The keys that the cards have where they went. */
	SendCards: { keys: string[] };
	/** How many cards had each outcome, and the sprint that comes next. */
	SettleSprint: {
		sprint: number;
		done: number;
		carried: number;
		split: number;
		returned: number;
		dropped: number;
		next: number | null;
	};
	SplitCard: CardMade;
	/** What it was started with: left work in the board's unit, and how many cards. */
	StartSprint: { sprint: number; committed: number; cards: number };
	/** The instant. */
	StartTimer: { started: string };
	StopTimer: { hours: number };
	TakeInvitation: { team: string; name: string };
}

/** Who has how much room in a sprint; no parts where the board has no sprints or is not sized. */
export interface Room {
	sprint: number | null;
	parts: Part[];
}

/** What would be made of a table of cards, and which lines cannot be read. */
export interface TableSeen {
	header: string[];
	/** What its columns can hold. */
	heads: Head[];
	mapping: Mapping;
	cards: TableCard[];
	errors: LineError[];
	/** The lines that cannot be read, as a table of their own with what is wrong with each; empty where there are none. */
	bad: string;
}
