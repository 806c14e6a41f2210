const USAGE = `harrow: Harrow's command line

  measure --board board.json --history history.csv --as-of INSTANT [--from DAY --to DAY]
      prints the report of a history file as JSON; needs no database
  export --board KEY [--out FOLDER]
      writes a board and its history from the database, as files that measure reads
  ledger --board KEY [--sprint NUMBER]
      prints a sprint's ledger with its stints from the database, the latest unless a number is given
  check
      proves that every sprint's ledger in the database adds up and agrees with its cards and their time
  backup FILE
      writes everything in the database into one file
  restore FILE
      fills the empty database of DATABASE_URL from such a file, brings it up to date and checks it
  reset ADDRESS
      prints a link with which a person sets a new password; ORIGIN is where Harrow is served
`;

/** Each brings what it needs itself: what reads files has no use for a database. */
const commands: Record<string, (args: string[]) => Promise<number>> = {
	measure: async (args) => (await import('./measure.ts')).measure(args),
	export: async (args) => (await import('./export.ts')).exportBoard(args),
	ledger: async (args) => (await import('./ledger.ts')).ledger(args),
	backup: async (args) => (await import('./backup.ts')).backup(args),
	restore: async (args) => (await import('./backup.ts')).restore(args),
	reset: async (args) => (await import('./reset.ts')).reset(args),
	check: async (args) => (await import('./ledger.ts')).check(args),
};

const [name = '', ...args] = process.argv.slice(2);
const command = commands[name];
if (name === '--help') process.stdout.write(USAGE);
else if (!command) {
	process.stderr.write(name ? `There is no command "${name}".\n\n${USAGE}` : USAGE);
	process.exitCode = 2;
} else {
	process.exitCode = await command(args);
}

export {};
