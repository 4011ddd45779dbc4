/** Taking goods of a sale back: decided by the rows as they are when it is written. */
import { BASE, type Row } from '../core/books/tables';
import { asCorrected } from '../core/sale/corrections';
import type { HeldAccount } from '../core/held/held-account';
import { localTime } from '../core/event/local-time';
import {
  makeReturn,
  type ChosenBack,
  type RestOfCard,
  type ReturnOutcome,
} from '../core/sale/make-return';
import type { SaleDocument } from '../core/sale/sale-document';
import type { DeviceDatabase } from './database';
import type { Appended, DeviceDaybook } from './daybook';
import { openDrawersOf } from './event-rows';
import { balancesOf } from './held-accounts';
import { newId } from './new-id';
import { ownSale, soldIn } from './sale-document';

export interface Returning {
  /** As it is shown: the server's, where this device keeps it no more. */
  readonly found: SaleDocument;
  readonly chosen: readonly ChosenBack[];
  readonly isOff?: boolean;
  readonly reason: string;
  readonly way: string;
  /** Of the event that trades. */
  readonly drawer: string | null;
  /** The payment to whose card it goes back. */
  readonly card: string | null;
  /** The account that it goes on. */
  readonly account?: HeldAccount | null;
  /** How what the card does not take is given back. */
  readonly rest: RestOfCard | null;
  readonly event: Pick<Row<'events'>, 'id' | 'timeZone'> | null;
  readonly business: Pick<Row<'businesses'>, 'cashStep' | 'currency' | 'timeZone'>;
  readonly deviceNumber: number;
  readonly lentBy: string | undefined;
}

/** What has come back already, on this device or as far as it has heard, does not come back again. */
export async function returnOnce(
  daybook: DeviceDaybook,
  {
    found,
    chosen,
    isOff,
    reason,
    way,
    drawer,
    card,
    account = null,
    rest,
    event,
    business,
    deviceNumber,
    lentBy,
  }: Returning,
): Promise<Appended<ReturnOutcome>> {
  const { db } = daybook;
  return await daybook.decide(
    async () => {
      const open = event === null ? [] : await openDrawersOf(db, event.id);
      const now =
        (await ownSale(db, found.sale.id)) ?? withOwn(found, await ownBack(db, found.sale.id));
      return { now, open, balances: await balancesOf(db, now.lines) };
    },
    ({ now, open, balances }, next) => {
      const openOnly = (id: string | null): string | null =>
        open.some((each) => each.id === id) ? id : null;
      return makeReturn({
        newId,
        ...soldIn(now),
        ...{ voids: now.voids, undone: now.undone, chosen, reason, way },
        ...{ card, account, balances, refunds: now.refunds },
        rest: rest === null ? null : { ...rest, drawer: openOnly(rest.drawer) },
        drawer: openOnly(drawer),
        ...{ cashStep: business.cashStep, currency: business.currency, isOff },
        ...{ deviceNumber, number: next.returnNumber },
        ...{ event: event?.id ?? null, place: event?.id ?? BASE },
        ...localTime(Date.now(), event?.timeZone ?? business.timeZone),
      });
    },
    lentBy === undefined ? {} : { lentBy },
  );
}

type Back = Pick<SaleDocument, 'returns' | 'refunds' | 'corrections'>;

/** What this device knows to have come back of a sale that it may keep no more. */
export async function ownBack({ books }: DeviceDatabase, sale: string): Promise<Back> {
  const returns = await books.returns.where('sale').equals(sale).toArray();
  const ids = new Set(returns.map(({ id }) => id));
  const refunds = await books.cardRefunds.filter((each) => ids.has(each.return)).toArray();
  const corrections = await books.corrections.where('sale').equals(sale).toArray();
  return { returns, refunds, corrections };
}

/** A sale as the server has it, with what this device knows beside that, or better. */
export const withOwn = (
  found: SaleDocument,
  { returns, refunds, corrections }: Back,
): SaleDocument => ({
  // What the server knows of is in its rows already.
  ...asCorrected(
    found,
    corrections.filter(({ id }) => found.corrections.every((each) => each.id !== id)),
  ),
  corrections: joined(found.corrections, corrections),
  returns: joined(found.returns, returns),
  refunds: joined(found.refunds, refunds),
});

const joined = <R extends { readonly id: string }>(
  theirs: readonly R[],
  own: readonly R[],
): R[] => [...theirs.filter(({ id }) => own.every((each) => each.id !== id)), ...own];
