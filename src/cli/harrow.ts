import { exportBoard } from './export.ts';
import { measure } from './measure.ts';

const USAGE = `harrow: Harrow's command line

  measure --board board.json --history history.csv --as-of INSTANT [--from DAY --to DAY]
      prints the flow report of a history file as JSON; needs no database
  export --board KEY [--out FOLDER]
      writes a board and its history from the database, as files that measure reads
`;

const commands: Record<string, (args: string[]) => Promise<number> | number> = {
	measure,
	export: exportBoard,
};

const [name = '', ...args] = process.argv.slice(2);
const command = commands[name];
if (!command) {
	process.stderr.write(name && name !== '--help' ? `There is no command "${name}".\n\n${USAGE}` : USAGE);
	process.exitCode = name === '--help' ? 0 : 2;
} else {
	process.exitCode = await command(args);
}
