import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { changesOf } from '../books/changes';
import { Books } from '../books/books';
import type { SlipTax } from '../pricing/slip';
import { CASH_WAY, type WayToPay } from '../payment/ways';
import { paidWith } from '../payment/part-sums';
import { priceSlip } from '../slip/price-slip';
import type { Pricing } from '../slip/pricing';
import { emptySlip, putItem, sayOfSlip, type OpenSlip } from '../slip/open-slip';
import { AT_EVENT, CARD, PRICING, VAT } from '../testing/a-sale';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { CARD_WAY, DRAWER, EVENT, idOf, item } from '../testing/made-up-business';
import { readEntry } from '../daybook/read-entry';
import { givePartsBack } from './give-parts-back';
import { leftOf, takePart, type PartDone, type PartOutcome, type TakePart } from './take-part';

const tax: SlipTax = VAT;
const pricing: Pricing = { ...PRICING, uplift: '3.5' };
const slipOf = (price: number): OpenSlip => {
  const put = putItem(emptySlip(idOf(9, 1)), item(1, price), 1000, 'a');
  assert.ok(put.ok);
  return put.slip;
};
let ids = 0;
const command = (change: Partial<TakePart>): TakePart => ({
  newId: () => idOf(8, (ids += 1)),
  slip: slipOf(2640),
  pricing,
  taxes: [tax],
  event: AT_EVENT,
  way: CASH_WAY,
  drawer: DRAWER,
  amount: null,
  deviceNumber: 3,
  number: 17,
  now: Date.UTC(2026, 6, 4, 10, 30),
  ...change,
});
const take = (change: Partial<TakePart>): PartOutcome => takePart(command(change));
const done = (change: Partial<TakePart>): PartDone => {
  const outcome = take(change);
  assert.ok(outcome.ok, JSON.stringify(outcome));
  return outcome;
};
const code = (outcome: PartOutcome): string => (outcome.ok ? 'taken' : outcome.refusal.code);
const named: WayToPay = { ...CARD_WAY, needsCustomer: true, reference: 'Terminal slip' };

describe('a part of a payment', () => {
  it('fixes what the slip comes to: the set-up that changes meanwhile changes nothing of it', () => {
    const first = done({ way: CARD_WAY, amount: 1000 });
    const later = {
      slip: first.slip!,
      pricing: { ...pricing, uplift: '9', pricesIncludeTax: false },
      taxes: [{ ...tax, rate: '5' }],
      event: { ...AT_EVENT, swaps: [{ from: tax.id, to: null }] },
    };
    const asBefore = done({ slip: first.slip!, way: CARD_WAY });
    const now = done({ ...later, way: CARD_WAY });
    assert.deepEqual([now.part.charge, now.total], [asBefore.part.charge, asBefore.total]);
    const sale = (outcome: PartDone) => outcome.drafts.find(({ kind }) => kind === 'sale.rung');
    const { taxes, uplift, total } = sale(now)!.body;
    assert.deepEqual(
      { taxes, uplift, total },
      (({ taxes: t, uplift: u, total: all }) => ({
        taxes: t,
        uplift: u,
        total: all,
      }))(sale(asBefore)!.body),
    );
    // Given back, it is priced by the set-up as it is.
    const parts = [first.part.id];
    const back = { newId: () => idOf(8, (ids += 1)), slip: first.slip!, event: EVENT, parts };
    const given = givePartsBack({ ...back, reason: 'left', takenBy: new Map() });
    assert.equal(given.slip.fixed, undefined);
  });

  it('of a card is what the card was asked for, or it is not taken', () => {
    const asked = done({ way: CARD_WAY });
    const { charge, surcharge } = asked.part;
    const as = charge + surcharge + 200;
    assert.equal(code(take({ way: CARD_WAY, tip: 200, asked: as })), 'taken');
    assert.equal(code(take({ way: CARD_WAY, tip: 150, asked: as })), 'pay/not-as-asked');
  });

  it('is one of at most fifty: the last of them takes all that is left', () => {
    let slip: OpenSlip = slipOf(2640);
    for (let n = 1; n < 50; n += 1) slip = done({ slip, amount: 10 }).slip!;
    assert.equal(code(take({ slip, amount: 10 })), 'pay/too-many-parts');
    const last = done({ slip });
    assert.equal(last.slip, null);
    for (const entry of new DeviceWriter(1).append(last.drafts, 0)) assert.ok(readEntry(entry).ok);
  });

  it('that is given back takes the tip from whoever had been given it', () => {
    const writer = new DeviceWriter(1);
    const [taker, other] = [idOf(10, 1), idOf(10, 2)];
    const books = new Books();
    const say = (drafts: PartDone['drafts'], by: string): void => {
      for (const entry of writer.append(drafts, 0, by)) {
        const read = readEntry(entry);
        assert.ok(read.ok, JSON.stringify(read));
        books.apply(changesOf(read.entry));
      }
    };
    const taken = done({ newId: writer.newId, amount: 1000, tip: 150 });
    say(taken.drafts, taker);
    const parts = [taken.part.id];
    const command = { newId: writer.newId, slip: taken.slip!, event: EVENT, parts, reason: 'left' };
    say(givePartsBack({ ...command, takenBy: new Map([[taken.part.id, taker]]) }).drafts, other);
    assert.deepEqual(
      books.rows('eventTips').map(({ seller, tips }) => [seller, tips]),
      [[taker, 0]],
    );
  });

  it('clears £15.00 of £26.40 by a card with a surcharge, and leaves £11.40', () => {
    const { part, left, drafts } = done({
      pricing: { ...pricing, uplift: '0' },
      way: CARD_WAY,
      amount: 1500,
    });
    assert.deepEqual([part.clears, part.charge, part.surcharge, left], [1500, 1500, 27, 1140]);
    assert.deepEqual(
      drafts.map(({ kind }) => kind),
      ['payment.taken'],
    );
  });

  it('keeps what the customer signed apart from what it says', () => {
    const card = { ...CARD, entry: 'swipe', isSigned: true } as const;
    const signature = [[10, 20, 456, 321]];
    const salt = 'sixteen-letters-';
    const { drafts, slip } = done({
      way: CARD_WAY,
      amount: 1000,
      card,
      payer: { signature, name: '', salt },
    });
    const [entry] = new DeviceWriter(1).append(drafts, 0);
    const read = readEntry(entry!);
    assert.ok(read.ok && read.entry.kind === 'payment.taken');
    assert.equal(read.entry.body.card?.isSigned, true);
    assert.deepEqual(read.entry.private, { salt, data: { signature } });
    assert.doesNotMatch(JSON.stringify([entry?.body, slip]), /456,321/);
    const books = new Books();
    books.apply(changesOf(read.entry));
    assert.deepEqual(books.rows('payers')[0]?.strokes, signature);
    // Without it, as after its customer was forgotten, the payment stands as it was.
    books.apply(changesOf({ ...read.entry, private: undefined }));
    assert.equal(books.rows('payments')[0]?.card?.isSigned, true);
  });

  it('that clears the last of it rings the sale up with all parts named', () => {
    const first = done({ way: CARD_WAY, amount: 1000 });
    const last = done({ slip: first.slip!, amount: 2000 });
    assert.deepEqual(
      last.drafts.map(({ kind }) => kind),
      ['payment.taken', 'sale.rung'],
    );
    assert.equal(last.slip, null);
    assert.deepEqual(last.drafts[1]?.body['payments'], [first.part.id, last.part.id]);
    assert.equal(last.part.change, 360);
  });

  it('of a share clears no more than the share, and gives change on what is over', () => {
    const { part, left } = done({ amount: 2000, upTo: 880, share: 1 });
    assert.deepEqual(
      [part.clears, part.charge, part.change, part.share, left],
      [880, 2000, 1120, 1, 1760],
    );
    assert.equal(code(take({ way: CARD_WAY, amount: 881, upTo: 880 })), 'pay/more-than-left');
  });

  it('takes the tip on top and apart, and asks for it once', () => {
    const slip = sayOfSlip(slipOf(2640), { tip: 300 });
    const first = done({ slip, way: CARD_WAY, amount: 1000, tip: 300 });
    assert.equal(first.part.tip, 300);
    assert.equal(first.left, 1640);
    assert.equal(first.slip?.tip, undefined);
  });

  it('charges a card the cash price when the uplift is waived, and says so on the sale', () => {
    const slip = sayOfSlip(slipOf(2640), { isUpliftWaived: true });
    const { part, drafts } = done({ slip, way: CARD_WAY });
    assert.equal(part.charge, 2640);
    assert.equal(drafts[1]?.body['isUpliftWaived'], true);
    assert.equal(drafts[1].body['uplift'], undefined);
  });

  const refused: readonly {
    readonly why: string;
    readonly is: string;
    change: Partial<TakePart>;
  }[] = [
    {
      why: 'without the customer that the way asks for',
      is: 'pay/needs-customer',
      change: { way: named },
    },
    {
      why: 'without the reference',
      is: 'pay/needs-reference',
      change: {
        way: named,
        slip: sayOfSlip(slipOf(2640), {
          customer: { id: idOf(8, 99), name: 'Wren', discount: '0' },
        }),
      },
    },
    {
      why: 'more than is left on what gives no change',
      is: 'pay/more-than-left',
      change: { way: CARD_WAY, amount: 2641 },
    },
    { why: 'cash with no drawer', is: 'drawer/none', change: { drawer: null } },
    { why: 'an amount of nothing', is: 'pay/not-an-amount', change: { amount: 0 } },
    { why: 'a tip below nothing', is: 'pay/tip-wrong', change: { tip: -1 } },
    {
      why: 'for an empty slip',
      is: 'sale/nothing-on-it',
      change: { slip: emptySlip(idOf(9, 2)) },
    },
  ];
  for (const { why, is, change } of refused)
    it(`is refused: ${why}`, () => assert.equal(code(take(change)), is));
});

describe('parts of a payment, whatever they are', () => {
  const asks = fc.array(
    fc.record({
      isCard: fc.boolean(),
      amount: fc.integer({ min: 1, max: 3000 }),
      tip: fc.nat({ max: 300 }),
      isGivenBack: fc.boolean(),
    }),
    { maxLength: 6 },
  );
  const modes = fc.record({
    price: fc.integer({ min: 1, max: 9999 }),
    isIncluded: fc.boolean(),
    uplift: fc.constantFrom('0', '3.5', '12.25'),
  });

  it('leave the books agreeing: drawer, ways, tips, taxes and takings', () => {
    fc.assert(
      fc.property(asks, modes, (all, { price, isIncluded, uplift }) => {
        const own: Pricing = { ...pricing, pricesIncludeTax: isIncluded, uplift };
        const writer = new DeviceWriter(1);
        let slip: OpenSlip | null = slipOf(price);
        let [inDrawer, onCards] = [0, 0];
        const entries = [];
        for (const [at, ask] of [...all, null].entries()) {
          if (slip === null) break;
          const { cash } = priceSlip(slip, own, [tax]);
          const left: number = leftOf({ cash, card: cash, dueInCash: 0 }, slip);
          // The last one takes all that is left.
          const way: WayToPay = ask?.isCard === true ? CARD_WAY : CASH_WAY;
          const amount: number | null =
            ask === null ? null : way === CARD_WAY ? Math.min(ask.amount, left) : ask.amount;
          const outcome = done({
            newId: writer.newId,
            slip,
            pricing: own,
            way,
            amount,
            tip: ask?.tip ?? 0,
            number: at + 1,
          });
          entries.push(...writer.append(outcome.drafts, 0));
          const paid = paidWith(outcome.part);
          if (way === CARD_WAY) onCards += paid;
          else inDrawer += paid;
          slip = outcome.slip;
          if (slip === null || ask?.isGivenBack !== true) continue;
          const back = givePartsBack({
            takenBy: new Map(),
            newId: writer.newId,
            slip,
            event: EVENT,
            parts: [outcome.part.id],
            reason: 'left',
          });
          entries.push(...writer.append(back.drafts, 0));
          slip = back.slip;
          if (way === CARD_WAY) onCards -= paid;
          else inDrawer -= paid;
        }
        assert.equal(slip, null);
        const books = new Books();
        books.apply(
          entries.flatMap((entry) => {
            const read = readEntry(entry);
            assert.ok(read.ok, JSON.stringify(read));
            return changesOf(read.entry);
          }),
        );
        const [totals] = books.rows('eventTotals');
        const [sale] = books.rows('sales');
        const ways = books.rows('eventWays');
        const of = (field: 'takings' | 'surcharge' | 'tips'): number =>
          ways.reduce((sum, row) => sum + row[field], 0);
        assert.equal(of('takings'), totals?.takings);
        assert.equal(sale!.total + sale!.uplift, totals?.takings);
        const rounding = books.rows('drawerSums').reduce((sum, row) => sum + row.rounding, 0);
        assert.equal(of('takings') + of('surcharge') + of('tips') + rounding, inDrawer + onCards);
        const [drawer] = books.rows('drawerSums');
        assert.equal(drawer ? drawer.handed - drawer.change - drawer.back : 0, inDrawer);
        const tips = books.rows('eventTips').reduce((sum, row) => sum + row.tips, 0);
        assert.equal(tips, of('tips'));
        const taxes = books.rows('eventTaxes').reduce((sum, row) => sum + row.amount, 0);
        assert.equal(taxes, totals?.tax);
      }),
      { numRuns: 300 },
    );
  });

  it('all on cards gives exactly the taxes of the card side', () => {
    fc.assert(
      fc.property(
        modes,
        fc.array(fc.integer({ min: 1, max: 900 }), { maxLength: 4 }),
        ({ price, isIncluded, uplift }, amounts) => {
          const own: Pricing = { ...pricing, pricesIncludeTax: isIncluded, uplift };
          let slip: OpenSlip | null = slipOf(price);
          let last: PartDone | null = null;
          const { card } = priceSlip(slip, own, [tax]);
          for (const amount of [...amounts, null]) {
            if (slip === null) break;
            const quote = priceSlip(slip, own, [tax]);
            const clears: number | null =
              amount === null ? null : Math.min(amount, leftOf(quote, slip));
            last = done({ slip, pricing: own, way: CARD_WAY, amount: clears });
            slip = last.slip;
          }
          const sale = last!.drafts[1]!.body as {
            total: number;
            taxes: { amount: number }[];
            uplift?: { total: number; tax: Record<string, number> };
          };
          assert.equal(sale.total + (sale.uplift?.total ?? 0), card.total);
          const inCash = sale.taxes.reduce((sum, { amount }) => sum + amount, 0);
          const above = Object.values(sale.uplift?.tax ?? {}).reduce((sum, each) => sum + each, 0);
          assert.equal(
            inCash + above,
            card.taxes.reduce((sum, { amount }) => sum + amount, 0),
          );
        },
      ),
    );
  });
});
