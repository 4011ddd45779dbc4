/** Parts of the open slip's payment: each is on disk before the screen says so. */
import { stageOf } from '$lib/core/event/todays-event';
import { givePartsBack } from '$lib/core/sale/give-parts-back';
import { ringUp, type RingUpRefusal } from '$lib/core/sale/ring-up';
import type { SaleSurroundings } from '$lib/core/sale/sale-drafts';
import { saleNumber } from '$lib/core/sale/sale-number';
import { takePart, type PartDone, type PartRefusal, type TakePart } from '$lib/core/sale/take-part';
import { CASH_WAY } from '$lib/core/payment/ways';
import { lenderOf, type OpenSlip, type PaidPart } from '$lib/core/slip/open-slip';
import type { SlipGone } from '$lib/device/daybook';
import { newId } from '$lib/device/new-id';
import { openDrawerFor, printIfEach } from '../print-receipt';
import type { Stall } from '../stall.svelte';

type Refusal =
  | PartRefusal
  | RingUpRefusal
  | SlipGone
  | { readonly code: 'event/not-trading' }
  | { readonly code: 'pay/no-cash-here' }
  | { readonly code: 'right/lacking' };

export type PartTaken =
  | {
      readonly ok: true;
      /** Null for a slip that came to nothing. */
      readonly part: PaidPart | null;
      readonly left: number;
      /** The sale's number, once the last part has been taken. */
      readonly number: string | null;
      readonly sale: string | null;
      readonly total: number;
    }
  | { readonly ok: false; readonly refusal: Refusal };

export type AskedPart = Pick<
  TakePart,
  'way' | 'amount' | 'upTo' | 'tip' | 'reference' | 'share' | 'card' | 'payer'
> & {
  /** The payment's id, where it was told to others before. */
  readonly id?: string;
  /** The colleague who lent the right to this. */
  readonly lentBy?: string;
};

let isTaking = false;

/**
 * Takes a part. When it returns `ok`, it is on disk; with nothing left, the sale is too. A second
 * call while one is under way answers that the slip is gone.
 */
export async function takePartOf(stall: Stall, asked: AskedPart): Promise<PartTaken> {
  let done: PartDone | null = null;
  return await writing(
    stall,
    (slip, surroundings, drawer) => {
      const outcome = takePart({ ...asked, ...surroundings, slip, drawer });
      if (outcome.ok) done = outcome;
      return outcome;
    },
    asked.lentBy,
  ).then((written) => {
    if (!written.ok || done === null) return written.ok ? GONE : written;
    const { part, left, total } = done;
    if (asked.way.opensDrawer) openDrawerFor(stall, asked.way.name);
    return { ok: true, part, left, total, number: written.number, sale: written.sale };
  });
}

/** Rings up a slip that comes to nothing: there is no part to take. */
export async function ringUpNothing(stall: Stall): Promise<PartTaken> {
  const written = await writing(stall, (slip, surroundings, drawer) => {
    const rung = ringUp({ ...surroundings, slip, drawer: drawer ?? '', handed: 0 });
    return rung.ok ? { ...rung, slip: null } : rung;
  });
  if (!written.ok) return written;
  return { ok: true, part: null, left: 0, total: 0, number: written.number, sale: written.sale };
}

/** Takes cash for all that is left and rings it up, where the event takes any. */
export async function takeCash(stall: Stall, handed: number | null): Promise<PartTaken> {
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
export async function giveBack(
  stall: Stall,
  parts: readonly string[],
  reason: string,
): Promise<SlipGone | null> {
  const { slip } = stall;
  await slip.saved();
  const [open, revision] = [slip.current, slip.revision];
  const event = stall.event?.id ?? null;
  // Worked out once: ids of its entries are the same if the append has to try again.
  const given = givePartsBack({ newId, slip: open, event, parts, reason });
  const written = await stall.daybook.append(() => given, {
    settles: open.id,
    revision,
    leaves: () => given.slip,
  });
  if (!written.ok) return written.refusal;
  slip.leftAs(given.slip, revision + 1);
  return null;
}

const GONE = { ok: false, refusal: { code: 'slip/gone' } } as const;

type Made =
  | (Pick<PartDone, 'ok' | 'drafts'> & { readonly slip: OpenSlip | null })
  | { readonly ok: false; readonly refusal: PartRefusal | RingUpRefusal };

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
  ) => Made,
  lender?: string,
): Promise<Written> {
  const { event, slip, business: pricing, taxes, identity } = stall;
  if (event === undefined || stageOf(event) !== 'trading')
    return { ok: false, refusal: { code: 'event/not-trading' } };
  if (stall.slipLacks.length > 0) return { ok: false, refusal: { code: 'right/lacking' } };
  if (isTaking) return GONE;
  isTaking = true;
  try {
    await slip.saved();
    const [open, revision] = [slip.current, slip.revision];
    const lentBy = lender ?? lenderOf(open);
    let made: Made | null = null;
    let number = 0;
    const written = await stall.daybook.append(
      ({ saleNumber: next }) => {
        number = next;
        const deviceNumber = identity.number;
        const here = { newId, pricing, taxes, event, deviceNumber, number: next, now: Date.now() };
        made = command(open, here, stall.drawer?.id ?? null);
        return made;
      },
      {
        settles: open.id,
        revision,
        leaves: () => (made?.ok === true ? made.slip : null),
        ...(lentBy === undefined ? {} : { lentBy }),
      },
    );
    if (!written.ok) return written;
    const sale = written.drafts.find(({ kind }) => kind === 'sale.rung')?.id ?? null;
    if (sale !== null) printIfEach(stall, sale);
    if (written.slip === null) slip.startAfresh();
    else slip.leftAs(written.slip, revision + 1);
    return { ok: true, sale, number: sale === null ? null : saleNumber(identity.number, number) };
  } finally {
    isTaking = false;
  }
}
