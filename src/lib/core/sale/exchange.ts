/**
 * An exchange: what comes back of earlier sales stands on the open slip and pays for what is on it, in one go. It is a
 * way to pay of its own, which comes to nothing once the sale and what came back are both written down.
 */
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import type { HeldAccount } from '../held/held-account';
import { minor, sum } from '../money/units';
import { EXCHANGE, EXCHANGE_NAME } from '../payment/methods';
import type { OpenSlip, PaidPart, SlipBack } from '../slip/open-slip';
import { givenFor, readChosen, type ChosenBack, type ReturnRefusal } from './make-return';
import { leftOf, returnFigures, soldFrom, takenOff, type SoldSale } from './return-figures';

type ReturnBody = BodyOf<'return.made'>;

export type BringBackRefusal =
  | ReturnRefusal
  | { readonly code: 'slip/part-paid' }
  | { readonly code: 'exchange/already' };

export type BringBackOutcome =
  | { readonly ok: true; readonly slip: OpenSlip }
  | { readonly ok: false; readonly refusal: BringBackRefusal };

export interface BringBack extends SoldSale {
  readonly slip: OpenSlip;
  readonly isVoid: boolean;
  readonly chosen: readonly ChosenBack[];
  readonly reason: string;
  /** ISO 4217. */
  readonly currency: string;
}

/** Puts what comes back of a sale on the open slip; it comes back once the slip is rung up. */
export function bringBackOn(command: BringBack): BringBackOutcome {
  const { slip, sale, lines, isVoid, chosen, currency } = command;
  if (isVoid) return refuse({ code: 'return/voided' });
  if ((slip.paid ?? []).length > 0) return refuse({ code: 'slip/part-paid' });
  if ((slip.back ?? []).some((each) => each.sale === sale.id))
    return refuse({ code: 'exchange/already' });
  const back = readChosen(command, chosen, false, currency);
  if ('code' in back) return refuse(back);
  const reason = command.reason.trim().slice(0, 200);
  if (reason === '') return refuse({ code: 'return/no-reason' });
  const figures = returnFigures(command, back);
  const put: SlipBack = {
    ...{
      sale: sale.id,
      saleNumber: sale.number,
      slip: sale.slip,
      soldFrom: soldFrom(sale),
      reason,
    },
    lines: back.map(({ line, quantity }) => {
      const { name = '', unit = '' } = lines.find((each) => each.line === line) ?? {};
      const to = chosen.find((each) => each.line === line)?.to ?? 'stock';
      return { line, quantity, to, name, unit };
    }),
    takes: figures.takes.postings,
    surcharges: figures.surcharges,
    promotions: figures.promotions,
    comesTo: Math.max(0, takenOff(figures)),
  };
  return { ok: true, slip: { ...slip, back: [...(slip.back ?? []), put] } };
}

/** It does not come back after all. */
export function leaveOut(slip: OpenSlip, sale: string): OpenSlip {
  const { back = [], ...bare } = slip;
  const rest = back.filter((each) => each.sale !== sale);
  return rest.length === 0 ? bare : { ...bare, back: rest };
}

/** What comes back on it, all together. Minor units. */
export const broughtBack = ({ back = [] }: Pick<OpenSlip, 'back'>): number =>
  sum(back.map(({ comesTo }) => comesTo));

/** What is to be given back beyond what the slip comes to. Minor units, nothing where something is to pay. */
export const overOf = (total: number, slip: Pick<OpenSlip, 'back'>): number =>
  Math.max(0, broughtBack(slip) - total);

/** The part that what comes back pays; null where nothing does, or where it has been taken already. */
export function exchangePart(
  slip: Pick<OpenSlip, 'back' | 'paid' | 'customer'>,
  total: number,
  newId: () => string,
): PaidPart | null {
  const { back = [], paid = [] } = slip;
  const clears = Math.min(total, broughtBack(slip));
  if (clears <= 0 || paid.some(({ way }) => way === EXCHANGE)) return null;
  return {
    id: newId(),
    ...{ way: EXCHANGE, wayName: EXCHANGE_NAME, method: EXCHANGE, side: 'cash' },
    ...{ drawer: null, clears: minor(clears), charge: minor(clears), surcharge: minor(0) },
    ...{ tip: 0, change: 0, rounding: 0 },
    reference: back
      .map(({ saleNumber }) => saleNumber)
      .join(', ')
      .slice(0, 80),
    ...{ customer: slip.customer?.id ?? null, share: null, card: null },
  };
}

/** Its parts as they will be: with what comes back, which pays before anything else. Minor units. */
export function partsOn(
  slip: Pick<OpenSlip, 'back' | 'paid' | 'customer'>,
  total: number,
): readonly PaidPart[] {
  const brought = exchangePart(slip, total, () => '');
  return [...(slip.paid ?? []), ...(brought === null ? [] : [brought])];
}

/** By which way the rest goes back. */
export interface RestBy {
  readonly way: string;
  /** The drawer that cash comes out of. */
  readonly drawer: string | null;
  /** The payment to whose card it goes. */
  readonly card: string | null;
  /** The account that it goes on, where the way does so. */
  readonly account?: HeldAccount | null | undefined;
}

export interface ExchangeReturns {
  readonly newId: () => string;
  readonly slip: OpenSlip;
  readonly event: string;
  readonly day: string;
  readonly hour: number;
  readonly deviceNumber: number;
  /** The device's next. */
  readonly returnNumber: number;
  readonly cashStep: number;
  /** Null where all of it pays for the slip. */
  readonly rest: RestBy | null;
}

/** What came back, once the slip is paid: each sale's goods by an entry of their own. */
export function exchangeReturns({ slip, rest, ...here }: ExchangeReturns): readonly Draft[] {
  let pays: number = sum(
    (slip.paid ?? []).flatMap(({ way, clears }) => (way === EXCHANGE ? clears : [])),
  );
  return (slip.back ?? []).map((back, at) => {
    const ofSlip = Math.min(pays, back.comesTo);
    pays -= ofSlip;
    const owed = back.comesTo - ofSlip;
    const amount = givenFor(owed, rest?.drawer != null, here.cashStep);
    const money: ReturnBody['money'] = [
      ...(ofSlip === 0
        ? []
        : [
            {
              ...{ way: EXCHANGE, drawer: null, amount: ofSlip, rounding: 0, card: null },
              exchange: slip.id,
            } as const,
          ]),
      ...(owed === 0 || rest === null
        ? []
        : [
            {
              ...{ way: rest.way, drawer: rest.drawer, amount, rounding: amount - owed },
              card: rest.card === null ? null : { payment: rest.card, refund: here.newId() },
              ...(rest.account == null ? {} : { account: rest.account }),
            },
          ]),
    ];
    const body: ReturnBody = {
      ...{ sale: back.sale, saleNumber: back.saleNumber, slip: back.slip },
      ...{ number: here.returnNumber + at, deviceNumber: here.deviceNumber, reason: back.reason },
      ...{ day: here.day, hour: here.hour, soldFrom: back.soldFrom, place: here.event },
      lines: back.lines.map(({ line, quantity, to }) => ({ line, quantity, to })),
      takes: { of: back.sale, postings: [...back.takes] },
      surcharges: [...back.surcharges],
      // A slip that was left open before there were any has none.
      promotions: [...((back as Partial<SlipBack>).promotions ?? [])],
      money,
    };
    return draft('return.made', here.newId(), here.event, body);
  });
}

/** Whether no more comes back of a sale than is left of it, as it is known now. */
export function isStillLeft(sold: SoldSale, { lines }: SlipBack): boolean {
  const left = leftOf(sold);
  return lines.every(({ line, quantity }) => quantity <= (left.get(line) ?? 0));
}

const refuse = (refusal: BringBackRefusal): BringBackOutcome => ({ ok: false, refusal });
