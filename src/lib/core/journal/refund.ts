/** What a refund without a sale moves: a sale the other way, goods to where they are put, money to whoever brought them. */
import { goneTo } from '../books/names';
import type { EntryOf } from '../daybook/kinds';
import { costOf } from '../sale/cost';
import { toOrFrom } from './payment';
import { goods, minus, money, type Posting } from './posting';
import { salePostings } from './sale';

/** Minor units. */
export function refundPostings({ id, body }: EntryOf<'refund.made'>): Posting[] {
  const { lines, taxes, place } = body;
  const turned = salePostings({
    ...{ slip: id, customer: null, place, service: 0, serviceTax: 0, uplift: 0, upliftTaxes: {} },
    lines: lines.map((line) => ({
      ...line,
      quantity: minus(line.quantity),
      total: minus(line.total),
      tax: Object.fromEntries(Object.entries(line.tax).map(([of, amount]) => [of, minus(amount)])),
    })),
    taxes: taxes.map((tax) => ({ ...tax, base: minus(tax.base), amount: minus(tax.amount) })),
    // It is no sale: none is counted.
  }).filter(({ documents }) => documents === undefined);
  const { way, drawer, amount, rounding, account } = body.money;
  return [
    ...turned,
    ...lines.flatMap((line, at) => {
      if (line.to === 'stock') return [];
      const cost = costOf({ ...line, quantity: line.quantity }) ?? 0;
      const about = { line: at, ...(line.item === null ? {} : { item: line.item }) };
      return [
        ...(line.item !== null && line.isStocked
          ? goods(place, goneTo(line.to), line.quantity, about)
          : []),
        ...money('lost', cost, about),
        ...money('goods', minus(cost), about),
      ];
    }),
    ...money(`slip:${id}`, amount - rounding, { way }),
    ...(drawer === null
      ? money(toOrFrom(way, { account }), minus(amount), { way })
      : money(`drawer:${drawer}`, minus(amount), { drawer })),
    ...money('rounding', rounding, { way, ...(drawer === null ? {} : { drawer }) }),
  ];
}
