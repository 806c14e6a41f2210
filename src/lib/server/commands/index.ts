import { addCard } from './add-card.ts';
import { archiveCard } from './archive-card.ts';
import { assignCard } from './assign-card.ts';
import { blockCard } from './block-card.ts';
import { changeColumn } from './change-column.ts';
import { classifyCard } from './classify-card.ts';
import type { AnyCommand } from './command.ts';
import { correctLeft } from './correct-left.ts';
import { dateCard } from './date-card.ts';
import { describeCard } from './describe-card.ts';
import { makeToken } from './make-token.ts';
import { moveCard } from './move-card.ts';
import { renameCard } from './rename-card.ts';
import { restoreCard } from './restore-card.ts';
import { revokeToken } from './revoke-token.ts';
import { sizeCard } from './size-card.ts';
import { unblockCard } from './unblock-card.ts';
import { undoCommand } from './undo-command.ts';

const all: AnyCommand[] = [
	addCard,
	archiveCard,
	assignCard,
	blockCard,
	changeColumn,
	classifyCard,
	correctLeft,
	dateCard,
	describeCard,
	makeToken,
	moveCard,
	renameCard,
	restoreCard,
	revokeToken,
	sizeCard,
	unblockCard,
	undoCommand,
];

/** Every command there is, by its name. */
export const COMMANDS: ReadonlyMap<string, AnyCommand> = new Map(
	all.map((command) => [command.name, command]),
);
