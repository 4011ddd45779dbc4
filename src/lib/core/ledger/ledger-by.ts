/** What goes together in a ledger: all of an event, each of its days, or what was taken with one drawer in use. */
export const LEDGER_BY = ['day', 'event', 'shift'] as const;
export type LedgerBy = (typeof LEDGER_BY)[number];
