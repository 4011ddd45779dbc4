/** Putting right what was booked wrongly: decided by the rows as they are when it is written. */
import type { Fix } from '../core/daybook/kinds/sale-corrected';
import { correctSale, type CorrectOutcome } from '../core/sale/correct-sale';
import type { SaleDocument } from '../core/sale/sale-document';
import type { Appended, DeviceDaybook } from './daybook';
import { newId } from './new-id';
import { ownBack, withOwn } from './return-goods';
import { ownSale } from './sale-document';

export interface Correcting {
  /** As it is shown: the server's, where this device keeps it no more. */
  readonly found: SaleDocument;
  readonly fix: Fix;
  readonly reason: string;
  readonly lentBy: string | undefined;
}

export async function correctOnce(
  daybook: DeviceDaybook,
  { found, fix, reason, lentBy }: Correcting,
): Promise<Appended<CorrectOutcome>> {
  const { db } = daybook;
  return await daybook.decide(
    async () =>
      (await ownSale(db, found.sale.id)) ?? withOwn(found, await ownBack(db, found.sale.id)),
    (now) => correctSale({ ...now, newId, fix, reason }),
    lentBy === undefined ? {} : { lentBy },
  );
}
