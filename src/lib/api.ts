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
