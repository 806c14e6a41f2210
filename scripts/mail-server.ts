import { startMailServer } from '../src/stand-ins/mail-server.ts';

/* The stand-in for a mail server that the demo sends to: it takes letters, and keeps them as files. */
const { MAIL_PORT, HARROW_OUTBOX, HARROW_MAIL_KEY, HARROW_MAIL_REPLY, ORIGIN } = process.env;
await startMailServer({
	port: Number(MAIL_PORT),
	folder: HARROW_OUTBOX!,
	inbox: { host: HARROW_MAIL_REPLY!.split('@')[1]!, url: `${ORIGIN}/api/mail`, key: HARROW_MAIL_KEY! },
});
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => process.exit(0));
