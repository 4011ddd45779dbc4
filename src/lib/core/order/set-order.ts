/** Agreeing something with a customer, and what becomes of it: commands. Minor units and thousandths. */
import type { Row, TaxSwap } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, privateDraft, type BodyOf } from '../daybook/kinds';
import { isDate } from '../event/event-days';
import type { SlipTax } from '../pricing/slip';
import type { OpenSlip } from '../slip/open-slip';
import { isPaidIn } from '../slip/open-slip';
import { priceSlip, standingOf } from '../slip/price-slip';
import type { Pricing } from '../slip/pricing';
import { totalOf, type OrderLine } from './agreed';

export type OrderSort = BodyOf<'order.terms'>['sort'];

export type OrderRefusal =
  | { readonly code: 'order/nothing-on-it' }
  | { readonly code: 'order/no-customer' }
  /** Parts were paid, goods come back, something is paid in, or an order is handed over with it. */
  | { readonly code: 'order/not-plain'; readonly why: 'paid' | 'back' | 'paid-in' | 'order' }
  | { readonly code: 'order/day-wrong'; readonly typed: string }
  | { readonly code: 'order/day-over'; readonly until: string }
  | { readonly code: 'order/no-day' }
  | { readonly code: 'order/deposit-wrong'; readonly total: number }
  | { readonly code: 'order/no-reason' }
  | { readonly code: 'order/ended' }
  /** Something of it was handed over, or it was called off, since its lines were put on the slip. */
  | { readonly code: 'order/changed'; readonly number: string }
  | { readonly code: 'order/more-than-due'; readonly due: number }
  | { readonly code: 'order/fee-more'; readonly left: number }
  /** Nobody has set up that deposits pay for anything. */
  | { readonly code: 'order/no-way' };

export type OrderOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[]; readonly id: string }
  | { readonly ok: false; readonly refusal: OrderRefusal };

/** What is said of an order beside its goods. */
export interface OrderSaid extends Omit<BodyOf<'order.terms'>, 'order' | 'customer'> {
  readonly note: string;
  /** Random text of at least 16 characters, to keep the note apart by. */
  readonly salt: string;
}

export interface KeepOrder extends OrderSaid {
  readonly newId: () => string;
  readonly slip: OpenSlip;
  readonly pricing: Pricing;
  readonly taxes: readonly SlipTax[];
  readonly swaps: readonly TaxSwap[];
  readonly number: string;
  readonly stage: 'waiting' | 'ready';
  /** The local day, ISO 8601. */
  readonly today: string;
  /** Where it is written. */
  readonly event: string | null;
}

/** The slip becomes an order: its goods at what they come to now, with every discount. */
export function keepOrder(command: KeepOrder): OrderOutcome {
  const { newId, slip, pricing, taxes, swaps, number, stage, today, event } = command;
  const why = notPlain(slip);
  if (why !== null) return refuse({ code: 'order/not-plain', why });
  if (slip.lines.length === 0) return refuse({ code: 'order/nothing-on-it' });
  if (slip.customer === undefined) return refuse({ code: 'order/no-customer' });
  const lines = agreedLines(slip, pricing, taxes, swaps, newId);
  const fault = faultOf(command, totalOf(lines), today);
  if (fault !== null) return refuse(fault);
  const standing = standingOf(slip);
  const id = newId();
  return {
    ok: true,
    id,
    drafts: [
      draft('order.set', newId(), event, {
        ...{ id, lines, number, source: '', customer: slip.customer.id },
        standingName: standing !== null && standing === slip.group ? standing.name : '',
      }),
      termsDraft(newId, event, { order: id, customer: slip.customer.id }, command),
      ...(command.sort === 'quote' ? [] : [stageDraft(newId, event, id, stage, '')]),
    ],
  };
}

/** Its goods at what they come to, each line with its share of every discount. */
export function agreedLines(
  slip: OpenSlip,
  pricing: Pricing,
  taxes: readonly SlipTax[],
  swaps: readonly TaxSwap[],
  lineId: (at: number) => string,
): OrderLine[] {
  const { lines: quoted } = priceSlip(slip, pricing, taxes, swaps).cash;
  return slip.lines.map((line, at) => {
    const { gross, net, standingDiscount: standing, total } = quoted[at]!;
    const { item, name, detail, unit, decimals, price, quantity, cost, isStocked } = line;
    const said = pick(line, SAID);
    return {
      ...{ id: lineId(at), item, name, detail, unit, decimals, price, quantity },
      ...{ taxes: [...line.taxes], cost, isStocked, ...said },
      ...{ gross, discount: gross - net, standing, total },
    };
  });
}

/** What a line has only where there is something to say. */
const SAID = [
  ...(['otherPrice', 'extras', 'listPrice', 'reason'] as const),
  ...(['note', 'seller', 'maker', 'tag'] as const),
] as const;

const pick = <K extends (typeof SAID)[number]>(
  line: OpenSlip['lines'][number],
  fields: readonly K[],
): Partial<Pick<OrderLine, K>> =>
  Object.fromEntries(
    fields.flatMap((field) => (line[field] === undefined ? [] : [[field, line[field]]])),
  ) as Partial<Pick<OrderLine, K>>;

function notPlain({ lines, paid = [], back = [], handsOver }: OpenSlip) {
  if (paid.length > 0) return 'paid' as const;
  if (back.length > 0) return 'back' as const;
  if (handsOver !== undefined) return 'order' as const;
  return lines.some(isPaidIn) ? ('paid-in' as const) : null;
}

/** A quote holds until a day; nothing is kept past its last one. */
function faultOf(
  { sort, until, deposit }: Pick<OrderSaid, 'sort' | 'until' | 'deposit'>,
  total: number,
  today: string,
): OrderRefusal | null {
  if (until === '' && sort === 'quote') return { code: 'order/no-day' };
  if (until !== '' && !isDate(until)) return { code: 'order/day-wrong', typed: until };
  if (until !== '' && until < today) return { code: 'order/day-over', until };
  return !Number.isSafeInteger(deposit) || deposit < 0 || deposit > total
    ? { code: 'order/deposit-wrong', total }
    : null;
}

export function termsDraft(
  newId: () => string,
  event: string | null,
  of: { readonly order: string; readonly customer: string },
  { sort, deposit, collectAt, place, until, note: said, salt }: OrderSaid,
): Draft {
  const isQuote = sort === 'quote';
  const terms = { deposit: isQuote ? 0 : deposit, place: isQuote ? null : place };
  const body = { ...of, sort, collectAt, until, ...terms };
  const note = said.trim().slice(0, 500);
  return note === ''
    ? draft('order.terms', newId(), event, body)
    : privateDraft('order.terms', newId(), body, salt, { note }, event);
}

export interface ChangeOrder extends OrderSaid {
  readonly newId: () => string;
  readonly order: Row<'orders'>;
  readonly today: string;
  readonly event: string | null;
}

/** Other terms than before; its goods and what they come to stay. */
export function changeOrder(command: ChangeOrder): OrderOutcome {
  const { newId, order, today, event } = command;
  const { id, lines } = order;
  // A day that is over can stand as it was.
  const isSameDay = command.until === order.until && command.until !== '';
  const fault = faultOf(command, totalOf(lines), isSameDay ? '' : today);
  if (fault !== null) return refuse(fault);
  const isFirst = order.sort === 'quote' && command.sort !== 'quote' && order.stageStamp === '';
  return {
    ok: true,
    id,
    drafts: [
      termsDraft(newId, event, { order: id, customer: order.customer }, command),
      ...(isFirst ? [stageDraft(newId, event, id, 'ready', '')] : []),
    ],
  };
}

export interface StageOrder {
  readonly newId: () => string;
  readonly order: string;
  readonly stage: 'waiting' | 'ready' | 'off';
  readonly reason: string;
  readonly event: string | null;
}

/** The goods are ready, or still awaited; or it is called off, and a reason is given. */
export function stageOrder({ newId, order, stage, reason, event }: StageOrder): OrderOutcome {
  const why = reason.trim().slice(0, 200);
  if (stage === 'off' && why === '') return refuse({ code: 'order/no-reason' });
  return { ok: true, id: order, drafts: [stageDraft(newId, event, order, stage, why)] };
}

const stageDraft = (
  newId: () => string,
  event: string | null,
  order: string,
  stage: 'waiting' | 'ready' | 'off',
  reason: string,
): Draft => draft('order.stage', newId(), event, { order, stage, reason });

/** The next number that a device gives an order: Q of a quote, K of goods that are kept or collected. */
export function nextOrderNumber(
  sort: OrderSort,
  deviceNumber: number,
  orders: readonly Pick<Row<'orders'>, 'number' | 'source'>[],
): string {
  const own = new RegExp(`^[QK]${String(deviceNumber)}-(\\d+)$`);
  const taken = orders.flatMap(({ number, source }) => {
    const found = source === '' ? own.exec(number) : null;
    return found === null ? [] : [Number(found[1])];
  });
  return `${sort === 'quote' ? 'Q' : 'K'}${String(deviceNumber)}-${String(Math.max(0, ...taken) + 1)}`;
}

const refuse = (refusal: OrderRefusal): OrderOutcome => ({ ok: false, refusal });
