/** A part of a payment: by a way that there is, with sums that its rules allow. */
import type { EntryOf } from '../daybook/kinds';
import { sum } from '../money/units';
import { carriedBy, carryRefusal } from '../payment/carry';
import { surchargeOf } from '../payment/pay';
import { CASH_WAY, rulesOf, type WayToPay } from '../payment/ways';
import { EXCHANGE } from '../payment/methods';
import type { Evidence } from './evidence';
import { heldDoubt } from './held';
import { promotionDoubt } from './points';
import type { Doubt } from './verdict';

type Taken = EntryOf<'payment.taken'>;

export function judgePayment(entry: Taken, evidence: Evidence): Doubt | null {
  return (
    wayDoubt(entry, evidence) ??
    drawerDoubt(entry, evidence) ??
    roundingDoubt(entry, evidence) ??
    heldDoubt(entry, evidence) ??
    promotionDoubt(entry, evidence) ??
    cardDoubt(entry, evidence)
  );
}

/** Goods that came back are no way that anybody sets up. */
const AS_EXCHANGE: WayToPay = { ...CASH_WAY, id: EXCHANGE, givesChange: false, opensDrawer: false };

/** The way as the vendor set it up, now or lately; cash is there also where nobody did. */
function waysThen({ body, stamp }: Taken, { history }: Evidence): readonly WayToPay[] {
  const known = history
    .inForce('way.set', body.way, stamp)
    .map((way) => ({ ...way, id: body.way, setStamp: 'set' }));
  return body.way === CASH_WAY.id ? [...known, CASH_WAY] : known;
}

function wayDoubt(entry: Taken, evidence: Evidence): Doubt | null {
  const { body } = entry;
  const isExchange = body.way === EXCHANGE;
  if (isExchange !== (body.method === EXCHANGE) || (isExchange && body.drawer !== null))
    return { code: 'payment/way', found: body.wayName };
  const ways = isExchange
    ? [AS_EXCHANGE].filter(({ side }) => side === body.side)
    : waysThen(entry, evidence).filter(
        ({ method, side }) => method === body.method && side === body.side,
      );
  if (ways.length === 0) return { code: 'payment/way', found: body.wayName };
  if (body.change > 0 && !ways.some(({ givesChange }) => givesChange))
    return { code: 'payment/change', found: body.change };
  // On what is charged, or on what was due of what was handed over.
  const due = body.side === 'card' ? body.charge : body.charge - body.change;
  const isRight = ways.some((way) => surchargeOf(due, rulesOf(way)) === body.surcharge);
  if (!isRight) return { code: 'payment/surcharge', found: body.surcharge };
  const isShort = body.side === 'card' && body.charge < body.clears && !evidence.hasOwnPrices;
  return isShort ? { code: 'payment/charge', found: body.charge, wanted: body.clears } : null;
}

function drawerDoubt({ body }: Taken, { books }: Evidence): Doubt | null {
  const isThere = body.drawer === null || books.row('drawers', body.drawer) !== undefined;
  return isThere ? null : { code: 'payment/drawer' };
}

/** Half a step either way, of cash alone. */
function roundingDoubt({ stamp, body }: Taken, { history, business }: Evidence): Doubt | null {
  const steps = history.inForce('business.set', business, stamp).map(({ cashStep }) => cashStep);
  const most = body.method === 'cash' ? Math.max(0, ...steps) : 0;
  // What a step of 1 rounds is nothing.
  const isWithin = body.rounding === 0 || (most > 1 && Math.abs(body.rounding) * 2 <= most);
  return isWithin ? null : { code: 'payment/rounding', found: body.rounding };
}

function cardDoubt(entry: Taken, { books, history, business }: Evidence): Doubt | null {
  const { id, device, at, stamp, body } = entry;
  const { card } = body;
  if (card === null) return null;
  const amount = sum([body.charge, body.surcharge, body.tip]);
  const asked = books.row('cardPayments', id);
  if (asked === undefined || asked.askedStamp === '') return { code: 'card/not-asked' };
  if (asked.device !== device) return { code: 'card/not-asked' };
  if (asked.amount !== amount)
    return { code: 'card/other-amount', found: amount, wanted: asked.amount };
  if (card.state !== 'deferred' || card.isOverLimit) return null;
  const carried = carriedBy(
    books.rows('cardPayments').filter((each) => each.id !== id),
    device,
  );
  const limits = history.inForce('business.set', business, stamp).map(({ carry }) => carry);
  const isWithin = limits.some(
    (limit) => carryRefusal(limit, carried, amount, Date.parse(at)) === null,
  );
  return isWithin ? null : { code: 'card/carried', found: amount };
}
