import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import { MOST_FOUND } from '../sale/sale-document';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { booksOf } from '../testing/books-of';
import { customerDraft, customerId, personBody, personId } from '../testing/made-up-business';
import { draft } from '../daybook/kinds';
import { fittingSales, salesToFind, type SaleRows } from './sales';

const NOW = Date.UTC(2026, 10, 22, 10);

/** Three sales: of Thing 1, of Things 1 and 2, of Thing 3, in this order; the second is Wren's. */
function rows(more: Partial<SaleRows> = {}): SaleRows {
  const writer = new DeviceWriter(1);
  const { newId } = writer;
  const books = booksOf([
    ...writer.append([customerDraft(1, 'Wren', newId)], NOW),
    ...writer.append([draft('staff.set', newId(), null, personBody(2, []))], NOW),
    ...writer.append(writer.sale([[1, 1]], 0, NOW), NOW, personId(2)),
    ...writer.append(
      writer.sale(
        [
          [1, 1],
          [2, 1],
        ],
        0,
        NOW,
      ),
      NOW,
    ),
    ...writer.append(writer.sale([[3, 1]], 0, NOW + 86_400_000), NOW),
  ]);
  const sales = books.rows('sales').toSorted((a, b) => (a.id < b.id ? -1 : 1));
  const [, second] = sales;
  return {
    sales: sales.map((sale) => (sale === second ? { ...sale, customer: customerId(1) } : sale)),
    lines: books.rows('saleLines'),
    payments: books.rows('payments'),
    ...{ returns: [], voids: [], corrections: [] },
    staff: books.rows('staff'),
    customers: books.rows('customers'),
    ...more,
  };
}

const numbers = (typed: string, of = rows()): readonly string[] =>
  fittingSales(salesToFind(of), typed, 'GBP').map(({ sale }) => sale.number);

describe('sales that fit', () => {
  it('are all, the latest first, when nothing is typed', () => {
    assert.deepEqual(numbers(' '), ['D1-3', 'D1-2', 'D1-1']);
  });

  it('go by number, goods, amount, day, seller and customer', () => {
    assert.deepEqual(numbers('d1-2'), ['D1-2']);
    assert.deepEqual(numbers('THING 1'), ['D1-2', 'D1-1']);
    assert.deepEqual(numbers('hing 3'), ['D1-3']);
    assert.deepEqual(numbers('3.15'), ['D1-3', 'D1-2']);
    assert.deepEqual(numbers('2026-11-23'), ['D1-3']);
    assert.deepEqual(numbers('person 2'), ['D1-1']);
    assert.deepEqual(numbers('WRÉN'), ['D1-2']);
    assert.deepEqual(numbers('zebra'), []);
    // What has no word in it names nothing.
    assert.deepEqual(numbers('?!'), []);
  });

  it('go by a reference, the last four of a card, and the number of what came back', () => {
    const { sales, payments } = rows();
    const [first, second, third] = sales;
    const of = rows({
      payments: payments.map((part) => {
        if (part.slip === first!.slip) return { ...part, reference: 'CH-20417' };
        if (part.slip !== second!.slip) return part;
        return { ...part, card: { last4: '7719' } as Row<'payments'>['card'] };
      }),
      returns: [{ sale: third!.id, number: 'D1-B4', total: 105 }],
    });
    assert.deepEqual(numbers('ch-204', of), ['D1-1']);
    assert.deepEqual(numbers('7719', of), ['D1-2']);
    assert.deepEqual(numbers('d1-b', of), ['D1-3']);
    const [found] = fittingSales(salesToFind(of), 'd1-3', 'GBP');
    assert.equal(found?.back, 105);
  });

  it('go by the customer in truth, and say what is void and in which order the lines are', () => {
    const plain = rows();
    const [first, second] = plain.sales;
    const fix = { is: 'customer', customer: customerId(1) } as const;
    const off = { is: 'customer', customer: null } as const;
    const correction = (sale: string, said: typeof fix | typeof off): Row<'corrections'> =>
      ({ id: sale, sale, stamp: 'x', fix: said }) as unknown as Row<'corrections'>;
    const of = rows({
      corrections: [correction(first!.id, fix), correction(second!.id, off)],
      voids: [{ sale: second!.id }],
      lines: plain.lines.toReversed(),
    });
    assert.deepEqual(numbers('wren', of), ['D1-1']);
    const [found] = fittingSales(salesToFind(of), 'd1-2', 'GBP');
    assert.ok(found?.isVoid);
    assert.deepEqual(
      found.lines.map(({ name }) => name),
      ['Thing 1', 'Thing 2'],
    );
  });

  it('are at most so many', () => {
    const [one] = rows().sales;
    const many = Array.from({ length: MOST_FOUND + 9 }, (_, n) => ({
      ...one!,
      id: `${one!.id}-${String(n).padStart(3, '0')}`,
    }));
    const found = fittingSales(salesToFind(rows({ sales: many })), 'd1', 'GBP');
    assert.equal(found.length, MOST_FOUND);
    assert.equal(found[0]!.sale.id, many.at(-1)!.id);
  });
});
