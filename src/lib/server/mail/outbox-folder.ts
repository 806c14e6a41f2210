/** Where the stand-in for a mail server keeps what it took: HARROW_OUTBOX; null where there is none. */
export const outboxFolder = () => process.env.HARROW_OUTBOX || null;
