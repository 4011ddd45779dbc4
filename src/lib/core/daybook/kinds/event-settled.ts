import { z } from 'zod';
import { isAccount } from '../../journal/accounts';
import { digestOf } from '../digest';
import { amount, kind, recordId } from '../kind';

const hash = z.string().regex(/^[0-9a-f]{64}$/, 'a SHA-256 in hex');

/** What an event's figures are made of and stood at: what the digest is of. */
export const settledFacts = z.strictObject({
  event: recordId,
  /** Every account that is not nothing, in order of name; minor units. All slips are one. */
  balances: z
    .array(
      z.strictObject({
        account: z
          .string()
          .max(60)
          .refine(
            (text): boolean => text === 'slip' || isAccount(text),
            'an account that there is',
          ),
        amount: amount.refine((n) => n !== 0, 'an amount that is not nothing'),
      }),
    )
    .max(2000),
  /** How far each device's chain was known, in order of device. */
  heads: z.array(z.strictObject({ device: recordId, seq: z.int().min(1), hash })).max(500),
  /** Entries of the event that change nothing, since they were not allowed or not understood. */
  leftOut: z.array(recordId).max(1000),
});

const inOrder = (names: readonly string[]): boolean =>
  names.every((name, at) => at === 0 || names[at - 1]! < name);

/**
 * An event is settled: nothing is loose, or each loose end is accepted. What stood on its accounts then, and how far
 * each device's chain was known, so that whoever has the daybook can check that nothing was changed since.
 */
export const eventSettled = kind(
  1,
  settledFacts
    .extend({
      /** Loose ends that are left as they are, as they were named. */
      accepted: z.array(z.string().max(80)).max(2000),
      /** It was settled before; this is what has come since. */
      isAddendum: z.boolean(),
      digest: hash,
    })
    .refine(({ balances }) => inOrder(balances.map(({ account }) => account)), {
      path: ['balances'],
      message: 'each account once, in order of name',
    })
    .refine(({ balances }) => balances.reduce((sum, each) => sum + each.amount, 0) === 0, {
      path: ['balances'],
      message: 'the balances must add up to nothing',
    })
    .refine(({ heads }) => inOrder(heads.map(({ device }) => device)), {
      path: ['heads'],
      message: 'each device once, in order',
    })
    .refine(
      ({ event, balances, heads, leftOut, digest }) =>
        digestOf({ event, balances, heads, leftOut }) === digest,
      { path: ['digest'], message: 'the digest must be that of what was settled' },
    ),
);
