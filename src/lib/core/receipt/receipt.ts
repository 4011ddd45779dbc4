/**
 * A receipt, whatever it is shown on: one model, worked out from the books. Screens, paper, pictures
 * and letters are made of it and of nothing else.
 */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Row } from '../books/tables';
import { headOfAccount } from '../held/held-account';
import { voucherText } from '../held/voucher-number';
import { POINTS } from '../points/promotion-methods';
import { paidWith } from '../payment/part-sums';
import { sum } from '../money/units';
import { promotedIn } from '../sale/return-figures';

export interface ReceiptLine {
  readonly name: string;
  /** What else there is to say of it, a line each: extras, notes, tags. */
  readonly more: readonly string[];
  /** Thousandths, with its unit. */
  readonly quantity: number;
  readonly unit: string;
  /** Minor units for one unit of measure, extras with it. */
  readonly each: number;
  /** Minor units off this line. */
  readonly discount: number;
  /** As prices are shown on the shelf: with tax where they include it. */
  readonly total: number;
}

export interface ReceiptPart {
  readonly name: string;
  /** Of a card, or what the customer brought: an ending, a number. */
  readonly reference: string;
  /** Handed over or charged in all. */
  readonly amount: number;
  readonly change: number;
  readonly surcharge: number;
  readonly tip: number;
  /** Taken with no network: not authorised yet. */
  readonly isCarried: boolean;
  /** Only held so far. */
  readonly isHeld: boolean;
  /** The customer signed for it. */
  readonly isSigned: boolean;
  /** The approval code of a card, or empty. */
  readonly approval: string;
  readonly share: number | null;
  /** What was left afterwards on what it was paid from, or what the customer owes in all, or points; null for money. */
  readonly after: { readonly is: 'left' | 'owed' | 'points'; readonly amount: number } | null;
}

/** Goods that came back, and what was given back for them, above nothing. */
export interface ReceiptBack {
  readonly number: string;
  readonly lines: readonly (Pick<ReceiptLine, 'name' | 'quantity' | 'unit'> & {
    /** Off the price of what stays with the customer; nothing for what came back. */
    readonly off: number;
  })[];
  readonly total: number;
  /** What of it cards had been charged for paying so: it was in no total. */
  readonly surcharge: number;
  /** What went back beside it as points and rewards, which had paid for it. */
  readonly promotion: number;
}

/** Amounts are minor units of the currency. */
export interface Receipt {
  /** The name of the business. */
  readonly vendor: string;
  readonly head: string;
  readonly foot: string;
  readonly number: string;
  /** ISO 8601. */
  readonly at: string;
  readonly event: string;
  readonly seller: string;
  /** Numbers of the orders that it hands over. */
  readonly orders: readonly string[];
  readonly currency: string;
  readonly lines: readonly ReceiptLine[];
  readonly service: number;
  /** Prices include tax: it is told, not added. */
  readonly isTaxIncluded: boolean;
  readonly taxes: readonly {
    readonly name: string;
    readonly rate: string;
    base: number;
    amount: number;
  }[];
  /** What cards were charged above the cash price. */
  readonly uplift: number;
  /** The whole, uplift with it; without surcharges and tips. */
  readonly total: number;
  readonly parts: readonly ReceiptPart[];
  /** Kept difference of cash rounding. */
  readonly rounding: number;
  /** Points that it brought, and rewards that it reached. */
  readonly earned: Row<'sales'>['earned'];
  /** Shown as a code: the number, and a value by which a copy is told from the sale itself. */
  readonly check: string;
  /** What came back since, the first first. */
  readonly back: readonly ReceiptBack[];
  /** The sale has been voided since. */
  readonly isVoid: boolean;
  /** No prices: for somebody who is given the goods. */
  readonly isGift: boolean;
  /** This device has printed it before. */
  readonly isAgain: boolean;
}

export interface ReceiptOf {
  readonly business: Row<'businesses'>;
  readonly event: Pick<Row<'events'>, 'name'> | undefined;
  readonly sale: Row<'sales'>;
  readonly lines: readonly Row<'saleLines'>[];
  readonly payments: readonly Row<'payments'>[];
  readonly seller: string;
  readonly isGift?: boolean;
  readonly isAgain?: boolean;
  readonly isVoid?: boolean;
  readonly returns?: readonly Row<'returns'>[];
  /** For one of the people who shared the slip out: their parts alone. */
  readonly share?: number;
}

export function receiptOf({
  business,
  event,
  sale,
  lines,
  payments,
  seller,
  isGift = false,
  isAgain = false,
  isVoid = false,
  returns = [],
  share,
}: ReceiptOf): Receipt {
  const isTaxIncluded = business.pricesIncludeTax;
  const own = payments.filter((each) => share === undefined || each.share === share);
  return {
    vendor: business.name,
    head: business.receiptHead,
    foot: business.receiptFoot,
    number: sale.number,
    at: sale.at,
    event: event?.name ?? '',
    seller,
    orders: [...new Set(lines.flatMap(({ ordered }) => ordered?.number ?? []))],
    currency: business.currency,
    lines: lines.map((line) => lineOf(line, isTaxIncluded)),
    service: sale.service,
    isTaxIncluded,
    taxes: withVouchers(sale.taxes, lines).map(({ id, name, rate, base, amount }) => {
      // What cards were charged above the cash price has its tax as well.
      const above = sale.upliftTaxes[id] ?? { base: 0, amount: 0 };
      // What points and rewards pay lowers them.
      const lower = payments.flatMap(({ promotion, held }) =>
        [...(promotion?.lowers ?? []), ...(held?.lowers === undefined ? [] : [held.lowers])].filter(
          (each) => each.id === id,
        ),
      );
      return {
        ...{ name, rate },
        base: base + above.base - sum(lower.map((each) => each.base)),
        amount: amount + above.amount - sum(lower.map((each) => each.amount)),
      };
    }),
    uplift: sale.uplift,
    total: sale.total + sale.uplift,
    parts: own.map(partOf),
    rounding: sum(own.map(({ rounding }) => rounding)),
    earned: sale.earned,
    check: checkValue(business.id, sale, isGift),
    isGift,
    isAgain,
    isVoid,
    back: returns.map((each) => backOf(each, lines)),
  };
}

/** Vouchers for goods of one tax are sold with it. */
function withVouchers(
  taxes: Row<'sales'>['taxes'],
  lines: readonly Pick<Row<'saleLines'>, 'kept'>[],
): Row<'sales'>['taxes'] {
  const sold = lines.flatMap(({ kept }) => kept ?? []);
  const more = sold.filter(
    ({ id }, at) =>
      taxes.every((tax) => tax.id !== id) && sold.findIndex((each) => each.id === id) === at,
  );
  return [...taxes, ...more.map((tax) => ({ ...tax, base: 0, amount: 0 }))].map((tax) => {
    const own = sold.filter(({ id }) => id === tax.id);
    return {
      ...tax,
      base: tax.base + sum(own.map(({ base }) => base)),
      amount: tax.amount + sum(own.map(({ amount }) => amount)),
    };
  });
}

function lineOf(line: Row<'saleLines'>, isTaxIncluded: boolean): ReceiptLine {
  const { detail, extras, note, tag } = line;
  return {
    name: detail === '' ? line.name : `${line.name}, ${detail}`,
    more: [
      ...extras.map(({ name }) => `with ${name}`),
      ...(tag === '' ? [] : [`tag ${tag}`]),
      ...(note === '' ? [] : [note]),
      ...(line.until === '' ? [] : [`until ${line.until}`]),
    ],
    quantity: line.quantity,
    unit: line.unit,
    each: line.price + sum(extras.map(({ price }) => price)),
    discount: line.discount,
    total: isTaxIncluded ? line.total : line.net,
  };
}

const backOf = (
  { number, total, surcharges, promotions, lines: back }: Row<'returns'>,
  lines: readonly Row<'saleLines'>[],
): ReceiptBack => ({
  number,
  total,
  surcharge: sum(surcharges.map(({ amount }) => amount)),
  promotion: promotedIn({ promotions }),
  lines: back.flatMap(({ line, quantity, off = 0 }) => {
    const of = lines.find((each) => each.line === line);
    if (of === undefined) return [];
    const { name, detail, unit } = of;
    return { name: detail === '' ? name : `${name}, ${detail}`, quantity, unit, off };
  }),
});

function partOf(part: Row<'payments'>): ReceiptPart {
  const { card, change, surcharge, tip } = part;
  return {
    name: part.wayName,
    reference:
      card === null
        ? part.method === 'voucher'
          ? voucherText(part.reference)
          : part.method === 'reward'
            ? ''
            : part.reference
        : [card.scheme, card.last4, part.reference].filter((each) => each !== '').join(' '),
    amount: paidWith(part) + change,
    change,
    surcharge,
    tip,
    isCarried: card?.state === 'deferred',
    isHeld: card?.state === 'authorised',
    isSigned: card?.isSigned === true,
    approval: card?.approval ?? '',
    share: part.share,
    after: afterOf(part),
  };
}

function afterOf({ held, promotion }: Row<'payments'>): ReceiptPart['after'] {
  if (promotion?.of === POINTS) return { is: 'points', amount: promotion.after };
  if (held == null) return null;
  return { is: headOfAccount(held.account) === 'customer' ? 'owed' : 'left', amount: held.after };
}

/**
 * Ten hexadecimal figures out of what the sale is: whoever has the books can tell whether a receipt
 * is of a sale in them, and whether it is one without prices.
 */
export const checkValue = (
  business: string,
  { id, number, total }: Pick<Row<'sales'>, 'id' | 'number' | 'total'>,
  isGift = false,
): string => {
  const said = [business, id, number, String(total), ...(isGift ? ['gift'] : [])];
  return bytesToHex(sha256(utf8ToBytes(said.join('\n')))).slice(0, 10);
};

/** What the code on a receipt says. */
export const receiptCode = ({ number, check }: Pick<Receipt, 'number' | 'check'>): string =>
  `${number} ${check}`;
