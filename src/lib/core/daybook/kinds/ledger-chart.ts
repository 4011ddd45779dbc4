import { z } from 'zod';
import { moneyHeads } from '../../journal/accounts';
import { LEDGER_BY } from '../../ledger/ledger-by';
import { kind, recordId } from '../kind';

/** Under which numbers and names the vendor's accountant has the journal's accounts; those left out are as they begin. */
export const ledgerChart = kind(
  1,
  z
    .strictObject({
      accounts: z
        .array(
          z.strictObject({
            head: z.enum(moneyHeads),
            number: z.string().trim().max(20),
            name: z.string().trim().min(1).max(60),
          }),
        )
        .max(moneyHeads.length),
    })
    .refine(({ accounts }) => new Set(accounts.map(({ head }) => head)).size === accounts.length, {
      path: ['accounts'],
      message: 'each account once',
    }),
);

/** The ledger of an event was handed over as far as these devices' chains were known; what comes later is new. */
export const ledgerHanded = kind(
  1,
  z.strictObject({
    event: recordId,
    groupedBy: z.enum(LEDGER_BY),
    heads: z.array(z.strictObject({ device: recordId, seq: z.int().min(1) })).max(1000),
    /** Entries of the event that changed nothing then, and may later. */
    leftOut: z.array(recordId).max(1000),
    /** How many postings there were. */
    postings: z.int().min(0).max(1_000_000),
  }),
);
