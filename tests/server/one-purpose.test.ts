/** Vouchers for goods of one tax on the server: sold with it, spent without it, and nothing else said of either. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft } from '../../src/lib/core/daybook/kinds';
import { taxWithin, type KeptTax } from '../../src/lib/core/held/one-purpose';
import { moveHeld, replaceVoucher } from '../../src/lib/core/held/set-held';
import type { HeldFacts } from '../../src/lib/core/held/spend';
import { CASH_WAY } from '../../src/lib/core/payment/ways';
import { makeReturn } from '../../src/lib/core/sale/make-return';
import { emptySlip, putPaidIn } from '../../src/lib/core/slip/open-slip';
import { VAT } from '../../src/lib/core/testing/a-sale';
import { heldWay } from '../../src/lib/core/testing/held-drafts';
import {
  BUSINESS,
  customerId,
  DRAWER,
  EVENT,
  idOf,
} from '../../src/lib/core/testing/made-up-business';
import { saleDocument } from '../../src/lib/server/books/find-sales';
import { rebuild } from '../../src/lib/server/daybook/rebuild';
import { heldTill } from '../support/held-till';
import { HELPER, NOW, OWNER, Pushing } from '../support/pushing';

const desk = new Pushing();
const { push, newId } = desk;
const { sell, spent } = heldTill(desk);
const FOOD = { id: idOf(5, 7), name: 'Food', rate: '5' };
const ONE_PURPOSE = { ...heldWay('voucher'), purpose: VAT.id };

before(() =>
  desk.begin([
    desk.way(ONE_PURPOSE),
    desk.way(heldWay('credit')),
    desk.customer(1),
    draft('tax.set', newId(), null, { ...FOOD, level: 'country', on: [], sort: 2, isActive: true }),
  ]),
);
after(() => desk.t.end());

const soldWith = (number: string, amount: number, kept: KeptTax | null, device = 1) => {
  const account = `voucher:${number}` as const;
  const line = { account, name: 'Voucher', detail: '', amount, kept: kept ?? undefined };
  const put = putPaidIn(emptySlip(newId()), line, 'in');
  assert.ok(put.ok);
  return sell(put.slip, device, { way: CASH_WAY });
};
const facts = (value: number, kept: KeptTax | null = taxWithin(value, VAT)): HeldFacts => ({
  ...{
    balance: 0 - value,
    sold: [{ until: '', value, kept }],
    state: undefined,
    creditLimit: null,
  },
});
/** What a device sends that says something else of a part. */
const tampered = (
  drafts: readonly Draft[],
  kind: string,
  change: (body: never) => object,
): Draft[] =>
  drafts.map((each) =>
    each.kind === kind ? { ...each, body: { ...each.body, ...change(each.body as never) } } : each,
  );

async function stands(): Promise<readonly number[]> {
  const accounts = await desk.books.rows(BUSINESS, 'eventAccounts', { account: 'prepaid-tax' });
  const [total] = await desk.books.rows(BUSINESS, 'eventTotals', { event: EVENT });
  const prepaid = accounts.reduce((sum, { amount }) => sum + amount, 0);
  return [prepaid, total?.takings ?? 0, total?.tax ?? 0];
}

describe('a voucher for goods of one tax', () => {
  it('is taxed when it is sold and not when it is spent', async () => {
    assert.deepEqual(await push(soldWith('CARD01', 600, taxWithin(600, VAT)), HELPER), []);
    assert.deepEqual(await stands(), [100, 0, 0]);
    // Goods for 210 with 35 tax.
    const drafts = spent('voucher', 1, facts(600), { reference: 'CARD01' });
    assert.deepEqual(await push(drafts, HELPER), []);
    assert.deepEqual(await stands(), [65, 210, 35]);
    // What is due is another matter: all of it since the voucher was sold.
    const [taxed] = await desk.books.rows(BUSINESS, 'eventTaxes', { event: EVENT, tax: VAT.id });
    assert.deepEqual([taxed?.base, taxed?.amount], [500, 100]);
    const before = await desk.books.all(BUSINESS);
    await rebuild(desk.t.database, BUSINESS);
    assert.deepEqual(await desk.books.all(BUSINESS), before);
  });

  it('that is sold with another tax, or with none of it, is found', async () => {
    assert.deepEqual(await push(soldWith('CARD02', 600, taxWithin(600, FOOD)), HELPER), [
      'sale/kept',
    ]);
    assert.deepEqual(await push(soldWith('CARD03', 600, null), HELPER), ['sale/kept']);
    const less = { ...taxWithin(600, VAT), amount: 50, base: 550 };
    assert.deepEqual(await push(soldWith('CARD04', 600, less), HELPER), ['sale/kept']);
    const unknown = { ...taxWithin(600, VAT), id: idOf(5, 99) };
    assert.deepEqual(await push(soldWith('CARD05', 600, unknown), HELPER), ['sale/kept']);
  });

  it('that is spent as if it were for any goods, or lowers another amount, is found', async () => {
    assert.deepEqual(await push(soldWith('CARD06', 900, taxWithin(900, VAT))), []);
    const reference = 'CARD06';
    assert.deepEqual(await push(spent('voucher', 1, facts(900, null), { reference }), HELPER), [
      'payment/purpose',
    ]);
    const more = tampered(
      spent('voucher', 1, facts(900), { reference }),
      'payment.taken',
      ({ held }: { held: { lowers: KeptTax } }) => ({
        held: { ...held, lowers: { ...held.lowers, amount: 60, base: 150 } },
      }),
    );
    assert.deepEqual(await push(more, HELPER), ['sale/lowered']);
    // A voucher for any goods lowers nothing.
    assert.deepEqual(await push([desk.way(heldWay('voucher'))]), []);
    assert.deepEqual(await push(soldWith('CARD07', 900, null)), []);
    assert.deepEqual(await push(spent('voucher', 1, facts(900), { reference: 'CARD07' }), HELPER), [
      'payment/purpose',
    ]);
  });

  it('may be sold as it was set up by a device that has not heard of another way yet', async () => {
    assert.deepEqual(await push([desk.way(ONE_PURPOSE)]), []);
    const soon = NOW + 60_000;
    assert.deepEqual(await push(soldWith('CARD08', 600, null, 2), HELPER, 2, soon), []);
    const now = soldWith('CARD09', 600, taxWithin(600, VAT), 2);
    assert.deepEqual(await push(now, HELPER, 2, soon), []);
  });

  it('goes on a voucher like it and nowhere else, and its tax with it', async () => {
    for (const number of ['CARD11', 'CARD14', 'CARD15'])
      assert.deepEqual(await push(soldWith(number, 600, taxWithin(600, VAT))), []);
    const move = { newId, balance: -600, amount: null, reason: 'asked for' };
    const credit = `credit:${customerId(1)}` as const;
    const away = moveHeld({ ...move, from: 'voucher:CARD14', to: credit });
    assert.ok(away.ok);
    assert.deepEqual(await push(away.drafts), ['sale/kept']);
    const bare = moveHeld({ ...move, from: 'voucher:CARD15', to: 'voucher:CARD12' });
    assert.ok(bare.ok);
    assert.deepEqual(await push(bare.drafts), ['sale/kept']);
    const made = replaceVoucher({
      ...{ newId, number: 'CARD11', fresh: 'CARD13', facts: facts(600), reason: 'lost' },
    });
    assert.ok(made.ok);
    assert.deepEqual(await push(made.drafts), []);
    const [fresh] = await desk.books.rows(BUSINESS, 'vouchers', { number: 'CARD13' });
    assert.deepEqual(fresh?.kept, taxWithin(600, VAT));
    const drafts = spent('voucher', 1, facts(600), { reference: 'CARD13' });
    assert.deepEqual(await push(drafts, OWNER), []);
  });

  it('has back what it had paid, with its tax; given as money on it that is found', async () => {
    assert.deepEqual(await push(soldWith('CARD16', 210, taxWithin(210, VAT))), []);
    const drafts = spent('voucher', 1, facts(210), { reference: 'CARD16' });
    assert.deepEqual(await push(drafts, HELPER), []);
    const { id } = drafts.find(({ kind }) => kind === 'sale.rung')!;
    const back = async (number: number) => {
      const sold = await saleDocument(desk.t.database, desk.books, BUSINESS, id);
      assert.ok(sold !== null);
      const made = makeReturn({
        ...{ newId, ...sold, before: sold.returns, chosen: [{ line: 0, typed: '1', to: 'stock' }] },
        ...{ reason: 'it wilted', way: 'cash', drawer: DRAWER, card: null, currency: 'GBP' },
        ...{ cashStep: 1, deviceNumber: 1, number, event: EVENT, place: EVENT },
        ...{ day: sold.sale.day, hour: sold.sale.hour },
      });
      assert.ok(made.ok, JSON.stringify(made));
      return made.drafts;
    };
    const before = await stands();
    const asMoney = (await back(1)).map(({ body, ...rest }) => ({
      ...rest,
      body: {
        ...body,
        promotions: [],
        money: [
          {
            ...{ way: ONE_PURPOSE.id, drawer: null, card: null, amount: 105, rounding: 0 },
            account: 'voucher:CARD16',
          },
        ],
      },
    }));
    const [code] = await push(asMoney);
    assert.ok(code === 'return/account' || code === 'return/figures', code);
    assert.deepEqual(await push(await back(2)), []);
    const [prepaid, takings] = await stands();
    // The second puts right what the first had left out: all that it paid is back, with its tax.
    assert.deepEqual([prepaid! - before[0]!, takings! - before[1]!], [35, -210]);
  });
});
