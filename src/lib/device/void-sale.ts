/** Voiding a sale, and taking a second void back: decided by the rows as they are when it is written. */
import type { Draft } from '../core/daybook/chain';
import { undoSecondVoid } from '../core/loose-end/voided-twice';
import type { SettleOutcome } from '../core/loose-end/kept-entry';
import { voidSale, type VoidOutcome } from '../core/sale/void-sale';
import type { Appended, DeviceDaybook } from './daybook';
import { openDrawersOf } from './event-rows';
import { balancesOf } from './held-accounts';
import { newId } from './new-id';
import { ownSale } from './sale-document';

export interface Voiding {
  readonly sale: string;
  readonly reason: string;
  /** That trades now. */
  readonly event: string | null;
  readonly lentBy: string | undefined;
}

/** A sale that is voided already, from this window or another, is not voided again. */
export async function voidOnce(
  daybook: DeviceDaybook,
  { sale: id, reason, event, lentBy }: Voiding,
): Promise<Appended<VoidOutcome>> {
  return await daybook.decide(
    async () => {
      const open = event === null ? [] : await openDrawersOf(daybook.db, event);
      return { ...(await saleAndVoids(daybook, id)), openDrawers: open.map((each) => each.id) };
    },
    (found) => voidSale({ newId, reason, event, ...found }),
    lentBy === undefined ? {} : { lentBy },
  );
}

/** Takes all voids of the sale back but the first. */
export async function undoOnce(
  daybook: DeviceDaybook,
  { sale: id, reason, lentBy }: Omit<Voiding, 'event'>,
): Promise<Appended<SettleOutcome>> {
  const { books } = daybook.db;
  return await daybook.decide(
    async () => ({
      ...(await saleAndVoids(daybook, id)),
      undone: await books.voidsUndone.where('sale').equals(id).toArray(),
      settlements: await books.settlements.toArray(),
    }),
    (found): { readonly ok: true; readonly drafts: readonly Draft[] } | SettleOutcome =>
      undoSecondVoid({ newId, reason, ...found }),
    lentBy === undefined ? {} : { lentBy },
  );
}

async function saleAndVoids({ db }: DeviceDaybook, id: string) {
  const found = await ownSale(db, id);
  if (found === null) throw new Error('this sale is not on this device any more');
  const { sale, lines, payments, voids, returns } = found;
  return { sale, lines, payments, voids, returns, balances: await balancesOf(db, lines) };
}
