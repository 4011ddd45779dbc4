/** What a part of a payment moves: into a drawer or to what is owed by its way, off the slip. */
import { NOBODY } from '../books/names';
import type { BodyOf } from '../daybook/kinds';
import type { KeptTax } from '../held/one-purpose';
import { sum } from '../money/units';
import { takingsOfPart } from '../payment/part-sums';
import type { Account } from './accounts';
import { pointsTo } from './points';
import { explained, minus, money, type Posting } from './posting';

type Promotion = NonNullable<BodyOf<'payment.taken'>['promotion']>;

/** The account, and what a voucher for goods of one tax lowers that tax by. */
interface PaidFrom {
  readonly account: string;
  readonly lowers?: KeptTax | undefined;
}

export type PartFigures = Pick<
  BodyOf<'payment.taken'>,
  'slip' | 'way' | 'drawer' | 'clears' | 'charge' | 'surcharge' | 'tip' | 'change' | 'rounding'
> & {
  readonly side: 'cash' | 'card';
  /** Who took it, and whose the tip is. */
  readonly by: string | null;
  /** The account that it was paid from, where no money came in. */
  readonly held?: PaidFrom | null | undefined;
  /** Whose points or reward paid, and what was taken for it. */
  readonly customer?: string | null | undefined;
  readonly promotion?: Promotion | null | undefined;
};

/** Where money that is no cash comes to or goes from: an account that somebody holds, or what is owed by the way. */
export const toOrFrom = (
  way: string,
  held: { readonly account?: string | undefined } | null | undefined,
): Account => (held?.account === undefined ? `owed:${way}` : (held.account as Account));

/** Minor units. */
export function partPostings(part: PartFigures): Posting[] {
  const { slip, way, drawer, charge, surcharge, tip, change, rounding } = part;
  const seller = part.by ?? NOBODY;
  const handed = charge + surcharge + tip;
  const takings = takingsOfPart(part);
  const postings: Posting[] = [
    { account: `slip:${slip}`, amount: minus(takings), way, documents: 1 },
    ...(drawer === null
      ? notCash(part, handed - change)
      : [
          ...money(`drawer:${drawer}`, handed, { drawer, documents: 1 }),
          ...money(`drawer:${drawer}`, minus(change), { drawer }),
        ]),
    ...money('rounding', minus(rounding), { way, ...(drawer === null ? {} : { drawer }) }),
    ...money('surcharge', minus(surcharge), { way }),
    ...(tip === 0 ? [] : money(`tips:${seller}`, minus(tip), { way, seller, documents: 1 })),
  ];
  return explained(postings, { way });
}

/** Points, rewards, and vouchers for goods of one tax lower taxes: what they paid goes back as such, and never as money. */
export const lowersTaxes = ({
  promotion,
  held,
}: Partial<Pick<PartFigures, 'promotion' | 'held'>>): boolean =>
  promotion != null || held?.lowers !== undefined;

/** What a part moves that lowers taxes. Minor units. */
export const loweringPostings = (
  part: Pick<PartFigures, 'slip' | 'way' | 'charge' | 'customer' | 'promotion' | 'held'>,
): Posting[] => [
  ...money(`slip:${part.slip}`, minus(part.charge), { way: part.way }),
  ...notCash(part, part.charge),
];

/** By money that is still to come, from an account, or given by the vendor: then the taxes of the sale are lower. */
function notCash(
  { way, held, customer, promotion }: Pick<PartFigures, 'way' | 'held' | 'customer' | 'promotion'>,
  amount: number,
): Posting[] {
  const lower = ({ id, rate, amount: by, base }: Omit<KeptTax, 'name'>): Posting[] =>
    money(`tax:${id}@${rate}`, by, { tax: id, rate, way, ...(base === 0 ? {} : { base }) });
  if (promotion == null) {
    const paid = money(toOrFrom(way, held), amount, { way });
    if (held?.lowers === undefined) return paid;
    // It was paid when the voucher was sold.
    const back = money('prepaid-tax', minus(held.lowers.amount), { way });
    return [...paid, ...lower(held.lowers), ...back];
  }
  const lowered = sum(promotion.lowers.map((tax) => tax.amount));
  return [
    ...money('promotions', amount - lowered, { way }),
    ...promotion.lowers.flatMap(lower),
    ...pointsTo(customer ?? NOBODY, promotion.of, minus(promotion.taken)),
  ];
}
