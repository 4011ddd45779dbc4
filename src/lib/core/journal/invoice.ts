/** What an invoice moves: what somebody owes for it, against what was earned and taxed, or was paid in advance. */
import type { BodyOf } from '../daybook/kinds';
import { minus, money, type Posting } from './posting';

/** What a sale had moved is not moved again. Each line's postings add up to nothing. Minor units. */
export function invoicePostings({
  body,
}: {
  readonly body: Pick<BodyOf<'invoice.made'>, 'customer' | 'of' | 'lines' | 'taxes'>;
}): Posting[] {
  const { customer, of, lines, taxes } = body;
  if (of.is === 'sale') return [];
  const rates = new Map(taxes.map(({ id, rate }) => [id, rate]));
  return lines.flatMap(({ net, tax, total }, line) => [
    ...money(`customer:${customer}`, total, { line }),
    ...(of.is === 'order'
      ? money(`deposit:${of.order}`, minus(total), { line })
      : [
          ...money('sales', minus(net), { line }),
          ...Object.entries(tax).flatMap(([id, amount]) => {
            const rate = rates.get(id) ?? '';
            return money(`tax:${id}@${rate}`, minus(amount), {
              ...{ tax: id, rate, line, base: minus(net) },
            });
          }),
        ]),
  ]);
}
