import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import { kinds, isKind, type BodyOf } from '../daybook/kinds';
import { PRICING, VAT } from '../testing/a-sale';
import { customerId, EVENT, idOf, item } from '../testing/made-up-business';
import { ordersFromJson, readOrders, type OrdersContext } from './orders-table';
import type { CsvLine, Planned } from './goods-table';

let ids = 0;
const newId = (): string => idOf(75, (ids += 1));
const customer = (n: number, name: string, more: Partial<Row<'customers'>> = {}) =>
  ({
    ...{ id: customerId(n), name, email: '', phone: '', isErased: false, isActive: true },
    ...more,
  }) as Row<'customers'>;
const CONTEXT: OrdersContext = {
  ...{ newId, newSalt: () => 'sixteen-letters-', business: idOf(1, 1), pricing: PRICING },
  locale: 'en-GB',
  ...{ taxes: [VAT], items: [item(1, 450), item(2, 895), { ...item(3, 200), name: 'Thing 2' }] },
  customers: [
    customer(1, 'Wren', { email: 'wren@green.example', phone: '01632 960123' }),
    customer(2, 'Moss'),
    customer(3, 'Moss'),
  ],
  ...{
    orders: [],
    paid: [],
    source: 'Web shop',
    way: idOf(32, 9),
    collectAt: EVENT,
    place: 'base',
  },
};
const read = (lines: readonly CsvLine[], more: Partial<OrdersContext> = {}): readonly Planned[] => {
  const planned = readOrders(lines, { ...CONTEXT, ...more });
  for (const { drafts } of planned)
    for (const { kind, body } of drafts) if (isKind(kind)) kinds[kind].body.parse(body);
  return planned;
};
const says = (planned: readonly Planned[]): string[] =>
  planned.map(({ line, verdict, why }) => `${String(line)} ${verdict} ${why}`.trim());
const bodyOf = <K extends 'order.set' | 'order.terms' | 'order.paid' | 'customer.set'>(
  planned: Planned | undefined,
  kind: K,
): BodyOf<K> | undefined =>
  planned?.drafts.find((each) => each.kind === kind)?.body as BodyOf<K> | undefined;

describe('a file of orders from elsewhere', () => {
  it('makes one order of the lines of a number, for whoever is known by mail, telephone or name', () => {
    const [order] = read([
      {
        ...{ order: '77', name: 'Rosa Wren', email: 'WREN@green.example', code: 't1' },
        ...{ quantity: '3', paid: '13.50', until: '2026-12-24', note: 'rings first' },
      },
      { order: '77', item: 'Thing 1', quantity: '1', price: '4.00' },
    ]);
    assert.deepEqual([order?.verdict, order?.name], ['new', '77']);
    const body = bodyOf(order, 'order.set');
    assert.deepEqual(
      body?.lines.map(({ quantity, price, total, listPrice, reason }) => [
        ...[quantity, price, total, listPrice, reason],
      ]),
      [
        [3000, 450, 1350, undefined, undefined],
        [1000, 400, 400, 450, 'as ordered at Web shop'],
      ],
    );
    assert.equal(body?.customer, customerId(1));
    assert.equal(bodyOf(order, 'customer.set'), undefined);
    const { sort, collectAt, until } = bodyOf(order, 'order.terms')!;
    const note = order?.drafts.find(({ kind }) => kind === 'order.terms')?.private?.data['note'];
    assert.deepEqual(
      [sort, collectAt, until, note],
      ['collect', EVENT, '2026-12-24', 'rings first'],
    );
    assert.deepEqual(
      [bodyOf(order, 'order.paid')?.amount, bodyOf(order, 'order.paid')?.reference],
      [1350, '77'],
    );
  });

  it('taken in twice is there once; more that was paid since is paid', () => {
    const line = { order: '77', name: 'Wren', phone: '01632960123', code: 'T1', paid: '2' };
    const [first] = read([line]);
    const set = bodyOf(first, 'order.set')!;
    const there = {
      orders: [{ ...set, setStamp: 'x' } as unknown as Row<'orders'>],
      paid: [{ order: set.id, amount: 200 } as Row<'ordersPaid'>],
    };
    assert.deepEqual(says(read([line], there)), ['2 same']);
    const [more] = read([{ ...line, paid: '4.50' }], there);
    assert.deepEqual([more?.verdict, bodyOf(more, 'order.paid')?.amount], ['changed', 250]);
    // The same number of another shop is another order.
    const [other] = read([line], { ...there, source: 'Market hall' });
    assert.notEqual(bodyOf(other, 'order.set')?.id, set.id);
    // On two devices out of touch it is the same order, with the same lines.
    const [again] = read([line]);
    assert.deepEqual(bodyOf(again, 'order.set'), set);
  });

  it('notes somebody down who is new, once for all their orders', () => {
    const who = { name: 'Alder', email: 'alder@green.example', code: 'T1' };
    const planned = read([
      { ...who, order: '1' },
      { ...who, order: '2' },
    ]);
    const made = planned.map((each) => bodyOf(each, 'customer.set')?.id);
    assert.ok(made[0] !== undefined);
    assert.equal(made[1], undefined);
    assert.equal(bodyOf(planned[1], 'order.set')?.customer, made[0]);
  });

  it('says what is wrong, where, and takes nothing of such an order in', () => {
    assert.deepEqual(
      says(
        read([
          { order: '', name: 'Wren', code: 'T1' },
          { order: '2', name: 'Wren', code: 'T9' },
          { order: '3', name: 'Moss', code: 'T1' },
          { order: '4', name: 'Wren', item: 'thing 2' },
          { order: '5', name: 'Wren', code: 'T1', quantity: '-1' },
          { order: '6', name: 'Wren', code: 'T1', price: 'dear' },
          { order: '7', name: 'Wren', code: 'T1', paid: '99' },
          { order: '8', name: 'Wren', code: 'T1', until: 'soon' },
          { order: '9', name: '', code: 'T1' },
          { order: '10', name: 'Wren', code: 'T1' },
          { order: '10', name: 'Moss', code: 'T2' },
          { order: '11', name: 'Fern', email: 'not a mail', code: 'T1' },
          { order: '12', name: 'Wren', code: 'T1' },
          { order: '12', name: 'Wren', code: 'T1' },
          { order: '13', name: 'Wren' },
        ]),
      ),
      [
        '2 wrong order: nothing stands there',
        '3 wrong nothing is called T9',
        '4 wrong several customers are called Moss; give the mail or telephone of one',
        '5 wrong several things are called thing 2; give its code',
        '6 wrong quantity: “-1” is no quantity of Thing 1',
        '7 wrong price: “dear” is no price',
        '8 wrong paid: that is more than it comes to',
        '9 wrong until: “soon” is no day; write 2026-12-24',
        '10 wrong name: nothing stands there',
        '11 wrong name: its lines are of different people',
        '13 wrong email: “not a mail” cannot be that',
        '14 wrong Thing 1 stands there twice',
        '16 wrong neither “code” nor “item” says what it is',
      ],
    );
    assert.deepEqual(
      says(read([{ order: '1', name: 'Wren', code: 'T1', paid: '1' }], { way: null })),
      ['2 wrong paid: choose the way that it was paid by there'],
    );
  });

  it('is JSON as well, and says what of it is not as it should be', () => {
    const lines = ordersFromJson(
      JSON.stringify([
        {
          order: 77,
          name: 'Wren',
          paid: 4.5,
          lines: [{ code: 'T1', quantity: 2 }, { code: 'T2' }],
        },
      ]),
    );
    assert.ok(typeof lines !== 'string');
    assert.equal(bodyOf(read(lines)[0], 'order.set')?.lines.length, 2);
    const fault = (text: string): string => {
      const found = ordersFromJson(text);
      return typeof found === 'string' ? found : '';
    };
    assert.match(fault('[{"order": "1", "lines": 3}]'), /at 0\.lines/);
    assert.match(fault('{'), /This is no JSON/);
  });
});
