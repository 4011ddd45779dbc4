/** Giving money back without a sale: within the day's limit as it is when it is written. */
import { localTime } from '../core/event/local-time';
import { sum } from '../core/money/units';
import { makeRefund, type MakeRefund, type RefundOutcome } from '../core/sale/make-refund';
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

export async function refundOnce(
  daybook: DeviceDaybook,
  { drawer, by, lentBy, ...command }: Refunding,
): Promise<Appended<RefundOutcome>> {
  const { db } = daybook;
  const now = Date.now();
  const { day } = localTime(now, command.timeZone);
  return await daybook.decide(
    async () => ({
      own: (await db.books.refunds.where('day').equals(day).toArray()).filter(
        (row) => row.by === by,
      ),
      open: command.event === null ? [] : await openDrawersOf(db, command.event.id),
    }),
    ({ own, open }, next) =>
      makeRefund({
        ...{ ...command, newId, now, number: next.returnNumber },
        drawer: open.some(({ id }) => id === drawer) ? drawer : null,
        before: sum(own.map(({ total }) => total)),
      }),
    lentBy === undefined ? {} : { lentBy },
  );
}
