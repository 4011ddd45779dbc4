/** Settling: nothing is shared, paid or said to have come that the books do not owe, and nothing is settled behind their back. */
import { NO_EVENT } from '../books/names';
import type { EntryOf } from '../daybook/kinds';
import type { Evidence } from './evidence';
import type { Doubt } from './verdict';

/** What an event, or what is of none, owes on an account, minor units: credits count as more. */
const owes = ({ books }: Evidence, event: string | null, account: string): number =>
  0 - (books.row('eventAccounts', `${event ?? NO_EVENT} ${account}`)?.amount ?? 0);

export function judgeTipsShared(
  { event, body }: EntryOf<'tips.shared'>,
  evidence: Evidence,
): Doubt | null {
  for (const { seller, amount } of body.taken) {
    const wanted = owes(evidence, event, `tips:${seller}`);
    if (amount > wanted) return { code: 'tips/not-so', found: amount, wanted };
  }
  return null;
}

export function judgePaidOut(
  { event, body }: EntryOf<'paid.out'>,
  evidence: Evidence,
): Doubt | null {
  if (body.for !== 'tips') return null;
  const wanted = owes(evidence, event, `tips:${String(body.whom)}`);
  return body.amount > wanted ? { code: 'paid/more', found: body.amount, wanted } : null;
}

/** It came of what was still to come at the event, and not twice. */
export function judgeMoneyCame(
  { event, body }: EntryOf<'money.came'>,
  evidence: Evidence,
): Doubt | null {
  for (const { account, amount } of body.from) {
    const wanted = 0 - owes(evidence, event, account);
    if (amount > wanted) return { code: 'money/more', found: amount, wanted };
  }
  return null;
}

/**
 * What it says stood on the event's accounts stands there, and it knew all that is known here: else somebody looks
 * again before the event is settled.
 */
export function judgeSettled(
  { device, seq, prev, body }: EntryOf<'event.settled'>,
  { history, books, heads }: Evidence,
): Doubt | null {
  const { event } = body;
  if (!history.knows('event.set', event)) return { code: 'stage/event', found: event };
  const known = new Map(heads);
  if (seq > 1) known.set(device, { seq: seq - 1, hash: prev });
  else known.delete(device);
  const isKnown = body.heads.every((head) => {
    const here = known.get(head.device);
    return here?.seq === head.seq && here.hash === head.hash;
  });
  if (!isKnown || body.heads.length !== known.size) return { code: 'settled/heads' };
  const stand = new Map(
    books
      .rows('eventAccounts')
      .filter((row) => row.event === event && row.amount !== 0)
      .map(({ account, amount }) => [account, amount]),
  );
  const isSo = body.balances.every(({ account, amount }) => stand.get(account) === amount);
  return isSo && body.balances.length === stand.size ? null : { code: 'settled/balances' };
}
