/** Cheques and tokens are handed in: from then on they are on their way, under what stands on the paying-in slip. */
import { draft, type BodyOf } from '../daybook/kinds';
import { readAmount } from '../money/amount-text';
import type { SettleEventOutcome } from './settle-event';

export interface HandIn {
  readonly newId: () => string;
  readonly event: string;
  readonly way: string;
  /** ISO date. */
  readonly day: string;
  /** What was counted. */
  readonly typed: string;
  readonly what: string;
  readonly payments: readonly string[];
  readonly currency: string;
}

export function handIn(command: HandIn): SettleEventOutcome {
  const { newId, event, way, day, typed, currency } = command;
  const read = readAmount(typed, currency);
  if (!read.ok || read.amount === 0)
    return { ok: false, refusal: { code: 'settle/amount-wrong', typed } };
  const what = command.what.trim().slice(0, 60);
  if (what === '') return { ok: false, refusal: { code: 'settle/no-slip' } };
  const body: BodyOf<'handed.in'> = {
    ...{ way, day, amount: read.amount, what },
    payments: command.payments.slice(0, 200),
  };
  return { ok: true, drafts: [draft('handed.in', newId(), event, body)] };
}
