/** Vouchers for goods of one tax: taxed when they are sold, and once. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Books } from '../books/books';
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { saleFigures } from '../invoice/invoice-figures';
import { CASH_WAY, type WayToPay } from '../payment/ways';
import { receiptOf } from '../receipt/receipt';
import { makeReturn } from '../sale/make-return';
import { takePart } from '../sale/take-part';
import { voidSale } from '../sale/void-sale';
import { emptySlip, putItem, putPaidIn, type OpenSlip } from '../slip/open-slip';
import { voucherTax } from '../slip/voucher-tax';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { booksOf } from '../testing/books-of';
import { heldWay } from '../testing/held-drafts';
import {
  BUSINESS,
  customerId,
  DRAWER,
  EVENT,
  idOf,
  item,
  pricing,
  START,
  tax,
  TAX,
} from '../testing/made-up-business';
import { pointsFacts, pointsWay } from '../testing/points-drafts';
import {
  isKeptWith,
  keptOf,
  lowersFor,
  payableFor,
  purposeOf,
  taxWithin,
  type KeptTax,
  type PurposePart,
} from './one-purpose';
import { lapseVouchers, replaceVoucher } from './set-held';
import type { HeldFacts } from './spend';
import { voucherList } from './voucher-list';

const VAT = { id: TAX, name: 'VAT', rate: '20' };
const FOOD = { ...tax, id: idOf(5, 2), name: 'Food', rate: '5', sort: 2 };
const NUMBER = 'CARD0042';
const FRESH = 'CARD0043';

describe('the tax of a voucher for goods of one tax', () => {
  it('is what is in its value, and the rest is what it is worked out on', () => {
    assert.deepEqual(taxWithin(12_000, VAT), { ...VAT, amount: 2000, base: 10_000 });
    assert.deepEqual(taxWithin(1000, VAT), { ...VAT, amount: 167, base: 833 });
    assert.deepEqual(taxWithin(1000, { ...VAT, rate: '0' }), {
      ...{ ...VAT, rate: '0' },
      ...{ amount: 0, base: 1000 },
    });
    assert.ok(isKeptWith(undefined, { value: 5 }));
    assert.ok(isKeptWith(taxWithin(1000, VAT), { account: 'voucher:V1', value: 1000 }));
    assert.ok(!isKeptWith(taxWithin(1000, VAT), { account: 'voucher:V1', value: 999 }));
    assert.ok(!isKeptWith(taxWithin(1000, VAT), { account: 'credit:V1', value: 1000 }));
  });

  it('is asked of the way that vouchers are sold by, and stands in the place that it has at the event', () => {
    const way = { method: 'voucher', purpose: TAX, isActive: true } as const;
    assert.equal(voucherTax(1200, [way], [tax, FOOD], [])?.amount, 200);
    assert.equal(voucherTax(1050, [way], [tax, FOOD], [{ from: TAX, to: FOOD.id }])?.id, FOOD.id);
    assert.equal(voucherTax(1200, [way], [tax, FOOD], [{ from: TAX, to: null }]), null);
    assert.equal(voucherTax(1200, [way], [FOOD], []), null);
    assert.equal(voucherTax(1200, [{ ...way, purpose: '' }], [tax], []), null);
    assert.equal(voucherTax(1200, [{ ...way, isActive: false }], [tax], []), null);
    assert.equal(voucherTax(1200, [], [tax], []), null);
  });

  it('goes with what is left by its share', () => {
    const sold = [{ value: 1000, kept: taxWithin(1000, VAT) }];
    assert.equal(purposeOf([{ kept: null }]), null);
    assert.equal(keptOf([{ value: 1000, kept: null }], 500), null);
    assert.deepEqual(keptOf(sold, 1000), sold[0]!.kept);
    assert.deepEqual(keptOf(sold, 500), { ...VAT, amount: 84, base: 416 });
    assert.deepEqual(keptOf(sold, 0), { ...VAT, amount: 0, base: 0 });
  });
});

const lineOf = (id: string, total: number, amount: number) => ({ tax: { [id]: amount }, total });

describe('what such a voucher pays', () => {
  const lines = [lineOf(TAX, 1200, 200), lineOf(FOOD.id, 1050, 50), { tax: {}, total: 300 }];
  const taxes = [
    { id: TAX, rate: '20', amount: 200, base: 1000 },
    { id: FOOD.id, rate: '5', amount: 50, base: 1000 },
  ];
  const sale = (before: readonly PurposePart[] = []) => ({ lines, taxes, total: 2550, before });
  const by = (clears: number): PurposePart => ({
    clears,
    held: { lowers: lowersFor({ ...VAT, amount: 0, base: 0 }, clears, sale()) },
  });

  it('is goods with that tax and no other, less what is paid of them', () => {
    assert.equal(payableFor(TAX, sale()), 1200);
    assert.equal(payableFor(FOOD.id, sale()), 1050);
    assert.equal(payableFor(idOf(5, 9), sale()), 0);
    assert.equal(payableFor(TAX, sale([by(700)])), 500);
    assert.equal(payableFor(FOOD.id, sale([by(700)])), 1050);
    // Points pay for all goods alike: ⌈1200 × 255 / 2550⌉ of these.
    assert.equal(payableFor(TAX, sale([{ clears: 255, promotion: { lowers: [] } }])), 1080);
    const both = { ...sale(), lines: [{ tax: { [TAX]: 1, [FOOD.id]: 1 }, total: 900 }] };
    assert.equal(payableFor(TAX, both), 0);
    const paidIn = { ...lines[0]!, account: 'voucher:V9' };
    assert.equal(payableFor(TAX, { ...sale(), lines: [paidIn] }), 0);
  });

  it('lowers that tax by its share, and all of it when it pays for all of them', () => {
    assert.deepEqual(by(600).held?.lowers, { ...VAT, amount: 100, base: 500 });
    assert.deepEqual(by(1200).held?.lowers, { ...VAT, amount: 200, base: 1000 });
  });

  it('never lowers a tax below nothing, whatever paid before and in however many parts', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 5000 }), { minLength: 1, maxLength: 5 }),
        fc.integer({ min: 0, max: 5000 }),
        fc.array(fc.integer({ min: 1, max: 3000 }), { minLength: 1, maxLength: 6 }),
        (prices, others, parts) => {
          const own = prices.map((total) => lineOf(TAX, total, taxWithin(total, VAT).amount));
          const all = [...own, { tax: {}, total: others }];
          const amount = own.reduce((sum, { tax: of }) => sum + of[TAX]!, 0);
          const goods = prices.reduce((sum, price) => sum + price, 0);
          const whole = [{ id: TAX, rate: '20', amount, base: goods - amount }];
          const before: PurposePart[] = [];
          let [cleared, lowered, base] = [0, 0, 0];
          for (const wanted of parts) {
            const now = { lines: all, taxes: whole, total: goods + others, before };
            const clears = Math.min(wanted, payableFor(TAX, now));
            if (clears === 0) break;
            const lowers = lowersFor({ ...VAT, amount: 0, base: 0 }, clears, now);
            assert.ok(lowers.amount >= 0 && lowers.base >= 0);
            before.push({ clears, held: { lowers } });
            cleared += clears;
            lowered += lowers.amount;
            base += lowers.base;
          }
          assert.ok(cleared <= goods && lowered <= amount && base <= goods - amount);
          if (cleared === goods) assert.deepEqual([lowered, base], [amount, goods - amount]);
        },
      ),
    );
  });
});

/** A stall whose one device rings all of this up, with what its books say. */
class Till {
  readonly #writer = new DeviceWriter(1);
  readonly #entries: Parameters<typeof booksOf>[0][number][] = [];
  #now = START;

  readonly newId = (): string => this.#writer.newId();

  get books(): Books {
    return booksOf(this.#entries);
  }

  append(drafts: readonly Draft[]): void {
    this.#now += 60_000;
    this.#entries.push(...this.#writer.append(drafts, this.#now, null));
  }

  slip(...prices: readonly number[]): OpenSlip {
    return prices.reduce<OpenSlip>((slip, price, at) => {
      const goods = at === 0 ? item(1, price) : { ...item(at + 1, price), taxes: [FOOD.id] };
      const put = putItem(slip, goods, 1000, `line ${String(at)}`);
      assert.ok(put.ok);
      return put.slip;
    }, emptySlip(this.newId()));
  }

  take(
    slip: OpenSlip,
    way: WayToPay,
    more: Partial<Parameters<typeof takePart>[0]> = {},
  ): ReturnType<typeof takePart> {
    const done = takePart({
      ...{ newId: this.newId, slip, pricing, taxes: [tax, FOOD], way, amount: null },
      ...{ drawer: DRAWER, deviceNumber: 1, number: this.#writer.nextSale(), now: this.#now },
      ...{ event: { id: EVENT, timeZone: 'Europe/London' }, business: BUSINESS },
      ...more,
    });
    if (done.ok) this.append(done.drafts);
    return done;
  }

  sellVoucher(amount: number, kept: KeptTax | undefined): void {
    const line = { account: `voucher:${NUMBER}`, name: 'Voucher', detail: '', amount } as const;
    const put = putPaidIn(emptySlip(this.newId()), { ...line, kept }, 'v');
    assert.ok(put.ok);
    assert.ok(this.take(put.slip, CASH_WAY).ok);
  }

  facts(number = NUMBER): HeldFacts {
    const { books } = this;
    return {
      balance: books.row('heldSums', `voucher:${number}`)?.amount ?? 0,
      sold: books.rows('vouchers').filter((each) => each.number === number),
      ...{ state: books.row('voucherStates', number), creditLimit: null },
    };
  }

  spend(slip: OpenSlip, amount: number | null = null, number = NUMBER) {
    return this.take(slip, heldWay('voucher'), {
      ...{ amount, reference: number, held: this.facts(number) },
    });
  }

  /** What stands on an account at the event and at none, minor units. */
  stands(account: string): number {
    return this.books
      .rows('eventAccounts')
      .filter((row) => row.account === account)
      .reduce((sum, { amount }) => sum + amount, 0);
  }

  taxes(): Record<string, [base: number, amount: number]> {
    const found: Record<string, [number, number]> = {};
    for (const { tax: id, base, amount } of this.books.rows('eventTaxes')) {
      const [b, a] = found[id] ?? [0, 0];
      found[id] = [b + base, a + amount];
    }
    return found;
  }

  takings(): number {
    return this.books.rows('eventTotals').reduce((sum, { takings }) => sum + takings, 0);
  }

  receiptTaxes(): ReturnType<typeof receiptOf>['taxes'] {
    const { sale, lines, payments } = this.sold();
    const business = { pricesIncludeTax: true, currency: 'GBP' } as Row<'businesses'>;
    return receiptOf({ business, event: undefined, sale, lines, payments, seller: '' }).taxes;
  }

  sold() {
    const { books } = this;
    const sale = books.rows('sales').at(-1)!;
    return {
      sale,
      lines: books.rows('saleLines').filter((line) => line.sale === sale.id),
      payments: books.rows('payments').filter(({ id }) => sale.payments.includes(id)),
      before: books.rows('returns').filter((back) => back.sale === sale.id),
    };
  }
}

const started = (value = 12_000): Till => {
  const till = new Till();
  till.sellVoucher(value, taxWithin(value, VAT));
  return till;
};

describe('a voucher for goods of one tax at the till', () => {
  it('is taxed when it is sold, and nothing was sold', () => {
    const till = started();
    assert.deepEqual(till.taxes(), { [TAX]: [10_000, 2000] });
    assert.equal(till.takings(), 0);
    assert.equal(till.stands(`voucher:${NUMBER}`), -12_000);
    assert.equal(till.stands('prepaid-tax'), 2000);
    assert.equal(
      till.books.rows('eventHours').reduce((sum, { takings }) => sum + takings, 0),
      0,
    );
    assert.deepEqual(till.receiptTaxes(), [
      { name: 'VAT', rate: '20', base: 10_000, amount: 2000 },
    ]);
  });

  it('is not taxed again when it is spent; the goods are takings then', () => {
    const till = started();
    const slip = till.slip(6000);
    assert.ok(till.spend(slip).ok);
    assert.deepEqual(till.taxes(), { [TAX]: [10_000, 2000] });
    assert.equal(till.takings(), 6000);
    assert.equal(till.stands(`voucher:${NUMBER}`), -6000);
    assert.equal(till.stands('prepaid-tax'), 1000);
    assert.equal(till.stands('sales'), -5000);
    assert.ok(till.spend(till.slip(6000)).ok);
    assert.deepEqual(
      [till.stands(`voucher:${NUMBER}`), till.stands('prepaid-tax'), till.stands('sales')],
      [0, 0, -10_000],
    );
    assert.deepEqual(till.receiptTaxes(), [{ name: 'VAT', rate: '20', base: 0, amount: 0 }]);
  });

  it('pays for its goods alone, and says so', () => {
    const till = started();
    const mixed = till.slip(2400, 1050);
    const more = till.spend(mixed, 3000);
    assert.deepEqual(more.ok ? 'ok' : more.refusal, { code: 'held/goods-less', left: 2400 });
    const part = till.spend(mixed);
    assert.ok(part.ok);
    assert.deepEqual([part.part.clears, part.left], [2400, 1050]);
    assert.deepEqual(part.part.held?.lowers, { ...VAT, amount: 400, base: 2000 });
    const again = till.spend(part.slip!);
    assert.deepEqual(again.ok ? 'ok' : again.refusal, { code: 'held/other-goods', name: 'VAT' });
    assert.ok(till.take(part.slip!, CASH_WAY).ok);
    assert.deepEqual(till.taxes(), { [TAX]: [10_000, 2000], [FOOD.id]: [1000, 50] });
  });

  it('lowers the tax as it is by then, where its rate has changed, and says what that leaves over', () => {
    const till = started();
    const risen = { ...tax, rate: '25' };
    const part = till.take(till.slip(12_000), heldWay('voucher'), {
      ...{ taxes: [risen, FOOD], reference: NUMBER, held: till.facts() },
    });
    assert.ok(part.ok);
    assert.deepEqual(part.part.held?.lowers, { ...VAT, rate: '25', amount: 2400, base: 9600 });
    assert.deepEqual(
      till.books.rows('eventTaxes').map(({ rate, base, amount }) => [rate, base, amount]),
      [
        ['20', 10_000, 2000],
        ['25', 0, 0],
      ],
    );
    assert.equal(till.stands('prepaid-tax'), -400);
  });

  it('is not spent after it by points, which pay for all goods alike', () => {
    const till = started();
    const customer = { id: customerId(1), name: 'Wren', discount: '0' };
    const slip = { ...till.slip(2400), customer };
    const part = till.spend(slip, 1000);
    assert.ok(part.ok);
    const points = till.take(part.slip!, pointsWay('points'), { points: pointsFacts(1) });
    assert.deepEqual(points.ok ? 'ok' : points.refusal.code, 'points/after-voucher');
    const first = till.take({ ...slip, id: till.newId() }, pointsWay('points'), {
      points: pointsFacts(1),
      amount: 600,
    });
    assert.ok(first.ok);
    const rest = till.spend(first.slip!);
    assert.ok(rest.ok);
    assert.equal(rest.left, 0);
  });

  it('has what it paid back when goods come back: on it, and never as money', () => {
    const till = started();
    const part = till.spend(till.slip(2400, 1050));
    assert.ok(part.ok);
    assert.ok(till.take(part.slip!, CASH_WAY).ok);
    const sold = till.sold();
    const back = (line: number, number: number) =>
      makeReturn({
        ...{ newId: till.newId, ...till.sold(), voids: [], undone: [], refunds: [] },
        ...{ chosen: [{ line, typed: '1', to: 'stock' as const }], reason: 'it wilted' },
        ...{ way: 'cash', drawer: DRAWER, card: null, currency: 'GBP', cashStep: 1 },
        ...{ deviceNumber: 1, number, event: EVENT, place: EVENT },
        ...{ day: sold.sale.day, hour: sold.sale.hour },
      });
    for (const [line, number] of [
      [0, 1],
      [1, 2],
    ] as const) {
      const made = back(line, number);
      assert.ok(made.ok);
      till.append(made.drafts);
      // It had paid for the first line, and for nothing of the second.
      const given = made.drafts.map(({ body }) => (body as { money: unknown[] }).money.length);
      assert.deepEqual([given, till.stands(`voucher:${NUMBER}`)], [[line], -12_000]);
    }
    // The cash had paid 1050 of it, and that alone was given back in cash.
    assert.deepEqual(
      [till.stands(`voucher:${NUMBER}`), till.stands('prepaid-tax'), till.stands('sales')],
      [-12_000, 2000, 0],
    );
    assert.equal(till.stands(`drawer:${DRAWER}`), 12_000);
    assert.deepEqual(till.taxes()[TAX], [10_000, 2000]);
    assert.deepEqual(till.taxes()[FOOD.id], [0, 0]);
    assert.equal(till.takings(), 0);
  });

  it('stands as before when the sale that it paid is voided, and is gone when its own is', () => {
    const till = started();
    const first = till.sold();
    assert.ok(till.spend(till.slip(2400)).ok);
    const voidOf = (sold: ReturnType<Till['sold']>) =>
      voidSale({
        ...{ newId: till.newId, ...sold, voids: [], returns: [], openDrawers: [DRAWER] },
        ...{ reason: 'rung up wrongly', event: EVENT },
      });
    for (const sold of [till.sold(), first]) {
      const made = voidOf(sold);
      assert.ok(made.ok, JSON.stringify(made));
      till.append(made.drafts);
    }
    assert.deepEqual(
      [till.stands(`voucher:${NUMBER}`), till.stands('prepaid-tax'), till.takings()],
      [0, 0, 0],
    );
    assert.deepEqual(till.taxes()[TAX], [0, 0]);
  });

  it('takes its tax along to the one in its place, and leaves it paid when it runs out', () => {
    const till = started();
    assert.ok(till.spend(till.slip(6000)).ok);
    const made = replaceVoucher({
      ...{ newId: till.newId, number: NUMBER, fresh: FRESH, facts: till.facts(), reason: 'lost' },
    });
    assert.ok(made.ok);
    till.append(made.drafts);
    assert.deepEqual(purposeOf(till.facts(FRESH).sold), { ...VAT, amount: 1000, base: 5000 });
    assert.equal(till.stands('prepaid-tax'), 1000);
    assert.ok(till.spend(till.slip(2400), null, FRESH).ok);
    const { books } = till;
    const [row] = voucherList(
      books.rows('vouchers').filter(({ number }) => number === FRESH),
      [],
      books.rows('heldSums'),
      '2026-11-28',
    );
    assert.deepEqual(row?.kept, { ...VAT, amount: 600, base: 3000 });
    const lapsed = lapseVouchers(till.newId, [{ ...row, until: '2026-11-01' }], '2026-11-28');
    assert.ok(lapsed.ok);
    till.append(lapsed.drafts);
    assert.deepEqual(
      [till.stands(`voucher:${FRESH}`), till.stands('prepaid-tax'), till.stands('breakage')],
      [0, 0, -3000],
    );
    // What ran out is no takings, and its tax stays paid.
    assert.deepEqual([till.takings(), till.taxes()[TAX]], [8400, [10_000, 2000]]);
  });

  it('is not asked for a second time on an invoice', () => {
    const till = started();
    const part = till.spend(till.slip(2400, 1050));
    assert.ok(part.ok);
    assert.ok(till.take(part.slip!, CASH_WAY).ok);
    const { lines, taxes, total } = saleFigures(till.sold());
    assert.equal(total, 1050);
    assert.deepEqual(
      lines.map(({ name, net }) => [name, net]),
      [
        ['Thing 1', 2000],
        ['Thing 2', 1000],
        ['Voucher, sold with its tax', -2000],
      ],
    );
    assert.deepEqual(
      taxes.map(({ id, base, amount }) => [id, base, amount]),
      [
        [TAX, 0, 0],
        [FOOD.id, 1000, 50],
      ],
    );
  });
});
