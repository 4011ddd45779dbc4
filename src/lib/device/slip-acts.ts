/**
 * What can be done with the open slip beyond changing it: parts of its payment, setting it aside, taking one up.
 * Each is decided on the slip as it was shown, and is on disk, with the slip as it is left, before it returns `ok`.
 */
import type { Row } from '../core/books/tables';
import { standingVoids } from '../core/loose-end/voided-twice';
import { givePartsBack } from '../core/sale/give-parts-back';
import { isStillLeft } from '../core/sale/exchange';
import type { ExchangeRefusal } from '../core/sale/ring-up-exchange';
import type { RingUpRefusal } from '../core/sale/ring-up';
import type { PartDone, PartRefusal } from '../core/sale/take-part';
import {
  keepSlip,
  moveLine,
  openFrom,
  keptSlips,
  takeUp,
  throwAway,
  type KeepOutcome,
  type KeepRefusal,
} from '../core/set-aside/kept-slips';
import { joinLines, type Joined } from '../core/set-aside/join-lines';
import type { SaleDocument } from '../core/sale/sale-document';
import {
  isBlank,
  lenderOf,
  removeLine,
  type OpenSlip,
  type SlipBack,
} from '../core/slip/open-slip';
import { isHeldMethod } from '../core/held/held-account';
import { isStillToHand } from '../core/order/agreed';
import type { OrderNow } from '../core/order/order-state';
import type { OrderRefusal } from '../core/order/set-order';
import type { PointsFacts } from '../core/points/points-facts';
import type { HeldFacts, Spender } from '../core/held/spend';
import type { DeviceDatabase } from './database';
import { heldFacts } from './held-accounts';
import type { AppendOptions, DeviceDaybook, Next, SlipGone } from './daybook';
import { customerOf } from './customer-records';
import { newId, newRevision } from './new-id';
import { oneOrder } from './orders';
import { givesPoints, pointsFacts } from './points';
import { ownSale, soldIn } from './sale-document';
import type { Acted, ActOutcome, NotActed, SavedSlip } from './slip-queue';

/** Where it is done: the device's daybook, the line of everything that happens to its slip, and the event. */
export interface SlipDesk {
  readonly daybook: DeviceDaybook;
  readonly slip: {
    readonly current: OpenSlip;
    act<T>(run: (open: SavedSlip) => Promise<Acted<T>>): Promise<ActOutcome<T>>;
  };
  readonly event: string | null;
}

/** Another window was faster, or this one has ended the slip already. */
export type SlipOver = SlipGone | { readonly code: 'slip/ended' };

export type Kept =
  | { readonly ok: true; readonly name: string }
  | { readonly ok: false; readonly refusal: KeepRefusal | SlipOver };

export type Paid = Pick<PartDone, 'ok' | 'drafts'> & { readonly slip: OpenSlip | null };

export type PaidOutcome =
  | { readonly ok: true; readonly sale: string | null; readonly saleNumber: number }
  | {
      readonly ok: false;
      readonly refusal:
        | PartRefusal
        | RingUpRefusal
        | ExchangeRefusal
        | OrderRefusal
        | SlipOver
        | SlipJoined
        | BackChanged;
    };

/** Others had put something on it: it is there now, and nothing was paid. */
export interface SlipJoined {
  readonly code: 'slip/joined';
  readonly names: readonly string[];
}

/** Of what was to come back on it something has come back meanwhile, or its sale was voided. */
export interface BackChanged {
  readonly code: 'exchange/changed';
  readonly number: string;
}

type PayCommand = (
  slip: OpenSlip,
  next: Next,
  /** The sales that goods on it come back of, as far as this device knows them. */
  sold: readonly SaleDocument[],
  /** What is known of the account that it is paid from. */
  facts: HeldFacts | null,
  /** What is known of points and rewards, where they are given or pay. */
  points: PointsFacts | null,
) => Paid | { readonly ok: false; readonly refusal: PartRefusal | RingUpRefusal | ExchangeRefusal };

/** Takes a part of the payment, or rings it up, as `command` works it out; `sale` is there once it is rung up. */
export async function pay(
  { daybook, slip }: SlipDesk,
  command: PayCommand,
  lender?: string,
  /** The way, where it is paid from an account that somebody holds, and a voucher's number. */
  from: Pick<Spender, 'reference'> & { readonly method: string } = { method: '', reference: '' },
): Promise<PaidOutcome> {
  const outcome = await slip.act<PaidOutcome>(async ({ slip: open, revision }) => {
    const others = await putOnByOthers(daybook, open);
    // What others put on it is seen before anything is paid; once a part has been, it stays as it is.
    if (others !== null && (open.paid ?? []).length === 0)
      return await takeUpOthers(daybook, others, { slip: open, revision });
    const lentBy = lender ?? lenderOf(open);
    let left: OpenSlip | null = null;
    let saleNumber = 0;
    const write = ({ sold, facts, points }: Known, next: Next): ReturnType<PayCommand> => {
      saleNumber = next.saleNumber;
      const made = command(open, next, sold, facts, points);
      left = made.ok ? made.slip : null;
      return made;
    };
    const options = {
      ...whole({ slip: open, revision }),
      leaves: () => left,
      ...(lentBy === undefined ? {} : { lentBy }),
    };
    const { back = [], customer, handsOver: order } = open;
    const isHeld = isHeldMethod(from.method);
    const brings = customer !== undefined && (isHeld || (await givesPoints(daybook.db)));
    // What comes back, and what is left on an account or of an order, is decided by the rows as they are when it is written.
    const written =
      back.length === 0 && !isHeld && !brings && order === undefined
        ? await daybook.append((next) => write(NOTHING_KNOWN, next), options)
        : await daybook.decide(
            async () => ({
              sold: await salesOf(daybook.db, back),
              facts: isHeld
                ? await heldFacts(daybook.db, from.method, {
                    ...from,
                    ...{ customer: customer?.id ?? null, order },
                  })
                : null,
              points: brings
                ? await pointsFacts(
                    daybook.db,
                    customer.id,
                    open.lines.map(({ item }) => item),
                  )
                : null,
              order: order === undefined ? undefined : await oneOrder(daybook.db, order.id, ''),
            }),
            (known, next) =>
              backChanged(back, known.sold) ??
              orderChanged(open, known.order) ??
              write(known, next),
            options,
          );
    if (!written.ok) return { result: written };
    const sale = written.drafts.find(({ kind }) => kind === 'sale.rung')?.id ?? null;
    return { result: { ok: true, sale, saleNumber }, left: written.slip };
  });
  return outcome.acted ? outcome.result : { ok: false, refusal: over(outcome.why) };
}

interface Known {
  readonly sold: readonly SaleDocument[];
  readonly facts: HeldFacts | null;
  readonly points: PointsFacts | null;
  /** The order that is handed over. */
  readonly order: OrderNow | undefined;
}
const NOTHING_KNOWN: Known = { sold: [], facts: null, points: null, order: undefined };

/** What another window, or another slip, has handed over is not handed over again. */
function orderChanged(
  { lines }: OpenSlip,
  now: OrderNow | undefined,
): { readonly ok: false; readonly refusal: OrderRefusal } | null {
  if (now === undefined || isStillToHand(lines, now.order, now.handed)) return null;
  return { ok: false, refusal: { code: 'order/changed', number: now.order.number } };
}

async function salesOf(
  db: DeviceDatabase,
  back: readonly SlipBack[],
): Promise<readonly SaleDocument[]> {
  const found = await Promise.all(back.map(({ sale }) => ownSale(db, sale)));
  return found.flatMap((sale) => sale ?? []);
}

/** What is not known here is looked at by the server. */
function backChanged(
  back: readonly SlipBack[],
  sold: readonly SaleDocument[],
): { readonly ok: false; readonly refusal: BackChanged } | null {
  const changed = back.find((each) => {
    const found = sold.find(({ sale }) => sale.id === each.sale);
    if (found === undefined) return false;
    const isVoid = standingVoids(found.voids, found.undone).length > 0;
    return isVoid || !isStillLeft(soldIn(found), each);
  });
  return changed === undefined
    ? null
    : { ok: false, refusal: { code: 'exchange/changed', number: changed.saleNumber } };
}

/** Gives parts back that were taken; the slip goes on without them. */
export async function giveBack(
  { daybook, slip, event }: SlipDesk,
  parts: readonly string[],
  reason: string,
): Promise<SlipOver | null> {
  const outcome = await slip.act<SlipOver | null>(async ({ slip: open, revision }) => {
    await daybook.settle();
    const rows = await daybook.db.books.payments.bulkGet([...parts]);
    const takenBy = new Map(rows.flatMap((row) => (row === undefined ? [] : [[row.id, row.by]])));
    // Worked out once: ids of its entries are the same if the append has to try again.
    const given = givePartsBack({ newId, slip: open, event, parts, reason, takenBy });
    const written = await daybook.append(() => given, {
      settles: open.id,
      revision,
      leaves: () => given.slip,
    });
    return written.ok ? { result: null, left: given.slip } : { result: written.refusal };
  });
  return outcome.acted ? outcome.result : over(outcome.why);
}

/**
 * Sets the open slip aside, or puts it back if it was before; the counter is free when it returns
 * `ok`. Without a name it keeps the one it had.
 */
export async function setAside(
  desk: SlipDesk,
  name?: string,
  sort: 'aside' | 'tab' = desk.slip.current.kept?.sort ?? 'aside',
): Promise<Kept> {
  const { slip, daybook } = desk;
  const outcome = await slip.act<Kept>(async (open) => {
    const written = await daybook.append(await settingAside(desk, open, sort, name), whole(open));
    if (!written.ok) return { result: written };
    const called = name ?? open.slip.kept?.name ?? '';
    const said = called === '' ? (open.slip.customer?.name ?? '') : called;
    return { result: { ok: true, name: said }, left: null };
  });
  return outcome.acted ? outcome.result : notKept(outcome.why);
}

/** What setting it aside writes, as the list is now. */
async function settingAside(
  { daybook, event }: SlipDesk,
  { slip }: SavedSlip,
  sort: 'aside' | 'tab',
  // Not the customer’s name: they are named by id, so that they can be forgotten.
  name = slip.kept?.name ?? '',
): Promise<() => KeepOutcome> {
  const known = await linesOf(daybook, slip.id);
  const isEmptied =
    joinLines(slip, known).slip.lines.length === 0 && sort === 'aside' && slip.kept !== undefined;
  return () =>
    isEmptied ? throwAway(newId, event, slip) : keepSlip({ newId, event, slip, sort, name, known });
}

/**
 * Goes on with a kept slip, as it is by now; one that is open here is set aside in the same step, so that
 * what is tapped meanwhile is on the one that is taken up.
 */
export async function takeUpSlip(desk: SlipDesk, id: string): Promise<Kept> {
  const { slip, daybook, event } = desk;
  const outcome = await slip.act<Kept>(async (open) => {
    if (open.slip.id === id) return { result: { ok: true, name: open.slip.kept?.name ?? '' } };
    await daybook.settle();
    const kept = await keptSlipOf(daybook, id);
    if (kept === null) return { result: notKept('ended') };
    const putAside = isBlank(open.slip)
      ? null
      : await settingAside(desk, open, open.slip.kept?.sort ?? 'aside');
    // None that the slip had before: a window that knows it from then must not take it for the same.
    const opens = { ...kept.slip, revision: newRevision() };
    const written = await daybook.append(
      () => {
        const aside = putAside?.() ?? { ok: true, drafts: [] };
        if (!aside.ok) return aside;
        return { ok: true, drafts: [...aside.drafts, ...takeUp(newId, event, id).drafts] };
      },
      { ...(putAside === null ? {} : whole(open)), opens },
    );
    return written.ok
      ? { result: { ok: true, name: kept.name }, left: kept.slip, leftAt: opens.revision }
      : { result: written };
  });
  return outcome.acted ? outcome.result : notKept(outcome.why);
}

/** A slip of the list as it is now, as it would go on here; null if it has gone from the list. */
async function keptSlipOf(
  daybook: DeviceDaybook,
  id: string,
): Promise<{ readonly name: string; readonly slip: OpenSlip } | null> {
  const { books } = daybook.db;
  const row = await books.slips.get(id);
  const [kept] = keptSlips(row === undefined ? [] : [row], await linesOf(daybook, id));
  if (kept === undefined) return null;
  const { customer: who, name } = kept.row;
  const known = who === null ? undefined : await customerOf(daybook.db, who);
  // An order that is handed over, and what was paid already, are that record's; what is known is the person's.
  const customer =
    known === undefined || who === null
      ? undefined
      : { id: who, name: known.name, discount: known.discount };
  return { name, slip: openFrom(kept, customer) };
}

const linesOf = async ({ db }: DeviceDaybook, slip: string): Promise<Row<'slipLines'>[]> =>
  await db.books.slipLines.where('slip').equals(slip).toArray();

/** Moves a line of the open slip to another that is kept: off here and on there in one. */
export async function moveLineTo(
  { daybook, slip, event }: SlipDesk,
  line: string,
  to: string,
): Promise<Kept> {
  const outcome = await slip.act<Kept>(async ({ slip: open, revision }) => {
    const off = removeLine(open, line);
    const moved = open.lines.find(({ key }) => key === line);
    // Moved by the touch before.
    if (!off.ok || moved === undefined) return { result: notKept('ended') };
    if ((open.paid ?? []).length > 0)
      return { result: { ok: false, refusal: { code: 'aside/part-paid' } } };
    const written = await daybook.append(() => moveLine(newId, event, moved, to), {
      settles: open.id,
      revision,
      leaves: () => off.slip,
    });
    return written.ok ? { result: { ok: true, name: '' }, left: off.slip } : { result: written };
  });
  return outcome.acted ? outcome.result : notKept(outcome.why);
}

/** The slip must be as it was; one with nothing on it was never saved, so there is nothing that could be gone. */
const whole = ({ slip, revision }: SavedSlip): Pick<AppendOptions, 'settles' | 'revision'> =>
  revision === 0 ? {} : { settles: slip.id, revision };

/** What others have done to a kept slip since it was taken up here; null if nothing. */
async function putOnByOthers(daybook: DeviceDaybook, open: OpenSlip): Promise<Joined | null> {
  if (open.kept === undefined) return null;
  const joined = joinLines(open, await linesOf(daybook, open.id));
  return joined.names.length === 0 ? null : joined;
}

/** It is on the slip now, for all to see, and nothing was paid. */
async function takeUpOthers(
  { db }: DeviceDaybook,
  { slip, names }: Joined,
  { slip: { id }, revision }: SavedSlip,
): Promise<Acted<PaidOutcome>> {
  await db.transaction('rw', db.meta, async () => {
    const row = await db.read('slip');
    if (row?.id === id && row.revision === revision)
      await db.write('slip', { ...slip, revision: revision + 1 });
  });
  return { result: { ok: false, refusal: { code: 'slip/joined', names } } };
}

const over = (why: NotActed): SlipOver => ({ code: why === 'ended' ? 'slip/ended' : 'slip/gone' });

const notKept = (why: NotActed): Extract<Kept, { ok: false }> => ({
  ok: false,
  refusal: over(why),
});
