/** Giving money back without a sale: within the day's limit as it is when it is written. */
import type { Row } from '../core/books/tables';
import { localTime } from '../core/event/local-time';
import { sum } from '../core/money/units';
import { makeRefund, type MakeRefund, type RefundOutcome } from '../core/sale/make-refund';
import type { DeviceDatabase } from './database';
import type { Appended, DeviceDaybook } from './daybook';
import { openDrawersOf } from './event-rows';
import { newId } from './new-id';

export interface Refunding extends Omit<
  MakeRefund,
  'newId' | 'number' | 'now' | 'before' | 'drawer'
> {
  /** Of the event that trades. */
  readonly drawer: string | null;
  /** Who gives it back. */
  readonly by: string | null;
  readonly lentBy: string | undefined;
}

/** Writes it down. What it was is looked at once more, as it is by then. */
export async function refundOnce(
  daybook: DeviceDaybook,
  { by, lentBy, ...command }: Refunding,
): Promise<Appended<RefundOutcome>> {
  const now = Date.now();
  return await daybook.decide(
    () => before(daybook.db, command, by, now),
    (known, next) => makeRefund({ ...asFarAs(known, command), now, number: next.returnNumber }),
    lentBy === undefined ? {} : { lentBy },
  );
}

/** Whether it could be written down now, and what it comes to: before somebody holds a card to the reader. */
export async function wouldRefund(
  { db }: DeviceDaybook,
  { by, lentBy: _lentBy, ...command }: Refunding,
): Promise<RefundOutcome> {
  const now = Date.now();
  const known = await before(db, command, by, now);
  return makeRefund({ ...asFarAs(known, command), now, number: 1 });
}

type Command = Omit<Refunding, 'by' | 'lentBy'>;
interface Before {
  readonly own: readonly Row<'refunds'>[];
  readonly open: readonly Row<'drawers'>[];
}

/** What the same person gave back on that day, and the drawers that are open. */
async function before(
  db: DeviceDatabase,
  { event, timeZone }: Command,
  by: string | null,
  now: number,
): Promise<Before> {
  const { day } = localTime(now, timeZone);
  const ofDay = await db.books.refunds.where('day').equals(day).toArray();
  return {
    own: ofDay.filter((row) => row.by === by),
    open: event === null ? [] : await openDrawersOf(db, event.id),
  };
}

const asFarAs = ({ own, open }: Before, { drawer, ...command }: Command) => ({
  ...{ ...command, newId },
  drawer: open.some(({ id }) => id === drawer) ? drawer : null,
  before: sum(own.map(({ total }) => total)),
});
