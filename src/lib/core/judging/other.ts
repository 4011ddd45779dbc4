/** Stages of events, receipts that are to be sent, loose ends that are settled. */
import type { EntryOf } from '../daybook/kinds';
import { may } from '../people/rights';
import type { Evidence } from './evidence';
import type { Doubt } from './verdict';

/** A stage, or what is set up of an event apart, is of an event that there is. */
export function judgeOfEvent(
  { body }: EntryOf<OfEvent>,
  { history }: Pick<Evidence, 'history'>,
): Doubt | null {
  return history.knows('event.set', body.event) ? null : { code: 'stage/event', found: body.event };
}

/** An event is settled by what says what it came to, and by nothing else. */
export const judgeStage = (
  entry: EntryOf<'event.stage'>,
  evidence: Pick<Evidence, 'history'>,
): Doubt | null =>
  entry.body.stage === 'settled' ? { code: 'stage/not-settled-so' } : judgeOfEvent(entry, evidence);

type OfEvent =
  | 'event.stage'
  | 'event.back'
  | 'event.taxes'
  | 'event.ways'
  | 'event.costs'
  | 'event.prices'
  | 'event.people'
  | 'event.bring'
  | 'maker.mailed'
  | 'event.ticked'
  | 'ledger.handed';

/** What is sent is the receipt of a sale that there is. */
export function judgeReceipt(
  { body }: EntryOf<'receipt.asked'>,
  { books }: Evidence,
): Doubt | null {
  return books.row('sales', body.sale) === undefined
    ? { code: 'receipt/unknown-sale', found: body.sale }
    : null;
}

/** Nobody but an owner settles what is held against themselves. */
export function judgeSettlement(
  { by, lentBy, stamp, body }: EntryOf<'looseEnd.settled'>,
  { people, writers }: Evidence,
): Doubt | null {
  const [sort, id = ''] = body.looseEnd.split(':');
  if (sort !== 'entry' || by === null || writers.get(id) !== by) return null;
  const isOwner = [by, lentBy].some((each) => {
    const person = each === undefined ? undefined : people.at(each, stamp);
    return person?.role === 'owner' && may(person, 'set-up');
  });
  return isOwner || people.isEmpty ? null : { code: 'looseEnd/own' };
}
