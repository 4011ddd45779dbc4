import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Row } from '../books/tables';
import { readEntry } from '../daybook/read-entry';
import { emptySlip, putItem } from '../slip/open-slip';
import { CASH_WAY } from '../payment/ways';
import { takePart } from '../sale/take-part';
import { AT_EVENT, PRICING, VAT } from '../testing/a-sale';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { CARD_WAY, DRAWER, idOf, item } from '../testing/made-up-business';
import { pointsFacts, pointsWay, rewardOf } from '../testing/points-drafts';
import { askReceipt } from './ask-receipt';
import { checkValue, receiptOf, type Receipt } from './receipt';
import { MOST_LETTERS, receiptMessage } from './receipt-message';
import { receiptMarkup } from './receipt-markup';
import { paperLines, plainText } from './receipt-text';

const words = { locale: 'en-GB', when: 'Sunday 22 November, 10:30' };
const business = {
  id: idOf(1, 1),
  name: 'Larkmoss',
  currency: 'GBP',
  locale: 'en-GB',
  pricesIncludeTax: true,
  receiptHead: 'Larkmoss Plants',
  receiptFoot: 'Water well',
} as Row<'businesses'>;

/** A sale of three ferns and a basket, paid by card and cash. */
function receipt(more: { isGift?: boolean; share?: number } = {}): Receipt {
  const writer = new DeviceWriter(1);
  const surroundings = {
    newId: writer.newId,
    pricing: { ...PRICING, uplift: '2' },
    taxes: [VAT],
    event: AT_EVENT,
    drawer: DRAWER,
    deviceNumber: 1,
    number: 17,
    now: 0,
  } as const;
  const put = putItem(emptySlip(idOf(9, 1)), { ...item(1, 450), detail: '9 cm' }, 3000, 'a', {
    extras: [{ name: 'Gift wrap', price: 50 }],
  });
  assert.ok(put.ok);
  const card = takePart({
    ...surroundings,
    slip: put.slip,
    way: CARD_WAY,
    amount: 500,
    share: 1,
    tip: 100,
  });
  assert.ok(card.ok && card.slip !== null);
  const cash = takePart({
    ...surroundings,
    slip: card.slip,
    way: CASH_WAY,
    amount: 2000,
    share: 2,
  });
  assert.ok(cash.ok);
  const books = new Books();
  for (const entry of writer.append([...card.drafts, ...cash.drafts], 0)) {
    const read = readEntry(entry);
    assert.ok(read.ok);
    books.apply(changesOf(read.entry));
  }
  return receiptOf({
    business,
    event: { name: 'Pellow Green' },
    sale: books.rows('sales')[0]!,
    lines: books.rows('saleLines'),
    payments: books.rows('payments'),
    seller: 'Ines',
    ...more,
  });
}

describe('a receipt', () => {
  it('says what was bought, each part with its change, and the tax that is in it', () => {
    const text = plainText(paperLines(receipt(), words), 40);
    assert.equal(
      text,
      [
        '            Larkmoss Plants',
        '               Sale D1-17',
        'Sunday 22 November, 10:30, Pellow Green',
        '             served by Ines',
        '-'.repeat(40),
        '3 × Thing 1, 9 cm                  15.00',
        '  at 5.00',
        '  with Gift wrap',
        '-'.repeat(40),
        'Card price above cash price         0.10',
        'Total                             £15.10',
        'Card, share 1                       6.19',
        '  surcharge in it                   0.09',
        '  tip in it, thank you              1.00',
        'Cash, share 2                      20.00',
        '  change                           10.00',
        'VAT, 20 % of 12.58                  2.52',
        '-'.repeat(40),
        '               Water well',
      ].join('\n'),
    );
  });

  it('is for one who shared it out with their own parts alone', () =>
    assert.deepEqual(
      receipt({ share: 2 }).parts.map(({ name }) => name),
      ['Cash'],
    ));

  it('has no amount in it when it is for a gift', () => {
    const text = plainText(paperLines(receipt({ isGift: true }), words), 40);
    assert.doesNotMatch(text, /£|\d\.\d\d|Total/);
    assert.match(text, /Gift receipt D1-17/);
  });

  it('can be told from one of another sale', () => {
    const sale = { id: idOf(9, 1), number: 'D1-17', total: 1500 };
    const check = checkValue(idOf(1, 1), sale);
    assert.match(check, /^[0-9a-f]{10}$/);
    assert.notEqual(check, checkValue(idOf(1, 1), { ...sale, total: 1501 }));
    assert.notEqual(check, checkValue(idOf(1, 2), sale));
  });

  it('is never wider than its paper, whatever is on it', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), fc.constantFrom(32, 48), (name, width) => {
        const one = receipt();
        const lines = one.lines.map((line) => ({ ...line, name }));
        for (const line of plainText(paperLines({ ...one, lines }, words), width).split('\n'))
          assert.ok(line.length <= width, line);
      }),
    );
  });

  it('keeps signs that the printer’s markup uses for itself as they are', () => {
    const one = receipt();
    const lines = one.lines.map((line) => ({ ...line, name: 'a|b {c} "d" ^e' }));
    const markup = receiptMarkup(paperLines({ ...one, lines }, words), one, 48);
    assert.match(markup, /a\\\|b \\\{c\\\} \\"d\\" \\\^e/);
    assert.match(markup, /\{code:D1-17 [0-9a-f]{10};option:qrcode,4,m\}/);
  });
});

describe('asking for a receipt to be sent', () => {
  const ask = (to: string, locale = 'en-GB') =>
    askReceipt({
      newId: new DeviceWriter(1).newId,
      newSalt: () => 'sixteen-letters-',
      sale: idOf(9, 1),
      customer: null,
      to,
      locale,
      isGift: false,
    });
  it('keeps the address apart from the rest', () => {
    const outcome = ask(' wren@green.example ');
    assert.ok(outcome.ok);
    const [entry] = new DeviceWriter(1).append(outcome.drafts, 0);
    assert.ok(readEntry(entry!).ok);
    assert.doesNotMatch(JSON.stringify(entry?.body), /wren/);
    assert.deepEqual(entry?.private?.data, { to: 'wren@green.example' });
  });
  it('needs an address', () => {
    const outcome = ask('wren@green');
    assert.deepEqual(outcome.ok ? null : outcome.refusal, {
      code: 'receipt/address-wrong',
      typed: 'wren@green',
    });
  });

  it('takes a telephone number as people write it in their country', () => {
    const to = (typed: string, locale?: string): string | null => {
      const outcome = ask(typed, locale);
      return outcome.ok ? outcome.to : null;
    };
    assert.equal(to('07700 900 123'), '+447700900123');
    assert.equal(to('(555) 010-0123', 'en-US'), '+15550100123');
    assert.equal(to('+49 1512 3456789'), '+4915123456789');
    assert.equal(to('12'), null);
    assert.equal(to('wren'), null);
  });

  it('says of a number what would be right', () => {
    const outcome = ask('12');
    assert.deepEqual(outcome.ok ? null : outcome.refusal, {
      code: 'receipt/number-wrong',
      typed: '12',
    });
  });
});

describe('a receipt as a text message', () => {
  it('says who, what, how much, how, and its code', () => {
    const one = receipt();
    assert.equal(
      receiptMessage(one, words),
      `Larkmoss: sale D1-17, Sunday 22 November, 10:30. 3 × Thing 1, 9 cm. £15.10, Card, Cash. Code ${one.check}`,
    );
  });

  it('has no amount in it when it is for a gift', () =>
    assert.doesNotMatch(receiptMessage(receipt({ isGift: true }), words), /£|\d\.\d\d/));

  it('names as many goods as fit, and says how many more there are', () => {
    const one = receipt();
    const [line] = one.lines;
    const lines = Array.from({ length: 30 }, () => ({
      ...line!,
      name: 'A fern of the north side',
    }));
    const text = receiptMessage({ ...one, lines }, words);
    assert.match(text, / and \d+ more\. £15\.10, Card, Cash\. Code [0-9a-f]{10}$/);
  });

  it('is never longer than two messages, whatever is on it', () =>
    fc.assert(
      fc.property(
        fc.array(fc.string({ maxLength: 80 }), { maxLength: 40 }),
        fc.string({ maxLength: 80 }),
        (names, vendor) => {
          const one = receipt();
          const lines = names.map((name) => ({ ...one.lines[0]!, name }));
          assert.ok(receiptMessage({ ...one, vendor, lines }, words).length <= MOST_LETTERS);
        },
      ),
      { numRuns: 60 },
    ));
});

describe('a receipt of a sale that brings points, and hands over an order', () => {
  it('says how many, how many are left, which reward is reached, and which taxes are lower', () => {
    const writer = new DeviceWriter(1);
    const put = putItem(emptySlip(idOf(9, 2)), item(1, 1200), 1000, 'a');
    assert.ok(put.ok);
    const customer = { id: idOf(8, 1), name: 'Wren', discount: '0' };
    const ordered = { order: idOf(12, 1), line: idOf(12, 2), off: 0, of: 1000, before: 0 };
    const slip = {
      ...{ ...put.slip, customer },
      lines: put.slip.lines.map((line) => ({ ...line, ordered })),
      handsOver: { id: ordered.order, number: 'K1-7', customer: customer.id },
    };
    const has = new Map([
      ['points', 100],
      [rewardOf(1).id, 4900],
    ]);
    const surroundings = {
      ...{ newId: writer.newId, pricing: PRICING, taxes: [VAT], event: AT_EVENT, drawer: DRAWER },
      ...{ deviceNumber: 1, number: 18, now: 0, amount: null },
    };
    const points = takePart({
      ...{ ...surroundings, slip, way: pointsWay('points'), points: pointsFacts(1, { has }) },
    });
    assert.ok(points.ok && points.slip !== null);
    const rest = pointsFacts(1, { has: new Map(has).set('points', 0) });
    const cash = takePart({ ...surroundings, slip: points.slip, way: CASH_WAY, points: rest });
    assert.ok(cash.ok);
    const books = new Books();
    for (const entry of writer.append([...points.drafts, ...cash.drafts], 0)) {
      const read = readEntry(entry);
      assert.ok(read.ok, JSON.stringify(read));
      books.apply(changesOf(read.entry));
    }
    const of = receiptOf({
      ...{ business, event: { name: 'Pellow Green' }, sale: books.rows('sales')[0]! },
      ...{ lines: books.rows('saleLines'), payments: books.rows('payments'), seller: 'Maren' },
    });
    const said = plainText(paperLines(of, words), 40);
    assert.match(said, /order K1-7/);
    assert.match(said, /points left +0/);
    // 100 points pay 1.50 of 12.00; a point for each 0.50 of the rest.
    assert.match(said, /Points for this +21/);
    assert.match(said, /points now +21/);
    assert.match(said, /Reward reached: Reward 1, £3\.00 off/);
    assert.match(said, /of 8\.75 +1\.75/);
    const gift = plainText(paperLines({ ...of, isGift: true }, words), 40);
    assert.doesNotMatch(gift, /oints|Reward|\d\.\d\d/);
  });
});

describe('a receipt of a sale of which something came back', () => {
  const back = [
    {
      ...{ number: 'D1-B4', total: 460, surcharge: 10, promotion: 0 },
      lines: [{ name: 'Item 1, 9 cm', quantity: 1000, unit: '', off: 0 }],
    },
  ];
  const made = (more: Parameters<typeof receipt>[0] = {}): Receipt => ({ ...receipt(more), back });
  const text = (of: Receipt): string => plainText(paperLines(of, words), 40);

  it('says what was taken off afterwards, and nothing of that on a gift', () => {
    const off = [
      {
        ...{ number: 'D1-B5', total: 120, surcharge: 0, promotion: 0 },
        lines: [{ name: 'Item 1, 9 cm', quantity: 0, unit: '', off: 120 }],
      },
    ];
    const said = text({ ...made(), back: off });
    assert.match(said, /Taken off afterwards, D1-B5 +[−-]1\.20/u);
    assert.match(said, /1\.20 off Item 1, 9 cm/);
    assert.doesNotMatch(text({ ...made(), isGift: true, back: off }), /D1-B5|1\.20/);
  });

  it('says what came back, what was given back, and what of the sale is left', () => {
    const said = text(made());
    assert.match(said, /Came back, D1-B4 +[−-]4\.60/u);
    assert.match(said, /1 × Item 1, 9 cm/);
    // What was charged for paying by card was in no total.
    const left = ((made().total - 450) / 100).toFixed(2);
    assert.match(said, new RegExp(`What is left +£${left.replace('.', '\\.')}`));
    assert.match(receiptMessage(made(), words), /£4\.60 given back\./);
    assert.doesNotMatch(text(receipt()), /left|Came back/);
  });

  it('of a gift has the goods alone', () => {
    const said = text(made({ isGift: true }));
    assert.match(said, /Came back, D1-B4/);
    assert.doesNotMatch(said, /4\.60|What is left/);
    assert.doesNotMatch(receiptMessage(made({ isGift: true }), words), /given back/);
  });
});
