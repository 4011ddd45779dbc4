/**
 * The slip at the counter while it is still open: what is on it, and each way it can change.
 * Every function gives a new slip and leaves the old one as it was, so that undo is the old one.
 */
import type { Row } from '../books/tables';
import type { Extra, KeptLine, Service } from '../books/tables';
import { bytesOf } from '../daybook/entry-size';
import type { BodyOf } from '../daybook/kinds';
import { headOfAccount, type HeldAccount } from '../held/held-account';
import type { KeptTax } from '../held/one-purpose';
import { offNext, type Ordered } from '../order/agreed';
import { LARGEST_AMOUNT } from '../money/amount-text';
import { thousandths } from '../money/units';
import type { Discount } from '../pricing/slip';
import type { FixedPricing } from './pricing';

/** A line keeps what the item was when it was tapped; a change of set-up does not reach it. */
export interface OpenLine {
  readonly key: string;
  readonly item: string | null;
  readonly name: string;
  readonly detail: string;
  readonly unit: string;
  readonly decimals: number;
  /** Minor units per unit of measure. */
  readonly price: number;
  /** Thousandths of the unit of measure, above zero. */
  readonly quantity: number;
  readonly taxes: readonly string[];
  readonly cost: number | null;
  readonly isStocked: boolean;
  /** The other side's own price, where the item has one. */
  readonly otherPrice?: number | undefined;
  /** What was added, each at its own price for one unit of measure. */
  readonly extras?: readonly Extra[] | undefined;
  /** The price before somebody changed it, the other side's own with it, and why they did. */
  readonly listPrice?: number | undefined;
  readonly listOther?: number | undefined;
  readonly reason?: string | undefined;
  readonly discount?: Discount | undefined;
  readonly note?: string | undefined;
  /** Who is paid for selling it, if not whoever rings it up. */
  readonly seller?: string | undefined;
  /** Whose goods they are, sold on commission, and what their hang tag says. */
  readonly maker?: string | undefined;
  readonly tag?: string | undefined;
  /** Who of a group it is for, on a tab. */
  readonly person?: string | undefined;
  /** It is no goods: what it comes to is paid in on this account; of a voucher until when it can be spent. */
  readonly account?: HeldAccount | undefined;
  readonly until?: string | undefined;
  /** Of a voucher for goods of one tax: that tax of what it is sold for. */
  readonly kept?: KeptTax | undefined;
  /** The sale whose debt it pays before older ones. */
  readonly pays?: string | undefined;
  readonly ordered?: Ordered | undefined;
}

/** Paid in on an account: nothing is sold, taxed or discounted by it. */
export const isPaidIn = ({ account }: Pick<OpenLine, 'account'>): boolean => account !== undefined;

export interface OpenSlip {
  /** Chosen when the first line is put on; payments name it. */
  readonly id: string;
  readonly lines: readonly OpenLine[];
  /** Key of the line that was touched last. */
  readonly touched: string | null;
  /** Who buys, as they were when they were put on it. */
  readonly customer?: SlipCustomer | undefined;
  readonly group?: { readonly name: string; readonly percent: string } | undefined;
  /** Off the whole. */
  readonly discount?: Discount | undefined;
  /** Null where the business's service charge was taken off; undefined charges what it usually is. */
  readonly service?: Service | null | undefined;
  readonly note?: string | undefined;
  /** It is kept for all devices to see: set aside, or a tab; what people call it. */
  readonly kept?: { readonly sort: 'aside' | 'tab'; readonly name: string } | undefined;
  /** Its lines as they were on the list when it was taken up; what differs later, others did. */
  readonly asTakenUp?: readonly TakenLine[] | undefined;
  /** The colleague who lent a right, and for what it was lent: favours as `favoursOn` names them. */
  readonly lent?: Lent | undefined;
  /** Cards are charged the cash price for this sale. */
  readonly isUpliftWaived?: true | undefined;
  /** Parts of the payment that are safe already; while there are any, what it comes to stays. */
  readonly paid?: readonly PaidPart[] | undefined;
  /** What comes back of earlier sales and pays for it, once it is rung up. */
  readonly back?: readonly SlipBack[] | undefined;
  /** The order that it hands over, whose deposit may pay for it. */
  readonly handsOver?:
    | { readonly id: string; readonly number: string; readonly customer: string }
    | undefined;
  /** What it was priced by when the first part was taken, or a card was asked for: it comes to that from then on. */
  readonly fixed?: FixedPricing | undefined;
  /** What the customer wants to give on top with the next part. Minor units. */
  readonly tip?: number | undefined;
  /** How it is shared out, once the people have said so. */
  readonly shares?: readonly Share[] | undefined;
}

/** What comes back of an earlier sale, worked out when it was put on the slip. Amounts are minor units. */
export interface SlipBack {
  readonly sale: string;
  readonly saleNumber: string;
  /** The sale's own slip. */
  readonly slip: string;
  readonly soldFrom: string;
  readonly reason: string;
  readonly lines: readonly (Pick<
    BodyOf<'return.made'>['lines'][number],
    'line' | 'quantity' | 'to'
  > & { readonly name: string; readonly unit: string })[];
  readonly takes: BodyOf<'return.made'>['takes']['postings'];
  readonly surcharges: BodyOf<'return.made'>['surcharges'];
  readonly promotions: BodyOf<'return.made'>['promotions'];
  /** What the customer is owed for it. */
  readonly comesTo: number;
}

/** A line of a kept slip as it was on the list. `stamp` is of its last change. */
export interface TakenLine {
  readonly id: string;
  readonly stamp: string;
  readonly person: string;
  readonly line: KeptLine | null;
}

export interface Lent {
  readonly by: string;
  readonly to: readonly string[];
}

/** What one of several people pays. Minor units, on the cash side. */
export interface Share {
  readonly name: string;
  readonly amount: number;
}

/** A part of its payment that has been taken: the body of the entry that says so, and its id. */
export type PaidPart = Omit<BodyOf<'payment.taken'>, 'slip'> & { readonly id: string };

export interface SlipCustomer {
  readonly id: string;
  readonly name: string;
  /** Their standing discount in percent. */
  readonly discount: string;
}

/** The most one line can hold, in thousandths. */
export const LARGEST_QUANTITY = 9_999_000;
export const MOST_LINES = 200;
/** Bytes of its lines as JSON: what is rung up must fit into one entry, with room for taxes and parts. */
export const MOST_BYTES = 50 * 1024;

/** Why the slip stays as it was. */
export type SlipRefusal =
  | { readonly code: 'slip/quantity-not-positive'; readonly quantity: number }
  | { readonly code: 'slip/quantity-too-large'; readonly quantity: number }
  | { readonly code: 'slip/too-many-decimals'; readonly decimals: number; readonly unit: string }
  | { readonly code: 'slip/no-such-line' }
  | { readonly code: 'slip/no-reason' }
  | { readonly code: 'slip/price-wrong'; readonly price: number }
  | { readonly code: 'slip/part-paid' | 'exchange/already' }
  | { readonly code: 'slip/full' }
  /** Something is on it that would be lost. */
  | { readonly code: 'slip/not-blank' }
  /** What is paid in is an amount and nothing else. */
  | { readonly code: 'slip/paid-in'; readonly name: string }
  /** What was agreed of an order stays; of its lines no more is handed over than is left. */
  | { readonly code: 'slip/ordered'; readonly name: string }
  | { readonly code: 'slip/ordered-most'; readonly name: string; readonly most: number }
  | { readonly code: 'slip/paid-in-twice'; readonly name: string }
  | { readonly code: 'slip/paid-in-wrong'; readonly amount: number };

export type SlipOutcome =
  | { readonly ok: true; readonly slip: OpenSlip }
  | { readonly ok: false; readonly refusal: SlipRefusal };

export const emptySlip = (id: string): OpenSlip => ({ id, lines: [], touched: null });

type Item = Pick<
  Row<'items'>,
  | 'id'
  | 'name'
  | 'detail'
  | 'unit'
  | 'decimals'
  | 'price'
  | 'otherPrice'
  | 'maker'
  | 'taxes'
  | 'cost'
  | 'isStocked'
>;

/** What can be said of an item as it is put on: extras, an open price, a note. */
export type PutWith = Partial<Pick<OpenLine, 'extras' | 'price' | 'note' | 'person'>>;

/**
 * Puts an item on the slip; the same item at the same price goes on the line it already has, unless
 * something was said of that line, or it was there when the slip was taken up: others may add to that one.
 * @param quantity Thousandths.
 */
export function putItem(
  slip: OpenSlip,
  item: Item,
  quantity: number,
  key: string,
  said: PutWith = {},
): SlipOutcome {
  const price = said.price ?? item.price;
  const otherPrice = said.price === undefined ? (item.otherPrice ?? undefined) : undefined;
  const extras = said.extras ?? [];
  const there = slip.lines.find(
    (line) =>
      line.item === item.id &&
      line.price === price &&
      isPlain(line) &&
      !isTaken(slip, line) &&
      // What was set up otherwise since, or changed on that line, is another line.
      line.otherPrice === otherPrice &&
      isSameList(line.taxes, item.taxes) &&
      said.note === undefined &&
      line.person === said.person &&
      isSame(line.extras ?? [], extras),
  );
  if (there !== undefined) return setQuantity(slip, there.key, there.quantity + quantity);
  return putLine(slip, {
    key,
    item: item.id,
    name: item.name,
    detail: item.detail,
    unit: item.unit,
    decimals: item.decimals,
    price,
    quantity,
    taxes: item.taxes,
    cost: item.cost,
    isStocked: item.isStocked,
    ...(otherPrice === undefined ? {} : { otherPrice }),
    ...(item.maker === null ? {} : { maker: item.maker }),
    ...(extras.length === 0 ? {} : { extras }),
    ...(said.note === undefined ? {} : { note: said.note }),
    ...(said.person === undefined ? {} : { person: said.person }),
  });
}

const isTaken = ({ asTakenUp = [] }: OpenSlip, { key }: OpenLine): boolean =>
  asTakenUp.some(({ id }) => id === key);

/** Whether nothing was said of the line that another of the same would not share. */
const isPlain = (line: OpenLine): boolean =>
  line.discount === undefined &&
  line.listPrice === undefined &&
  line.note === undefined &&
  line.seller === undefined &&
  line.ordered === undefined;

const isSameList = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((each, at) => b[at] === each);

const isSame = (a: readonly Extra[], b: readonly Extra[]): boolean =>
  a.length === b.length &&
  a.every(({ name, price }, at) => b[at]?.name === name && b[at].price === price);

/** Puts something that is not listed on the slip: an amount with a word. */
export function putUnlisted(
  slip: OpenSlip,
  line: { readonly name: string; readonly price: number; readonly taxes: readonly string[] } & Pick<
    OpenLine,
    'maker' | 'tag'
  >,
  key: string,
): SlipOutcome {
  return putLine(slip, {
    ...line,
    key,
    item: null,
    detail: line.tag === undefined ? '' : `tag ${line.tag}`,
    unit: '',
    decimals: 0,
    quantity: 1000,
    cost: null,
    isStocked: false,
  });
}

/** Puts an amount on the slip that is paid in on an account: a voucher, credit, what a customer owed. Minor units. */
export function putPaidIn(
  slip: OpenSlip,
  paid: {
    readonly account: HeldAccount;
    readonly name: string;
    readonly detail: string;
    readonly amount: number;
    readonly until?: string | undefined;
    readonly kept?: KeptTax | undefined;
    readonly pays?: string | undefined;
  },
  key: string,
): SlipOutcome {
  const { account, name, detail, amount, until = '', kept, pays } = paid;
  if (!Number.isSafeInteger(amount) || amount <= 0 || amount > LARGEST_AMOUNT)
    return { ok: false, refusal: { code: 'slip/paid-in-wrong', amount } };
  if (slip.lines.some((line) => line.account === account))
    return { ok: false, refusal: { code: 'slip/paid-in-twice', name } };
  return putLine(slip, {
    ...{ key, item: null, name, detail, unit: '', decimals: 0, price: amount, quantity: 1000 },
    ...{ taxes: [], cost: null, isStocked: false, account },
    ...(until === '' ? {} : { until }),
    ...(kept === undefined ? {} : { kept }),
    ...(pays === undefined ? {} : { pays }),
  });
}

/** @param quantity Thousandths; nothing or less is refused, removing is `removeLine`. */
export function setQuantity(slip: OpenSlip, key: string, quantity: number): SlipOutcome {
  const line = slip.lines.find((each) => each.key === key);
  if (line === undefined) return { ok: false, refusal: { code: 'slip/no-such-line' } };
  if (isPaidIn(line)) return { ok: false, refusal: { code: 'slip/paid-in', name: line.name } };
  const refusal = quantityRefusal(quantity, line);
  if (refusal !== null) return { ok: false, refusal };
  const { ordered, name } = line;
  if (ordered !== undefined && quantity > ordered.of - ordered.before)
    return {
      ok: false,
      refusal: { code: 'slip/ordered-most', name, most: ordered.of - ordered.before },
    };
  const now = ordered === undefined ? { ...line, quantity } : asAgreed(line, ordered, quantity);
  const lines = slip.lines.map((each) => (each.key === key ? now : each));
  return { ok: true, slip: { ...slip, lines, touched: key } };
}

/** So much of an ordered line, with its share of what was agreed to be off. */
function asAgreed(
  { discount: _off, ...line }: OpenLine,
  ordered: Ordered,
  quantity: number,
): OpenLine {
  const amount = offNext(ordered, quantity);
  return { ...line, quantity, ...(amount === 0 ? {} : { discount: { amount } }) };
}

/**
 * Another price for one line. What it was is kept with the reason; at what it was, it is as before.
 * @param price Minor units per unit of measure on the typed side.
 */
export function setPrice(slip: OpenSlip, key: string, price: number, reason: string): SlipOutcome {
  return changeLine(slip, key, (line) => {
    if (isPaidIn(line)) return { code: 'slip/paid-in', name: line.name };
    if (line.ordered !== undefined) return { code: 'slip/ordered', name: line.name };
    if (!Number.isSafeInteger(price) || price < 0) return { code: 'slip/price-wrong', price };
    const { listPrice = line.price, reason: _reason, otherPrice, listOther, ...rest } = line;
    const other = line.listPrice === undefined ? otherPrice : listOther;
    if (price === listPrice)
      return { ...rest, price, ...(other === undefined ? {} : { otherPrice: other }) };
    const why = reason.trim().slice(0, 200);
    if (why === '') return { code: 'slip/no-reason' };
    // The other side follows the new price by the uplift: its own price was for the old one, and comes back with it.
    const kept = other === undefined ? {} : { listOther: other };
    return { ...rest, price, listPrice, ...kept, reason: why };
  });
}

/** What can be said of a line without working anything out; undefined takes it back. */
export const sayOfLine = (
  slip: OpenSlip,
  key: string,
  said: Partial<Pick<OpenLine, 'discount' | 'note' | 'seller' | 'person' | 'taxes'>>,
): SlipOutcome =>
  changeLine(slip, key, (line) => {
    const isFixed = said.discount !== undefined || said.taxes !== undefined;
    if (isFixed && isPaidIn(line)) return { code: 'slip/paid-in', name: line.name };
    // Taken back with undefined, what is off would be gone as well.
    return 'discount' in said && line.ordered !== undefined
      ? { code: 'slip/ordered', name: line.name }
      : { ...line, ...said };
  });

/** What can be said of the whole slip; undefined takes it back. */
export const sayOfSlip = (
  slip: OpenSlip,
  said: Partial<
    Pick<
      OpenSlip,
      | 'customer'
      | 'group'
      | 'discount'
      | 'service'
      | 'note'
      | 'kept'
      | 'lent'
      | 'isUpliftWaived'
      | 'tip'
      | 'shares'
      | 'fixed'
    >
  >,
): OpenSlip => ({ ...slip, ...said });

function changeLine(
  slip: OpenSlip,
  key: string,
  change: (line: OpenLine) => OpenLine | SlipRefusal,
): SlipOutcome {
  const line = slip.lines.find((each) => each.key === key);
  if (line === undefined) return { ok: false, refusal: { code: 'slip/no-such-line' } };
  const next = change(line);
  if ('code' in next) return { ok: false, refusal: next };
  const lines = slip.lines.map((each) => (each.key === key ? next : each));
  if (isFull(lines)) return { ok: false, refusal: { code: 'slip/full' } };
  return { ok: true, slip: { ...slip, lines, touched: key } };
}

/** Few slips are so long that their size has to be looked at. */
const isFull = (lines: readonly OpenLine[]): boolean =>
  lines.length > MOST_LINES || (lines.length > 50 && bytesOf(lines) > MOST_BYTES);

/**
 * Without prices of another making and discounts that somebody gave: what is left asks for no right.
 * The customer's and the group's standing discounts stay.
 */
export function withoutFavours(slip: OpenSlip): OpenSlip {
  const lines = slip.lines.map((whole) => {
    if (whole.ordered !== undefined) return whole;
    const { discount: _off, listPrice, listOther, reason: _why, ...line } = whole;
    return listPrice === undefined
      ? line
      : {
          ...line,
          price: listPrice,
          ...(listOther === undefined ? {} : { otherPrice: listOther }),
        };
  });
  const { back: _back, ...bare } = slip;
  return { ...bare, lines, discount: undefined, lent: undefined, isUpliftWaived: undefined };
}

/** Everything on it that could ask for a right, each named by what it is and how much. */
export const favoursOn = ({
  discount,
  isUpliftWaived,
  lines,
  back = [],
}: OpenSlip): readonly string[] => [
  ...back.map(({ sale, comesTo }) => `back ${sale} ${String(comesTo)}`),
  ...(discount === undefined ? [] : [`whole ${JSON.stringify(discount)}`]),
  ...(isUpliftWaived === true ? ['uplift'] : []),
  // What was agreed of an order was allowed then.
  ...lines.flatMap(({ key, discount: off, listPrice, price, ordered }) => [
    ...(off === undefined || ordered !== undefined ? [] : [`${key} ${JSON.stringify(off)}`]),
    ...(listPrice === undefined || ordered !== undefined ? [] : [`${key} price ${String(price)}`]),
  ]),
];

export const hasFavours = (slip: OpenSlip): boolean => favoursOn(slip).length > 0;

/** Who lent a right that covers all that is on it now: one lent for one favour does not cover the next. */
export const lenderOf = (slip: OpenSlip): string | undefined =>
  slip.lent !== undefined && favoursOn(slip).every((favour) => slip.lent?.to.includes(favour))
    ? slip.lent.by
    : undefined;

export function removeLine(slip: OpenSlip, key: string): SlipOutcome {
  const lines = slip.lines.filter((line) => line.key !== key);
  if (lines.length === slip.lines.length)
    return { ok: false, refusal: { code: 'slip/no-such-line' } };
  const { handsOver, ...rest } = slip;
  const isOrder = lines.some(({ ordered }) => ordered !== undefined);
  const of = handsOver === undefined || !isOrder ? {} : { handsOver };
  return { ok: true, slip: { ...rest, ...of, lines, touched: null } };
}

/** The customer's own points, credit or account paid a part of it: whose slip it is stays then. */
export const isPaidAsTheirs = ({ paid = [] }: Pick<OpenSlip, 'paid'>): boolean =>
  paid.some(
    ({ promotion, held }) =>
      promotion !== undefined ||
      ['customer', 'credit'].includes(held === undefined ? '' : headOfAccount(held.account)),
  );

/** Nothing is on it, nothing was paid of it, and nobody else has it on a list. */
export const isBlank = ({ lines, paid = [], kept, back = [] }: OpenSlip): boolean =>
  lines.length === 0 && paid.length === 0 && back.length === 0 && kept === undefined;

/**
 * What was taken off comes back where it was; of a slip that was emptied, all that was said of it as well.
 * @param before The slip before it was taken off.
 */
export function putBackOn(slip: OpenSlip, before: OpenSlip): OpenSlip {
  const now = new Map(slip.lines.map((line) => [line.key, line]));
  const known = new Set(before.lines.map(({ key }) => key));
  const added = slip.lines.filter(({ key }) => !known.has(key));
  const lines = [...before.lines.map((line) => now.get(line.key) ?? line), ...added];
  const whole = slip.lines.length === 0 ? { ...before, id: slip.id } : slip;
  const { handsOver } = before;
  const said = handsOver === undefined ? whole : { ...whole, handsOver };
  return { ...said, lines, touched: before.touched };
}

/** How much of each item is on the slip, in thousandths. */
export function quantitiesOn(slip: OpenSlip): Map<string, number> {
  const on = new Map<string, number>();
  for (const { item, quantity } of slip.lines) {
    if (item !== null) on.set(item, (on.get(item) ?? 0) + quantity);
  }
  return on;
}

/** How many things are on the slip: what is weighed or timed is one thing a line. */
export const thingsOn = (slip: OpenSlip): number =>
  slip.lines.reduce(
    (all, line) => all + (isPaidIn(line) ? 0 : line.unit === '' ? line.quantity / 1000 : 1),
    0,
  );

function putLine(slip: OpenSlip, line: OpenLine): SlipOutcome {
  if (isFull([...slip.lines, line])) return { ok: false, refusal: { code: 'slip/full' } };
  const refusal = quantityRefusal(line.quantity, line);
  if (refusal !== null) return { ok: false, refusal };
  return { ok: true, slip: { ...slip, lines: [...slip.lines, line], touched: line.key } };
}

/** Why a line cannot hold a quantity, or null when it can. */
export function quantityRefusal(
  quantity: number,
  { decimals, unit }: Pick<OpenLine, 'decimals' | 'unit'>,
): SlipRefusal | null {
  if (thousandths(quantity) <= 0) return { code: 'slip/quantity-not-positive', quantity };
  if (quantity > LARGEST_QUANTITY) return { code: 'slip/quantity-too-large', quantity };
  if (quantity % 10 ** (3 - decimals) !== 0)
    return { code: 'slip/too-many-decimals', decimals, unit };
  return null;
}
