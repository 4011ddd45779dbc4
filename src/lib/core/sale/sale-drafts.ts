/** A slip whose payment is complete, as the entries that ring it up. */
import type { TaxSwap } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { earnedBy, earnedInAll, type Earned, type LineEarned } from '../points/earned';
import type { PointsFacts } from '../points/points-facts';
import type { EarningLine } from '../points/points-rule';
import { slipEnded } from '../set-aside/slip-ended';
import { localTime } from '../event/local-time';
import { fraction, roundToMinor } from '../money/fraction';
import { sum } from '../money/units';
import type { Quote, QuotedLine, SideQuote, SlipTax } from '../pricing/slip';
import { pricedBy, standingOf } from '../slip/price-slip';
import type { Pricing } from '../slip/pricing';
import type { OpenLine, OpenSlip, PaidPart } from '../slip/open-slip';

/** Where and when a sale is rung up. */
export interface SaleSurroundings {
  readonly newId: () => string;
  readonly pricing: Pricing;
  readonly taxes: readonly SlipTax[];
  /** Event that this device sells at, with the place its goods are taken from. */
  readonly event: {
    readonly id: string;
    readonly timeZone: string;
    readonly swaps?: readonly TaxSwap[];
  };
  readonly deviceNumber: number;
  /** The device's next sale number. */
  readonly number: number;
  /** Its next number of a return, for what comes back with it. */
  readonly returnNumber?: number;
  /** Milliseconds since 1970. */
  readonly now: number;
  /** What is known of points and rewards of whoever buys; null where they have none. */
  readonly points?: PointsFacts | null | undefined;
}

type SaleBody = BodyOf<'sale.rung'>;
type SaleLine = SaleBody['lines'][number];

/** The sale, and that a slip which all devices had on their lists is gone from them. */
export function saleDrafts(
  slip: OpenSlip,
  quote: Quote,
  { newId, event, deviceNumber, number, now, points = null, ...setUp }: SaleSurroundings,
): readonly Draft[] {
  const { pricing, taxes } = pricedBy(slip, { ...setUp, swaps: event.swaps ?? [] });
  const { cash } = quote;
  const paid = slip.paid ?? [];
  const { day, hour } = localTime(now, event.timeZone);
  const used = new Map(cash.taxes.map((tax) => [tax.id, tax]));
  const service = serviceIn(cash);
  const uplift = upliftIn(quote, paid, pricing.pricesIncludeTax);
  const standing = standingOf(slip);
  const brought =
    slip.customer === undefined || points === null ? null : earnedOn(slip, cash, points, day);
  const sale = draft('sale.rung', newId(), event.id, {
    slip: slip.id,
    number,
    deviceNumber,
    place: event.id,
    day,
    hour,
    lines: slip.lines.map((line, at) => ({
      ...lineOf(line, cash.lines[at]!, slip),
      ...bringsOf(brought?.lines[at]),
    })),
    taxes: taxes.flatMap(({ id, name, rate }) => {
      const tax = used.get(id);
      return tax === undefined ? [] : [{ id, name, rate, base: tax.base, amount: tax.amount }];
    }),
    total: cash.total,
    payments: paid.map(({ id }) => id),
    note: slip.note ?? '',
    ...(slip.customer === undefined ? {} : { customer: slip.customer.id }),
    // A customer is named by id alone: what is personal stands apart, and can be forgotten.
    ...(standing !== null && standing === slip.group ? { standingName: standing.name } : {}),
    ...(service === null ? {} : { service }),
    ...(uplift === null ? {} : { uplift }),
    ...(slip.isUpliftWaived === true ? { isUpliftWaived: true } : {}),
    ...(brought === null || brought.lines.every(isNothing)
      ? {}
      : { earned: { ...brought.inAll, rewards: [...brought.inAll.rewards] } }),
  });
  if (slip.kept === undefined) return [sale];
  return [sale, slipEnded(newId, event.id, slip, 'rung')];
}

/** The lines as far as points ask for them, with what each comes to on the cash side. */
export const earningLines = (
  { lines }: Pick<OpenSlip, 'lines'>,
  cash: Pick<SideQuote, 'lines'>,
): readonly EarningLine[] =>
  lines.map(({ item, account }, at) => ({ item, account, total: cash.lines[at]!.total }));

/** What each part that points or a reward paid has cleared, in order. */
export const clearedByPromotions = ({ paid = [] }: Pick<OpenSlip, 'paid'>): readonly number[] =>
  paid.flatMap(({ promotion, clears }) => (promotion === undefined ? [] : clears));

function earnedOn(
  slip: OpenSlip,
  cash: SideQuote,
  facts: PointsFacts,
  day: string,
): { readonly lines: readonly LineEarned[]; readonly inAll: Earned } {
  const lines = earnedBy(earningLines(slip, cash), sum(clearedByPromotions(slip)), facts, day);
  return { lines, inAll: earnedInAll(lines, facts) };
}

const isNothing = ({ points, toward }: LineEarned): boolean =>
  points === 0 && Object.keys(toward).length === 0;

const bringsOf = (line: LineEarned | undefined): Pick<SaleLine, 'points' | 'toward'> => ({
  ...(line === undefined || line.points === 0 ? {} : { points: line.points }),
  ...(line === undefined || Object.keys(line.toward).length === 0
    ? {}
    : { toward: { ...line.toward } }),
});

/** A line as a fact; what there is nothing to say of is left out. */
function lineOf(
  line: OpenLine,
  quoted: QuotedLine,
  { handsOver }: Pick<OpenSlip, 'handsOver'>,
): SaleLine {
  const { gross, net, tax, total, standingDiscount } = quoted;
  return {
    item: line.item,
    name: line.name,
    detail: line.detail,
    unit: line.unit,
    quantity: line.quantity,
    price: line.price,
    gross,
    discount: gross - net,
    net,
    tax: { ...tax },
    total,
    cost: line.cost,
    isStocked: line.isStocked,
    ...(line.extras === undefined ? {} : { extras: line.extras }),
    ...(line.listPrice === undefined ? {} : { listPrice: line.listPrice, reason: line.reason }),
    ...(line.note === undefined ? {} : { note: line.note }),
    ...(line.seller === undefined ? {} : { seller: line.seller }),
    ...(line.maker === undefined ? {} : { maker: line.maker }),
    ...(line.tag === undefined ? {} : { tag: line.tag }),
    ...(standingDiscount === 0 ? {} : { standing: standingDiscount }),
    ...(line.account === undefined ? {} : { account: line.account }),
    ...(line.until === undefined ? {} : { until: line.until }),
    ...(line.kept === undefined ? {} : { kept: line.kept }),
    ...(line.pays === undefined ? {} : { pays: line.pays }),
    ...(line.ordered === undefined
      ? {}
      : {
          ordered: {
            ...{ order: line.ordered.order, line: line.ordered.line },
            ...(handsOver?.id === line.ordered.order ? { number: handsOver.number } : {}),
          },
        }),
  };
}

/** The service charge with its tax: what the lines leave of the total and of each tax. */
function serviceIn(cash: SideQuote): NonNullable<SaleBody['service']> | null {
  if (cash.serviceCharge === 0) return null;
  const tax = Object.fromEntries(
    cash.taxes.flatMap(({ id, amount }) => {
      const own = amount - sum(cash.lines.map((line) => line.tax[id] ?? 0));
      return own === 0 ? [] : [[id, own]];
    }),
  );
  const total = cash.total - sum(cash.lines.map((line) => line.total));
  return { net: cash.serviceCharge, tax, total };
}

/**
 * What card parts were charged above the cash price, with its taxes: of what card and cash side
 * differ by in each tax and base, the share that the cards cleared, `R(Y × difference / C)`. All on
 * card gives exactly the card side's taxes.
 */
function upliftIn(
  { cash, card }: Quote,
  paid: readonly PaidPart[],
  isTaxIncluded: boolean,
): NonNullable<SaleBody['uplift']> | null {
  const cards = paid.filter(({ side }) => side === 'card');
  const total = sum(cards.map(({ charge, clears }) => charge - clears));
  if (total === 0) return null;
  const cleared = sum(cards.map(({ clears }) => clears));
  const share = (of: (tax: { base: number; amount: number }) => number): Record<string, number> =>
    Object.fromEntries(
      card.taxes.flatMap((onCard) => {
        const inCash = cash.taxes.find(({ id }) => id === onCard.id);
        const more = of(onCard) - (inCash === undefined ? 0 : of(inCash));
        const part = roundToMinor(fraction(BigInt(cleared) * BigInt(more), cash.total));
        return part === 0 ? [] : [[onCard.id, part]];
      }),
    );
  const tax = share(({ amount }) => amount);
  const onTop = isTaxIncluded ? 0 : sum(Object.values(tax));
  return { net: total - onTop, tax, total, base: share(({ base }) => base) };
}
