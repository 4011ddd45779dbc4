/** What comes back of a sale, in figures: its lines, and of everything beside them a share (docs/rules.md, "Returns"). */
import { BASE, type Row } from '../books/tables';
import type { BodyOf } from '../daybook/kinds';
import { isFor } from '../held/one-purpose';
import { headOf } from '../journal/accounts';
import type { Posting } from '../journal/posting';
import { figuresOfRows, salePostings } from '../journal/sale';
import { loweringPostings, lowersTaxes } from '../journal/payment';
import { netOf, postingsOf, takePartBack, takeShareBack, type Share } from '../journal/take-back';
import { fraction, roundToMinor } from '../money/fraction';
import { sum } from '../money/units';

type Body = BodyOf<'return.made'>;

/** A sale as the books have it, and what came back of it already. */
export interface SoldSale {
  readonly sale: Row<'sales'>;
  readonly lines: readonly Row<'saleLines'>[];
  readonly payments: readonly (Pick<
    Row<'payments'>,
    'id' | 'way' | 'charge' | 'surcharge' | 'tip' | 'change'
  > &
    Partial<Pick<Row<'payments'>, 'held' | 'customer' | 'promotion'>>)[];
  readonly before: readonly (Pick<Row<'returns'>, 'lines' | 'takes' | 'surcharges'> &
    Partial<Pick<Row<'returns'>, 'money' | 'promotions'>>)[];
}

/** How much of a line comes back; thousandths, with the sign of the line's. */
export interface ComesBack {
  readonly line: number;
  readonly quantity: number;
  /** Off the price of a line of which nothing comes back; minor units. */
  readonly off?: number | undefined;
}

/** Rows from before there was a word for the place name the event. */
export const soldFrom = ({ place, event }: Row<'sales'>): string =>
  place === '' ? (event ?? BASE) : place;

/** What came back of each line so far; thousandths. */
export function backOf(before: SoldSale['before']): ReadonlyMap<number, number> {
  const back = new Map<number, number>();
  for (const { lines } of before)
    for (const { line, quantity } of lines) back.set(line, (back.get(line) ?? 0) + quantity);
  return back;
}

/** What of each line has not come back; thousandths, nothing where more came back than there was. */
export function leftOf({ lines, before }: SoldSale): ReadonlyMap<number, number> {
  const back = backOf(before);
  return new Map(
    lines.map(({ line, quantity }) => {
      const left = quantity - (back.get(line) ?? 0);
      return [line, Math.sign(left) === Math.sign(quantity) ? left : 0];
    }),
  );
}

type Figures = Pick<Body, 'takes' | 'surcharges' | 'promotions'>;
type OfSale = Pick<Body, 'takes' | 'surcharges'>;

/**
 * What is taken back of the sale, and of what cards were charged for paying so. Once something was taken off a price,
 * what comes back is shares of what is left (docs/rules.md, "Returns"). Minor units.
 */
export function returnFigures(sold: SoldSale, comesBack: readonly ComesBack[]): Figures {
  const isOff = [...sold.before.flatMap(({ lines }) => lines), ...comesBack].some(
    ({ off }) => off !== undefined,
  );
  const figures = isOff ? figuresOfLeft(sold, comesBack) : figuresInAll(sold, comesBack);
  return { ...figures, promotions: promotionsBack(sold, figures.takes.postings) };
}

/**
 * What points, rewards and vouchers for goods of one tax had paid goes back as such, and is never given in money: of each
 * such part the share that the value which came back in all has of the sale, or of the goods that the voucher is for, less
 * what went back before.
 */
function promotionsBack(sold: SoldSale, takes: readonly Posting[]): Figures['promotions'] {
  const parts = sold.payments.filter(lowersTaxes);
  if (parts.length === 0) return [];
  const back = [...goneOf(sold), ...takes];
  const original = postingsOfSale(sold);
  const shareOf = (isOf: (posting: Posting) => boolean): Share => ({
    quantity: Math.abs(slipOf(back.filter(isOf))),
    of: Math.abs(slipOf(original.filter(isOf))),
  });
  return parts.flatMap((part) => {
    const { lowers } = part.held ?? {};
    const own = sold.lines.filter((line) => lowers === undefined || isFor(line, lowers.id));
    const share = shareOf(
      ({ line }) => lowers === undefined || own.some((each) => each.line === line),
    );
    const before = sold.before.flatMap(({ promotions = [] }) =>
      promotions.flatMap((each) => (each.of === part.id ? each.postings : [])),
    );
    const whole = loweringPostings({ ...part, slip: sold.sale.slip });
    const postings = takeShareBack(whole, () => share, before);
    return postings.length === 0 ? [] : { of: part.id, postings };
  });
}

/** What it moved. What comes back of an order was handed over all the same. */
export const postingsOfSale = ({ sale, lines }: SoldSale): readonly Posting[] =>
  salePostings(
    figuresOfRows(
      { ...sale, place: soldFrom(sale) },
      lines.map((line) => ({ ...line, ordered: null })),
    ),
  );
/** What came back of it so far. */
export const goneOf = ({ before }: SoldSale): readonly Posting[] =>
  before.flatMap(({ takes }) => takes);
const surchargeLeft = ({ before }: SoldSale, part: string, surcharge: number): number =>
  surcharge -
  sum(
    before.flatMap(({ surcharges }) =>
      surcharges.flatMap((each) => (each.part === part ? each.amount : [])),
    ),
  );

/** What of each line's price has not been given back; minor units, nothing where more was than there is. */
export function leftValueOf(sold: SoldSale): ReadonlyMap<number, number> {
  const gone = goneOf(sold);
  return new Map(
    sold.lines.map(({ line, total }) => {
      const left = total + slipOf(gone.filter((posting) => posting.line === line));
      return [line, Math.sign(left) === Math.sign(total) ? left : 0];
    }),
  );
}

/** On the slip: what the customer owed for it. */
const slipOf = (postings: readonly Posting[]): number =>
  sum(postings.flatMap(({ account, amount = 0 }) => (headOf(account) === 'slip' ? amount : [])));

/** What goods had cost stays when only their price is lowered, and so do the goods. */
const OF_GOODS: readonly string[] = ['place', 'goods', 'cost'];

function figuresOfLeft(sold: SoldSale, comesBack: readonly ComesBack[]): OfSale {
  const { sale, lines, payments } = sold;
  const stays = [...netOf([...postingsOfSale(sold), ...goneOf(sold)]).values()];
  const [quantities, values] = [leftOf(sold), leftValueOf(sold)];
  const ofLines = comesBack.map(({ line, quantity, off }) => {
    const own = stays.filter((posting) => posting.line === line);
    const taken =
      off === undefined
        ? takeShareBack(own, () => ({ quantity, of: quantities.get(line) ?? 0 }))
        : takeShareBack(
            own.filter(({ account }) => !OF_GOODS.includes(headOf(account))),
            () => ({ quantity: off, of: values.get(line) ?? 0 }),
          );
    return { line, taken, value: Math.abs(slipOf(taken)) };
  });
  const isAllBack = lines.every(({ line }) => {
    const back = comesBack.find((each) => each.line === line)?.quantity ?? 0;
    return back === (quantities.get(line) ?? 0);
  });
  const shareBy = (isOf: (line: Row<'saleLines'>) => boolean): Share => {
    const of = lines.filter(isOf).map(({ line }) => line);
    const whole = sum(of.map((line) => Math.abs(values.get(line) ?? 0)));
    if (whole === 0) return { quantity: isAllBack ? 1 : 0, of: 1 };
    const back = sum(ofLines.flatMap(({ line, value }) => (of.includes(line) ? value : [])));
    return { quantity: back, of: whole };
  };
  const whole = shareBy(() => true);
  // Service and what cards pay above are of goods alone.
  const ofGoods = shareBy(({ account }) => account == null);
  const beside = stays.filter((posting) => posting.line === undefined);
  const groups = new Set(beside.map(({ item }) => item));
  return {
    takes: {
      of: sale.id,
      postings: [
        ...ofLines.flatMap(({ taken }) => taken),
        ...[...groups].flatMap((item) =>
          takeShareBack(
            beside.filter((posting) => posting.item === item),
            ({ tax }) =>
              tax === undefined ? ofGoods : shareBy((line) => Object.hasOwn(line.tax, tax)),
          ),
        ),
      ],
    },
    surcharges: payments.flatMap(({ id, way, surcharge }) => {
      const amount = shareIn(surchargeLeft(sold, id, surcharge), whole);
      return amount === 0 ? [] : { part: id, way, amount };
    }),
  };
}

/** `R(value × q / Q)` of everything in all, less what came back before. */
function figuresInAll(sold: SoldSale, comesBack: readonly ComesBack[]): OfSale {
  const { sale, lines, payments, before } = sold;
  const original = postingsOfSale(sold);
  const gone = goneOf(sold);
  const inAll = new Map(backOf(before));
  for (const { line, quantity } of comesBack) inAll.set(line, (inAll.get(line) ?? 0) + quantity);
  const shareBy = (isOf: (line: Row<'saleLines'>) => boolean): Share => {
    const of = lines.filter(isOf);
    const whole = sum(of.map(({ total }) => Math.abs(total)));
    const back = (line: Row<'saleLines'>): Share => ({
      quantity: inAll.get(line.line) ?? 0,
      of: line.quantity,
    });
    // Goods for nothing have no value to go by: beside them something comes back with the last of them.
    if (whole === 0)
      return { quantity: of.every((line) => back(line).quantity === line.quantity) ? 1 : 0, of: 1 };
    return {
      quantity: sum(of.map((line) => shareIn(Math.abs(line.total), back(line)))),
      of: whole,
    };
  };
  const whole = shareBy(() => true);
  // Service and what cards pay above are of goods alone.
  const ofGoods = shareBy(({ account }) => account == null);
  const beside = (posting: Posting): boolean => posting.line === undefined;
  const groups = new Set(original.filter(beside).map(({ item }) => item));
  return {
    takes: {
      of: sale.id,
      postings: [
        ...comesBack.flatMap(({ line }) => {
          const of = lines.find((each) => each.line === line)?.quantity ?? 0;
          return takePartBack(original, line, { quantity: inAll.get(line) ?? 0, of }, gone);
        }),
        ...[...groups].flatMap((item) =>
          takeShareBack(
            original.filter((posting) => beside(posting) && posting.item === item),
            ({ tax }) =>
              tax === undefined ? ofGoods : shareBy((line) => Object.hasOwn(line.tax, tax)),
            gone.filter((posting) => beside(posting) && posting.item === item),
          ),
        ),
      ],
    },
    surcharges: payments.flatMap(({ id, way, surcharge }) => {
      const amount = shareIn(surcharge, whole) - (surcharge - surchargeLeft(sold, id, surcharge));
      return amount === 0 ? [] : { part: id, way, amount };
    }),
  };
}

/** `R(value × quantity / of)`. */
const shareIn = (value: number, { quantity, of }: Share): number =>
  of === 0 ? 0 : roundToMinor(fraction(BigInt(value) * BigInt(Math.abs(quantity)), Math.abs(of)));

/** All that is owed to the customer for it in money. Minor units. */
export const takenOff = ({
  takes,
  surcharges,
  promotions,
}: Pick<Body, 'takes' | 'surcharges' | 'promotions'>): number =>
  sum(surcharges.map(({ amount }) => amount)) - slipOf(takes.postings) - promotedIn({ promotions });

/** What of it goes back as points and rewards, which had paid for it. Minor units. */
export const promotedIn = ({ promotions }: Pick<Body, 'promotions'>): number =>
  slipOf(postingsOf(promotions));

/** Lines of sales as far as they came back, with what was given back for each below nothing. */
export function linesBack<
  L extends Pick<Row<'saleLines'>, 'sale' | 'line' | 'quantity' | 'total' | 'tax'>,
>(returns: readonly Pick<Row<'returns'>, 'sale' | 'lines' | 'takes'>[], lines: readonly L[]): L[] {
  const sold = new Map(lines.map((line) => [`${line.sale} ${String(line.line)}`, line]));
  return returns.flatMap(({ sale, lines: back, takes }) =>
    back.flatMap(({ line, quantity }) => {
      const of = sold.get(`${sale} ${String(line)}`);
      if (of === undefined) return [];
      const own = takes.filter((posting) => posting.line === line);
      const total = slipOf(own);
      const tax: Record<string, number> = {};
      for (const posting of own)
        if (posting.tax !== undefined)
          tax[posting.tax] = (tax[posting.tax] ?? 0) - (posting.amount ?? 0);
      return { ...of, quantity: 0 - quantity, total, tax };
    }),
  );
}
