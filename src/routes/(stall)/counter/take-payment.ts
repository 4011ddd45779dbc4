/** Parts of the open slip's payment: each is on disk before the screen says so. */
import type { Draft } from '$lib/core/daybook/chain';
import type { BodyOf } from '$lib/core/daybook/kinds';
import type { Earned } from '$lib/core/points/earned';
import { stageOf } from '$lib/core/event/stage';
import type { RestBy } from '$lib/core/sale/exchange';
import { ringUpExchange, type ExchangeRefusal } from '$lib/core/sale/ring-up-exchange';
import type { OrderRefusal } from '$lib/core/order/set-order';
import { ringUp, type RingUpRefusal } from '$lib/core/sale/ring-up';
import type { SaleDocument } from '$lib/core/sale/sale-document';
import type { SaleSurroundings } from '$lib/core/sale/sale-drafts';
import { saleNumber } from '$lib/core/sale/sale-number';
import { takePart, type PartDone, type PartRefusal, type TakePart } from '$lib/core/sale/take-part';
import type { HeldFacts } from '$lib/core/held/spend';
import { CASH_WAY } from '$lib/core/payment/ways';
import type { OpenSlip, PaidPart } from '$lib/core/slip/open-slip';
import { newId } from '$lib/device/new-id';
import {
  giveBack as giveBackOn,
  pay,
  type Paid,
  type BackChanged,
  type SlipJoined,
  type SlipOver,
} from '$lib/device/slip-acts';
import { openDrawerFor, printIfEach } from '../print-receipt';
import type { Stall } from '../stall.svelte';
import { deskOf } from './keep-slip';

type Refusal =
  | PartRefusal
  | RingUpRefusal
  | ExchangeRefusal
  | OrderRefusal
  | BackChanged
  | SlipOver
  | SlipJoined
  | { readonly code: 'event/not-trading' }
  | { readonly code: 'pay/no-cash-here' }
  | { readonly code: 'right/lacking' };

export type TakenAtCounter =
  | {
      readonly ok: true;
      /** Null for a slip that came to nothing. */
      readonly part: PaidPart | null;
      readonly left: number;
      /** The sale's number, once the last part has been taken. */
      readonly number: string | null;
      readonly sale: string | null;
      readonly total: number;
      /** What the sale brought its customer; null for nothing, and until it is rung up. */
      readonly earned?: Earned | null | undefined;
    }
  | NotTaken;

interface NotTaken {
  readonly ok: false;
  readonly refusal: Refusal;
}

export type AskedPart = Pick<
  TakePart,
  | 'way'
  | 'amount'
  | 'upTo'
  | 'tip'
  | 'reference'
  | 'share'
  | 'card'
  | 'payer'
  | 'asked'
  | 'mayOweMore'
> & {
  /** The payment's id, where it was told to others before. */
  readonly id?: string;
  /** The colleague who lent the right to this. */
  readonly lentBy?: string;
};

/**
 * Takes a part. When it returns `ok`, it is on disk; with nothing left, the sale is too. A second
 * call for a slip that the first one rings up answers that it has ended.
 */
export async function takePartOf(stall: Stall, asked: AskedPart): Promise<TakenAtCounter> {
  let done: PartDone | null = null;
  return await writing(
    stall,
    (slip, surroundings, drawer, _sold, held) => {
      const outcome = takePart({
        ...{ ...asked, ...surroundings, slip, drawer, held },
        business: stall.identity.business,
        isOutOfTouch: stall.isOutOfTouch,
      });
      if (outcome.ok) done = outcome;
      return outcome;
    },
    asked.lentBy,
    { method: asked.way.method, reference: asked.reference ?? '' },
  ).then((written) => {
    if (!written.ok || done === null) return written.ok ? GONE : written;
    const { part, left, total } = done;
    if (asked.way.opensDrawer) openDrawerFor(stall, asked.way.name);
    const { number, sale } = written;
    return { ok: true, part, left, total, number, sale, earned: earnedIn(done.drafts) };
  });
}

const earnedIn = (drafts: readonly Draft[]): Earned | null => {
  const rung = drafts.find(({ kind }) => kind === 'sale.rung');
  return (rung?.body as BodyOf<'sale.rung'> | undefined)?.earned ?? null;
};

/** Rings up a slip that comes to nothing: there is no part to take. */
export async function ringUpNothing(stall: Stall): Promise<TakenAtCounter> {
  const written = await writing(stall, (slip, surroundings, drawer) => {
    const rung = ringUp({ ...surroundings, slip, drawer: drawer ?? '', handed: 0 });
    return rung.ok ? { ...rung, slip: null } : rung;
  });
  if (!written.ok) return written;
  return { ok: true, part: null, left: 0, total: 0, number: written.number, sale: written.sale };
}

/** Rings up a slip that what comes back pays for altogether; `over` is to be given back. */
export async function ringUpExchanged(
  stall: Stall,
  rest: RestBy | null,
): Promise<(Extract<TakenAtCounter, { ok: true }> & { readonly over: number }) | NotTaken> {
  let [over, total] = [0, 0];
  const written = await writing(stall, (slip, surroundings, _drawer, sold) => {
    const rung = ringUpExchange({ ...surroundings, slip, rest, sold });
    if (rung.ok) ({ over, total } = rung);
    return rung;
  });
  if (!written.ok) return written;
  const { number, sale } = written;
  if (rest?.drawer != null && over > 0) openDrawerFor(stall, CASH_WAY.name);
  return { ok: true, part: null, left: 0, total, number, sale, over };
}

/** Takes cash for all that is left and rings it up, where the event takes any. */
export async function takeCash(stall: Stall, handed: number | null): Promise<TakenAtCounter> {
  const isNothing = (stall.slip.quote?.cash.total ?? 0) === 0 && !stall.slip.isEmpty;
  if (isNothing) return await ringUpNothing(stall);
  if (!stall.ways.some(({ id }) => id === CASH_WAY.id))
    return { ok: false, refusal: { code: 'pay/no-cash-here' } };
  return await takePartOf(stall, { way: cashWay(stall), amount: handed });
}

/** Cash as the vendor set it up, also where the event leaves it out. */
export const cashWay = (stall: Stall): TakePart['way'] =>
  stall.wayRows.find(({ id, setStamp }) => id === CASH_WAY.id && setStamp !== '') ?? CASH_WAY;

/** Gives parts back that were taken; the slip goes on without them. */
export const giveBack = async (
  stall: Stall,
  parts: readonly string[],
  reason: string,
): Promise<SlipOver | null> => await giveBackOn(deskOf(stall), parts, reason);

const GONE = { ok: false, refusal: { code: 'slip/gone' } } as const;

type Written =
  | { readonly ok: true; readonly number: string | null; readonly sale: string | null }
  | { readonly ok: false; readonly refusal: Refusal };

/** Runs a command on the open slip and leaves the slip as the command said, in one append. */
async function writing(
  stall: Stall,
  command: (
    slip: OpenSlip,
    surroundings: SaleSurroundings & { readonly newId: () => string },
    drawer: string | null,
    sold: readonly SaleDocument[],
    held: HeldFacts | null,
  ) =>
    | Paid
    | { readonly ok: false; readonly refusal: PartRefusal | RingUpRefusal | ExchangeRefusal },
  lender?: string,
  from?: Parameters<typeof pay>[3],
): Promise<Written> {
  const { event, business: pricing, taxes, identity } = stall;
  if (event === undefined || stageOf(event) !== 'trading')
    return { ok: false, refusal: { code: 'event/not-trading' } };
  if (stall.slipLacks.length > 0) return { ok: false, refusal: { code: 'right/lacking' } };
  const { number: deviceNumber } = identity;
  const written = await pay(
    deskOf(stall),
    (open, { saleNumber: number, returnNumber }, sold, held, points) => {
      const here = {
        ...{ newId, pricing, taxes, event, deviceNumber, number, returnNumber, points },
        now: Date.now(),
      };
      return command(open, here, stall.drawer?.id ?? null, sold, held);
    },
    lender,
    from,
  );
  if (!written.ok) return written;
  const { sale } = written;
  if (sale !== null) printIfEach(stall, sale);
  return {
    ok: true,
    sale,
    number: sale === null ? null : saleNumber(deviceNumber, written.saleNumber),
  };
}
