import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Books } from '../books/books';
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import type { HeldMove } from '../held/statement';
import { journalOf } from '../journal';
import { lowersTaxes } from '../journal/payment';
import { netOf } from '../journal/take-back';
import { readEntry } from '../daybook/read-entry';
import { sum } from '../money/units';
import { asCorrected } from '../sale/corrections';
import type { SoldSale } from '../sale/return-figures';
import { arbitraryDaybook, DeviceWriter } from '../testing/arbitrary-daybook';
import { booksOf } from '../testing/books-of';
import { invoiceDrafts, INVOICING, saidOf } from '../testing/invoice-drafts';
import { START, tax } from '../testing/made-up-business';
import { ibanOf, ibanText, isIban } from './iban';
import { paidAlready, returnedFigures, saleFigures, type InvoiceFigures } from './invoice-figures';
import { gapsIn, numberText, seriesOf } from './invoice-number';
import { invoicePaper, invoiceText, type InvoiceDocument } from './invoice-paper';
import { ageOf, byAge, invoicesNow, toCredit, type InvoiceNow } from './invoice-state';
import {
  creditOwn,
  creditReturn,
  creditVoid,
  dueOn,
  invoiceOrder,
  invoiceOwn,
  invoiceSale,
  leftToCredit,
  readOff,
  type InvoiceOutcome,
} from './make-invoice';
import { ownFigures } from './own-lines';
import { invoicesNamed } from './named-invoices';
import { setInvoicing, typedInvoicing, type TypedInvoicing } from './set-invoicing';

const codeOf = (made: { ok: true } | { ok: false; refusal: { code: string } }): string =>
  made.ok ? 'ok' : made.refusal.code;

function draftsOf(made: InvoiceOutcome): readonly Draft[] {
  assert.ok(made.ok, codeOf(made));
  return made.drafts;
}

/** Every sale of some books that was not voided, as it stands and with what came back of it. */
function soldIn(books: Books): readonly SoldSale[] {
  const voided = new Set(books.rows('voids').map(({ sale }) => sale));
  return books
    .rows('sales')
    .filter(({ id }) => !voided.has(id))
    .map((sale) => ({
      ...asCorrected(
        {
          sale,
          lines: books.rows('saleLines').filter((line) => line.sale === sale.id),
          payments: sale.payments.flatMap((id) => books.row('payments', id) ?? []),
        },
        books.rows('corrections'),
      ),
      before: books.rows('returns').filter((each) => each.sale === sale.id),
    }));
}

const taxOf = ({ taxes }: InvoiceFigures, id: string): number =>
  sum(taxes.flatMap((each) => (each.id === id ? each.amount : [])));

describe('figures of an invoice', () => {
  it('are those of the sale: its goods, service and card price less what points paid, to the minor unit', () => {
    fc.assert(
      fc.property(arbitraryDaybook, (entries) => {
        for (const { before: _back, ...sold } of soldIn(booksOf(entries))) {
          const figures = saleFigures({ ...sold, before: [] });
          const { sale, lines, payments } = sold;
          const paidIn = sum(
            lines.flatMap(({ account, total }) => (account === null ? [] : total)),
          );
          const promoted = sum(payments.flatMap((part) => (lowersTaxes(part) ? part.charge : [])));
          assert.equal(figures.total, sale.total + sale.uplift - paidIn - promoted);
          for (const each of figures.lines)
            assert.equal(each.net + sum(Object.values(each.tax)), each.total);
          assert.equal(sum(figures.lines.map(({ total }) => total)), figures.total);
        }
      }),
    );
  });

  it('and what came back add up to those of the sale as it had been, tax by tax', () => {
    fc.assert(
      fc.property(arbitraryDaybook, (entries) => {
        for (const sold of soldIn(booksOf(entries))) {
          if (sold.before.length === 0) continue;
          const whole = saleFigures({ ...sold, before: [] });
          const left = saleFigures(sold);
          const back = sold.before.map((each) => returnedFigures(sold, each as Row<'returns'>));
          assert.equal(left.total + sum(back.map(({ total }) => total)), whole.total);
          for (const { id } of sold.sale.taxes)
            assert.equal(
              taxOf(left, id) + sum(back.map((each) => taxOf(each, id))),
              taxOf(whole, id),
            );
        }
      }),
    );
  });

  it('ask for what is owed on account, and for nothing that was paid otherwise', () => {
    const books = booksOf(
      writer().append(
        invoiceDrafts(writer(), { does: 'invoice', what: 'sale', n: 1, amount: 450 }, null, START),
        START,
      ),
    );
    const [sold] = soldIn(books);
    assert.equal(paidAlready(sold!, { total: 900 }), 0);
    const [invoice] = books.rows('invoices');
    assert.deepEqual([invoice!.total, invoice!.paid, invoice!.sourceIs], [900, 0, 'sale']);
    const paid = { ...sold!, payments: sold!.payments.map((part) => ({ ...part, held: null })) };
    assert.equal(paidAlready(paid, { total: 900 }), 900);
  });
});

const writer = (): DeviceWriter => new DeviceWriter(1);

const OWN = {
  ...{ currency: 'GBP', pricesIncludeTax: true, taxRounding: 'sale' as const, taxes: [tax] },
};
const TYPED = { name: 'Wreaths', quantity: '3', price: '12.50', taxes: [tax.id] };

describe('an invoice by hand', () => {
  it('comes to its lines, with the tax in the price or on it', () => {
    const read = ownFigures({ ...OWN, lines: [TYPED, { ...TYPED, name: '', price: '' }] });
    assert.ok(read.ok);
    assert.deepEqual(
      read.figures.lines.map(({ net, tax: of, total, quantity }) => [net, of, total, quantity]),
      [[3125, { [tax.id]: 625 }, 3750, 3000]],
    );
    const putAway = ownFigures({ ...OWN, lines: [{ ...TYPED, taxes: ['gone'] }] });
    assert.deepEqual(putAway.ok && putAway.figures.taxes, []);
    const onTop = ownFigures({ ...OWN, pricesIncludeTax: false, lines: [TYPED] });
    assert.equal(onTop.ok && onTop.figures.total, 4500);
  });

  it('is owed from then on, and credited in any parts it leaves nothing behind', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 99_999 }),
        fc.array(fc.integer({ min: 1, max: 3000 }), { minLength: 1, maxLength: 4 }),
        (price, parts) => {
          const by = writer();
          const { newId } = by;
          const lines = [{ ...TYPED, price: (price / 100).toFixed(2) }];
          const entries = [
            ...by.append(draftsOf(invoiceOwn({ ...saidOf(newId, 1), ...OWN, lines })), START),
          ];
          const [invoice] = booksOf(entries).rows('invoices');
          let left = 3000;
          for (const part of [...parts, 3000]) {
            const quantity = Math.min(left, part);
            if (quantity === 0) continue;
            const credits = booksOf(entries)
              .rows('invoices')
              .filter(({ credits: of }) => of !== null);
            const made = creditOwn({
              ...{ newId, invoice: invoice!, credits, today: '2026-11-23', reason: 'too many' },
              deposit: null,
              off: new Map([[0, quantity]]),
            });
            left -= quantity;
            // What a part comes to may be less than the smallest coin: then there is nothing to credit.
            if (codeOf(made) === 'invoice/nothing') {
              left += quantity;
              continue;
            }
            entries.push(...by.append(draftsOf(made), START));
          }
          const rest = booksOf(entries).rows('invoices');
          assert.equal(leftToCredit(invoice!, rest), 0);
          // Of what is worth less than the smallest coin some may stand there still.
          if (left > 0) return;
          const postings = entries.flatMap((entry) => {
            const read = readEntry(entry);
            assert.ok(read.ok);
            return journalOf(read.entry).postings;
          });
          assert.deepEqual([...netOf(postings).values()], []);
          assert.equal(
            sum(
              booksOf(entries)
                .rows('heldSums')
                .map(({ amount }) => amount),
            ),
            0,
          );
        },
      ),
    );
  });

  it('is one debt, whatever lines it has', () => {
    const by = writer();
    const books = booksOf(
      by.append(
        invoiceDrafts(by, { does: 'invoice', what: 'credit', n: 1, amount: 500 }, null, START),
        START,
      ),
    );
    const moves = books.rows('heldMoves');
    assert.deepEqual(moves.map(({ kind, docIs }) => [kind, docIs]).sort(), [
      ['invoice.credited', 'invoice'],
      ['invoice.made', 'invoice'],
    ]);
    assert.equal(
      sum(moves.map(({ amount }) => amount)),
      books.rows('heldSums').find(({ account }) => account.startsWith('customer:'))?.amount,
    );
  });

  it('says what is wrong, and where', () => {
    const said = (more: object, lines = [TYPED]): string =>
      codeOf(invoiceOwn({ ...saidOf(() => 'id', 1, more), ...OWN, lines }));
    assert.equal(said({ invoicing: null }), 'invoice/not-set-up');
    assert.equal(said({ customer: undefined }), 'invoice/no-customer');
    assert.equal(said({ customer: { id: 'x', isErased: true } }), 'invoice/no-customer');
    assert.equal(said({ due: '2026-11-21' }), 'invoice/due-before');
    assert.equal(said({ due: '30/11' }), 'invoice/day-wrong');
    const { buyer } = saidOf(() => 'id', 1);
    assert.equal(said({ buyer: { ...buyer, name: ' ' } }), 'invoice/no-name');
    assert.equal(said({ buyer: { ...buyer, country: 'XX' } }), 'invoice/country-wrong');
    assert.equal(said({ buyer: { ...buyer, email: 'wren' } }), 'invoice/email-wrong');
    const referred = (reference: string): unknown => {
      const more = { buyer: { ...buyer, reference } };
      const outcome = invoiceOwn({ ...saidOf(() => 'id', 1, more), ...OWN, lines: [TYPED] });
      assert.ok(outcome.ok);
      const [{ private: apart } = {}] = outcome.drafts;
      return (apart!.data as { buyer: { reference?: string } }).buyer.reference;
    };
    assert.deepEqual([' PO 4711 ', ' '].map(referred), ['PO 4711', undefined]);
    assert.equal(said({}, []), 'invoice/nothing');
    assert.equal(said({}, [{ ...TYPED, price: '0' }]), 'invoice/nothing');
    assert.equal(said({}, [{ ...TYPED, name: '' }]), 'invoice/line-no-name');
    assert.equal(said({}, [{ ...TYPED, quantity: '0' }]), 'invoice/line-quantity');
    assert.equal(said({}, [{ ...TYPED, quantity: '-1' }]), 'invoice/line-quantity');
    assert.equal(said({}, [{ ...TYPED, price: 'ten' }]), 'invoice/line-amount');
    const wrong = invoiceOwn({
      ...{ ...saidOf(() => 'id', 1), ...OWN },
      lines: [TYPED, { ...TYPED, quantity: 'x' }],
    });
    assert.ok(!wrong.ok);
    assert.deepEqual(wrong.refusal, {
      ...{ code: 'invoice/line-quantity', field: 'lines.1.quantity', line: 2, typed: 'x' },
    });
  });

  it('is not credited for more than it is, nor for nothing, nor without a reason', () => {
    const by = writer();
    const books = booksOf(
      by.append(draftsOf(invoiceOwn({ ...saidOf(by.newId, 1), ...OWN, lines: [TYPED] })), START),
    );
    const [invoice] = books.rows('invoices');
    const credit = (quantity: number, reason = 'too many'): string =>
      codeOf(
        creditOwn({
          ...{ newId: by.newId, invoice: invoice!, credits: [], today: '2026-11-23', reason },
          deposit: null,
          off: new Map(quantity === 0 ? [] : [[0, quantity]]),
        }),
      );
    assert.deepEqual(readOff(['2', '', '0', '1,5']), {
      ...{
        ok: true,
        off: new Map([
          [0, 2000],
          [3, 1500],
        ]),
      },
    });
    assert.equal(codeOf(readOff(['1', '-1'])), 'invoice/line-quantity');
    assert.equal(credit(3001), 'invoice/credit-more');
    assert.equal(credit(-1), 'invoice/credit-more');
    assert.equal(credit(0), 'invoice/nothing');
    assert.equal(credit(1000, ' '), 'invoice/no-reason');
  });
});

describe('an invoice of an order', () => {
  it('asks for so much in advance, untaxed, and for no more than is due', () => {
    const by = writer();
    const ask = (typed: string): InvoiceOutcome =>
      invoiceOrder({
        ...saidOf(by.newId, 1),
        ...{ order: { id: by.newId(), number: 'K1-2' }, says: 'In advance for K1-2', typed },
        ...{ currency: 'GBP', most: 2000 },
      });
    assert.equal(codeOf(ask('20.01')), 'invoice/more-than-due');
    const books = booksOf(by.append(draftsOf(ask('15')), START));
    const [invoice] = books.rows('invoices');
    assert.deepEqual([invoice!.total, invoice!.taxes, invoice!.sourceNumber], [1500, [], 'K1-2']);
    assert.deepEqual(
      books.rows('heldSums').map(({ account, amount }) => [account.split(':')[0], amount]),
      [
        ['customer', 1500],
        ['deposit', -1500],
      ],
    );
  });
});

describe('an invoice of a sale', () => {
  const by = writer();
  const books = booksOf(
    by.append(
      invoiceDrafts(by, { does: 'invoice', what: 'back', n: 1, amount: 451 }, null, START),
      START,
    ),
  );
  const [sold] = soldIn(books);
  const invoices = books.rows('invoices');
  const invoice = invoices.find(({ sort }) => sort === 'invoice')!;
  const credit = invoices.find(({ sort }) => sort === 'credit')!;

  it('is made once; once all of it is credited, again', () => {
    const again = (known: readonly Row<'invoices'>[], isVoid = false): string =>
      codeOf(invoiceSale({ ...saidOf(by.newId, 1), sold: sold!, isVoid, invoices: known }));
    assert.equal(again(invoices), 'invoice/again');
    assert.equal(again([invoice, { ...credit, total: invoice.total }]), 'ok');
    assert.equal(again([], true), 'invoice/voided');
  });

  it('is credited by what came back, once, and by its void for the rest', () => {
    const [back] = books.rows('returns');
    const about = { newId: by.newId, invoice, today: '2026-11-23', reason: 'wilted', sold: sold! };
    const once = creditReturn({ ...about, credits: [], back: back! });
    assert.ok(once.ok);
    assert.equal(credit.total, back!.total);
    assert.equal(
      codeOf(creditReturn({ ...about, credits: [credit], back: back! })),
      'invoice/again',
    );
    const rest = creditVoid({ ...about, credits: [credit] });
    assert.ok(rest.ok);
    const { total } = rest.drafts[0]!.body as { total: number };
    assert.equal(total + credit.total, invoice.total);
    assert.deepEqual(
      toCredit(invoice, [], [{ ...back!, at: `${invoice.at}~` }], true).map(({ is }) => is),
      ['return', 'void'],
    );
    assert.deepEqual(toCredit(invoice, [credit], [{ ...back!, at: `${invoice.at}~` }], false), []);
  });
});

const row = (id: string, more: Partial<Row<'invoices'>>): Row<'invoices'> => ({
  ...{ id, event: null, device: 'd', by: null, at: '2026-11-01T10:00:00.000Z', sort: 'invoice' },
  ...{ customer: 'c', credits: null, sourceIs: 'own', source: null, sourceNumber: '' },
  ...{ issued: '2026-11-01', due: '2026-11-15', vendor: INVOICING.vendor, foot: '', note: '' },
  ...{ lines: [], taxes: [], total: 1000, paid: 0, buyer: null, takes: null },
  ...more,
});
const move = (id: string, amount: number, more: Partial<HeldMove> = {}): HeldMove => ({
  ...{ id, account: 'customer:c', at: `2026-11-0${id.at(-1)!}T10:00:00.000Z`, amount },
  ...{ kind: 'invoice.made', sale: '', invoice: id, number: '', pays: null },
  ...more,
});

describe('how invoices stand', () => {
  const now = (moves: readonly HeldMove[], invoices: readonly Row<'invoices'>[], today: string) =>
    invoicesNow({
      ...{
        invoices,
        numbers: new Map([['i1', 'R1']]),
        moves,
        today,
        dayOf: (at) => at.slice(0, 10),
      },
      balances: new Map([['customer:c', sum(moves.map(({ amount }) => amount))]]),
    }).map(({ invoice, number, stands, left }) => [invoice.id, number, stands, left]);
  const invoices = [row('i1', {}), row('i2', { due: '2026-12-24' })];
  const owed = [move('i1', 1000), move('i2', 1000)];

  it('is paid the oldest first, unless one is chosen', () => {
    assert.deepEqual(now(owed, invoices, '2026-11-20'), [
      ['i2', '', 'to pay', 1000],
      ['i1', 'R1', 'overdue', 1000],
    ]);
    const paid = (amount: number, pays: string | null): HeldMove =>
      move('p3', -amount, { kind: 'sale.rung', invoice: '', sale: 'x', pays });
    assert.deepEqual(now([...owed, paid(1200, null)], invoices, '2026-11-10'), [
      ['i2', '', 'in part', 800],
      ['i1', 'R1', 'paid', 0],
    ]);
    assert.deepEqual(now([...owed, paid(1000, 'i2')], invoices, '2026-11-10'), [
      ['i2', '', 'paid', 0],
      ['i1', 'R1', 'to pay', 1000],
    ]);
  });

  it('follows its sale, asks for no more than was owed, and is done with once it is credited', () => {
    const ofSale = row('i1', { sourceIs: 'sale', source: 's', paid: 400, due: '2026-12-24' });
    const sale = move('s1', 600, { kind: 'payment.taken', sale: 's', invoice: '' });
    assert.deepEqual(now([sale], [ofSale], '2026-11-20'), [['i1', 'R1', 'to pay', 600]]);
    const credit = row('k', { sort: 'credit', credits: 'i1', total: 1000 });
    const off = move('k3', -1000, { kind: 'invoice.credited', invoice: 'i1' });
    assert.deepEqual(now([move('i1', 1000), off], [row('i1', {}), credit], '2026-11-20'), [
      ['k', '', 'credit note', 0],
      ['i1', 'R1', 'credited', 0],
    ]);
  });

  it('is not paid because a device has let go of what it moved', () => {
    const known = (moves: readonly HeldMove[], owes: number) =>
      invoicesNow({
        ...{ invoices, numbers: new Map(), moves, today: '2026-11-10' },
        ...{ balances: new Map([['customer:c', owes]]), dayOf: (at: string) => at.slice(0, 10) },
      }).map(({ invoice, left }) => [invoice.id, left]);
    assert.deepEqual(known([], 2000), [
      ['i2', 1000],
      ['i1', 1000],
    ]);
    // Something was paid as well that it does not know of: the oldest.
    assert.deepEqual(known([move('i2', 1000)], 1400), [
      ['i2', 1000],
      ['i1', 400],
    ]);
    assert.deepEqual(known([], 0), [
      ['i2', 0],
      ['i1', 0],
    ]);
  });

  it('is told by its age', () => {
    assert.deepEqual(
      ['2026-11-20', '2026-11-21', '2026-12-21', '2027-01-20', '2027-06-01'].map((today) =>
        ageOf('2026-11-20', today),
      ),
      ['not due', '1–30', '31–60', '61–90', 'over 90'],
    );
    const all = invoicesNow({
      ...{ invoices, numbers: new Map(), moves: owed, today: '2026-12-20' },
      ...{ balances: new Map([['customer:c', 2000]]), dayOf: (at: string) => at.slice(0, 10) },
    });
    assert.deepEqual(
      byAge(all, '2026-12-20').map(({ amount }) => amount),
      [1000, 0, 1000, 0, 0],
    );
  });

  it('is due by what was agreed with the customer, else as the business has it', () => {
    assert.equal(dueOn('2026-11-28', { terms: 30 }, INVOICING), '2026-12-28');
    assert.equal(dueOn('2026-11-28', { terms: 0 }, INVOICING), '2026-12-12');
  });
});

describe('numbers of invoices', () => {
  it('are of a series, by year if that is wanted', () => {
    const numbering = { series: 'R', isByYear: true, digits: 4 };
    assert.equal(numberText(numbering, '2026-11-28', 7), 'R2026-0007');
    assert.equal(numberText({ ...numbering, isByYear: false }, '2026-11-28', 12_345), 'R12345');
    assert.equal(seriesOf(numbering, '2027-01-01'), 'R2027-');
  });

  it('are named where one is missing', () => {
    const given = [1, 2, 5].map((n) => ({ series: 'R', n }));
    assert.deepEqual(gapsIn([...given, { series: 'S', n: 9 }]), [
      { series: 'R', n: 3 },
      { series: 'R', n: 4 },
    ]);
    assert.deepEqual(gapsIn([]), []);
  });
});

describe('how invoices are headed', () => {
  const typed: TypedInvoicing = {
    ...typedInvoicing(null, { name: 'Larkmoss Plants', country: 'GB' }),
    address: '2 Mill Lane',
  };
  it('is set up, and stands in the form as it was', () => {
    const made = setInvoicing(() => 'id', { ...typed, iban: 'gb33 bukb 2020 1555 5555 55' });
    assert.ok(made.ok);
    const body = made.drafts[0]!.body as unknown as typeof INVOICING;
    assert.equal(body.vendor.iban, 'GB33BUKB20201555555555');
    assert.equal(ibanText(body.vendor.iban), 'GB33 BUKB 2020 1555 5555 55');
    assert.equal(typedInvoicing(body, { name: '', country: '' }).address, '2 Mill Lane');
  });

  it('says what is wrong with it', () => {
    const wrong: readonly (readonly [keyof TypedInvoicing, string, string])[] = [
      ['name', ' ', 'invoicing/no-name'],
      ['address', '', 'invoicing/no-address'],
      ['country', 'Britain', 'invoicing/country-wrong'],
      ['email', 'hello', 'invoicing/email-wrong'],
      ['iban', 'GB33BUKB20201555555556', 'invoicing/iban-wrong'],
      ['bic', 'BUKB', 'invoicing/bic-wrong'],
      ['series', 'R 1', 'invoicing/series-wrong'],
      ['digits', '9', 'invoicing/whole-wrong'],
      ['first', '0', 'invoicing/whole-wrong'],
      ['terms', '400', 'invoicing/whole-wrong'],
    ];
    for (const [field, text, code] of wrong)
      assert.equal(codeOf(setInvoicing(() => 'id', { ...typed, [field]: text })), code, field);
  });

  it('finds a mistyped account by its figures', () => {
    assert.ok(isIban(ibanOf('GB33 BUKB 2020 1555 5555 55')));
    for (const number of ['GB33BUKB20201555555545', 'GB33', '', 'DE00000000000000000000'])
      assert.equal(isIban(number), false, number);
  });
});

describe('an invoice on paper', () => {
  const document: InvoiceDocument = {
    invoice: row('i1', {
      lines: [
        {
          ...{ name: 'Rosemary', detail: '9 cm', unit: '', quantity: 3000 },
          ...{ net: 1000, tax: { [tax.id]: 200 }, total: 1200 },
        },
      ],
      taxes: [{ id: tax.id, name: 'VAT', rate: '20', base: 1000, amount: 200 }],
      ...{ total: 1200, paid: 200, sourceIs: 'sale', sourceNumber: 'D1-4' },
    }),
    ...{ number: 'R2026-0007', vendor: INVOICING.vendor, currency: 'GBP', locale: 'en-GB' },
    buyer: { ...saidOf(() => '', 1).buyer, address: '3 Field Row\nOtterby' },
  };

  it('has lines without tax, what they come to, and where it is paid', () => {
    const paper = invoicePaper(document);
    assert.deepEqual(paper.rows, [['Rosemary, 9 cm', '3', '20 %', '10.00']]);
    assert.deepEqual(paper.sums, [
      ['Without tax', '£10.00'],
      ['VAT, 20 % of £10.00', '£2.00'],
      ['In all', '£12.00'],
      ['Paid already', '£2.00'],
      ['To pay', '£10.00'],
    ]);
    assert.match(paper.foot, /GB33 BUKB .*with R2026-0007/);
    const theirs = { ...document.buyer!, reference: 'PO 4711' };
    assert.deepEqual(invoicePaper({ ...document, buyer: theirs }).facts[1], [
      ...['Your reference', 'PO 4711'],
    ]);
    assert.doesNotMatch(JSON.stringify(paper), /reference/);
    const text = invoiceText(document);
    for (const part of ['Invoice R2026-0007', 'To: Wren, 3 Field Row, Otterby', 'Sale: D1-4'])
      assert.ok(text.includes(part), part);
  });

  it('says that its number follows, and nothing of whom it was to once they were forgotten', () => {
    const paper = invoicePaper({ ...document, number: '', buyer: null });
    assert.equal(paper.number, '(number follows)');
    assert.deepEqual(paper.facts[0], ['To', 'somebody who was forgotten']);
    assert.doesNotMatch(JSON.stringify(paper), /Wren|Field Row/);
  });
});

describe('invoices that the words of a transfer name', () => {
  const now = (number: string, left = 100) => ({ number, left }) as InvoiceNow;
  const named = (text: string, ...all: readonly InvoiceNow[]): readonly string[] =>
    invoicesNamed(text, all).map(({ number }) => number);

  it('are those whose number stands there, however it is written, and that are not paid', () => {
    const all = [now('R2026-0001'), now('R2026-0002'), now('R2026-0003', 0)];
    assert.deepEqual(named('Thanks! r2026 0002', ...all), ['R2026-0002']);
    assert.deepEqual(named('INVOICE R2026/0001, R2026.0002 AND R2026-0003', ...all), [
      ...['R2026-0001', 'R2026-0002'],
    ]);
    assert.deepEqual(named('2026', ...all), []);
    assert.deepEqual(named('', ...all), []);
  });

  it('are none whose number only begins like one that stands there, or that has hardly any', () => {
    assert.deepEqual(named('R2026-00012', now('R2026-0001')), []);
    assert.deepEqual(named('R2026-00012 R2026-0001', now('R2026-0001')), ['R2026-0001']);
    assert.deepEqual(named('no 7, thanks', now('7'), now('')), []);
    assert.deepEqual(named('INV12345', now('1234'), now('INV12345'), now('12345')), [
      ...['INV12345', '12345'],
    ]);
  });
});
