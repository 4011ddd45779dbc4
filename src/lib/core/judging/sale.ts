/** A sale: its number and day, its lines against the goods they are of, its taxes, what paid it. */
import type { EntryOf } from '../daybook/kinds';
import { localTime } from '../event/local-time';
import { sum } from '../money/units';
import type { Evidence } from './evidence';
import { exchangedBy, exchangedFor } from './exchanged';
import { loweredByVouchers } from './held';
import { pointsDoubt } from './points';
import { linesDoubt } from './sale-lines';
import { taxDoubt } from './sale-tax';
import type { Doubt } from './verdict';

type Sale = EntryOf<'sale.rung'>;

export function judgeSale(entry: Sale, evidence: Evidence): Doubt | null {
  return (
    numberDoubt(entry, evidence) ??
    dayDoubt(entry, evidence) ??
    linesDoubt(entry, evidence) ??
    taxDoubt(entry, evidence) ??
    paymentsDoubt(entry, evidence) ??
    exchangeDoubt(entry, evidence) ??
    pointsDoubt(entry, evidence) ??
    loweredByVouchers(entry.body, evidence)
  );
}

function numberDoubt({ body }: Sale, { device }: Evidence): Doubt | null {
  if (body.deviceNumber !== device.number)
    return { code: 'device/number', found: body.deviceNumber, wanted: device.number };
  const wanted = device.lastSale + 1;
  return body.number === wanted ? null : { code: 'sale/number', found: body.number, wanted };
}

const DAY = 86_400_000;

/** Where goods changed hands is an event that there is; when, the clock on its wall at the entry's time. */
export function dayDoubt(
  { event, at, stamp, body }: Sale | EntryOf<'return.made' | 'refund.made'>,
  { history }: Evidence,
): Doubt | null {
  if (event === null || body.place !== event || !history.knows('event.set', event))
    return { code: 'sale/event', found: event ?? 'none' };
  const when = Date.parse(at);
  const isThen = history.inForce('event.set', event, stamp).some(({ days, timeZone }) => {
    const local = localTime(when, timeZone);
    // An event can go on past midnight, and be set up the day before.
    const near = [when - DAY, when, when + DAY].map((each) => localTime(each, timeZone).day);
    const isOn = days.some(({ date }) => near.includes(date));
    return local.day === body.day && local.hour === body.hour && isOn;
  });
  return isThen ? null : { code: 'sale/day', found: `${body.day} ${String(body.hour)}:00` };
}

/** What goods that came back pay of it did come back. */
function exchangeDoubt({ body }: Sale, { books }: Evidence): Doubt | null {
  const paid = exchangedFor(body.slip, books);
  const back = exchangedBy(body.slip, books.rows('returns'));
  return paid === back ? null : { code: 'sale/exchange', found: paid, wanted: back };
}

/** Parts of the same slip that were taken, not given back, and clear all of it; what cards paid above it. */
function paymentsDoubt({ body }: Sale, { books }: Evidence): Doubt | null {
  const parts = body.payments.map((id) => books.row('payments', id));
  const back = new Set(books.rows('reversals').map(({ payment }) => payment));
  const isEach = new Set(body.payments).size === parts.length;
  const isThere = parts.every(
    (part) => part !== undefined && part.slip === body.slip && !back.has(part.id),
  );
  const cleared = sum(parts.map((part) => part?.clears ?? 0));
  if (!isEach || !isThere || cleared !== body.total)
    return { code: 'sale/payments', found: cleared, wanted: body.total };
  const above = sum(parts.map((part) => (part?.side === 'card' ? part.charge - part.clears : 0)));
  const { total = 0, net = 0, tax = {} } = body.uplift ?? {};
  const taxed = sum(Object.values(tax));
  const isUplift = total === above && (net === total || net + taxed === total);
  return isUplift ? null : { code: 'sale/uplift', found: total, wanted: above };
}
