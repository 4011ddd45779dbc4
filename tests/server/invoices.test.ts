/** Invoices on the server: only of what the books have, each asked for once, numbered without a gap, and sent as they are. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { XMLParser } from 'fast-xml-parser';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft, privateDraft } from '../../src/lib/core/daybook/kinds';
import type { Row } from '../../src/lib/core/books/tables';
import { eraseCustomer } from '../../src/lib/core/customer/set-customer';
import {
  creditOwn,
  creditReturn,
  invoiceOrder,
  invoiceOwn,
  invoiceSale,
  type InvoiceOutcome,
} from '../../src/lib/core/invoice/make-invoice';
import type { SoldSale } from '../../src/lib/core/sale/return-figures';
import { makeReturn } from '../../src/lib/core/sale/make-return';
import { takePart } from '../../src/lib/core/sale/take-part';
import { voidSale } from '../../src/lib/core/sale/void-sale';
import { emptySlip, putItem, putPaidIn, type OpenSlip } from '../../src/lib/core/slip/open-slip';
import { AT_EVENT, PRICING, VAT } from '../../src/lib/core/testing/a-sale';
import { heldWay } from '../../src/lib/core/testing/held-drafts';
import { INVOICING, saidOf } from '../../src/lib/core/testing/invoice-drafts';
import {
  BUSINESS,
  customerId,
  DRAWER,
  EVENT,
  item,
} from '../../src/lib/core/testing/made-up-business';
import { orderDrafts, orderId } from '../../src/lib/core/testing/order-drafts';
import { CASH_WAY, type WayToPay } from '../../src/lib/core/payment/ways';
import { FIRST_WORDS } from '../../src/lib/core/invoice/reminders';
import { heldMovesOf } from '../../src/lib/server/books/held-moves';
import { rebuild } from '../../src/lib/server/daybook/rebuild';
import { numberInvoice } from '../../src/lib/server/invoices/number-invoice';
import { sendReceipts } from '../../src/lib/server/receipts/send-receipts';
import { HELPER, NOW, OWNER, Pushing } from '../support/pushing';
import { SentMail } from '../support/sent-mail';

const desk = new Pushing();
const { push, newId, writers } = desk;
const ACCOUNT = heldWay('customer');

before(async () => {
  await desk.begin([
    draft('business.invoicing', newId(), null, INVOICING),
    desk.way(ACCOUNT),
    ...Array.from({ length: 9 }, (_, n) => desk.customer(n + 1, { creditLimit: null })),
  ]);
  await desk.ownerReadsMail();
});
after(() => desk.t.end());

const NEXT = [0, 0];
/** Two of the goods for somebody, rung up. */
async function sell(
  n: number,
  way: WayToPay,
  slip: OpenSlip = emptySlip(newId()),
  device = 1,
): Promise<string> {
  const put =
    slip.lines.length > 0
      ? ({ ok: true, slip } as const)
      : putItem(slip, item(1, 450), 2000, newId());
  assert.ok(put.ok);
  const taken = takePart({
    ...{ newId: writers[device - 1]!.newId, pricing: PRICING, taxes: [VAT], event: AT_EVENT },
    slip: { ...put.slip, customer: { id: customerId(n), name: 'Wren', discount: '0' } },
    ...{ now: NOW, drawer: DRAWER, amount: null, business: BUSINESS, way },
    held: { balance: 0, sold: [], state: undefined, creditLimit: null },
    ...{ deviceNumber: device, number: (NEXT[device - 1]! += 1) },
  });
  assert.ok(taken.ok, JSON.stringify(taken));
  assert.deepEqual(await push(taken.drafts, HELPER, device), []);
  return taken.drafts.find(({ kind }) => kind === 'sale.rung')!.id;
}

async function soldOf(id: string): Promise<SoldSale> {
  const [sale] = await desk.books.rows(BUSINESS, 'sales', { id });
  return {
    sale: sale!,
    lines: await desk.books.rows(BUSINESS, 'saleLines', { sale: id }),
    payments: await desk.books.rows(BUSINESS, 'payments', { id: [...sale!.payments] }),
    before: await desk.books.rows(BUSINESS, 'returns', { sale: id }),
  };
}

const drafts = (made: InvoiceOutcome): readonly Draft[] => {
  assert.ok(made.ok, JSON.stringify(made));
  return made.drafts;
};
const ofSale = async (id: string, n: number, device = 1): Promise<readonly Draft[]> =>
  drafts(
    invoiceSale({
      ...saidOf(writers[device - 1]!.newId, n),
      ...{ sold: await soldOf(id), isVoid: false, invoices: [] },
    }),
  );
const byHand = (n: number, device = 1): readonly Draft[] =>
  drafts(
    invoiceOwn({
      ...saidOf(writers[device - 1]!.newId, n, { note: 'For Wren’s birthday' }),
      lines: [{ name: 'Wreaths', quantity: '2', price: '12.00', taxes: [VAT.id] }],
      ...{ currency: 'GBP', pricesIncludeTax: true, taxRounding: 'sale', taxes: [VAT] },
    }),
  );
const changed = ([first]: readonly Draft[], body: object): readonly Draft[] => [
  { ...first!, id: newId(), body: { ...(first!.body as object), ...body } },
];
const invoiceRow = async (id: string): Promise<Row<'invoices'> | undefined> =>
  (await desk.books.rows(BUSINESS, 'invoices', { id }))[0];
const owes = async (n: number): Promise<number> => {
  const account = `customer:${customerId(n)}`;
  return (await heldMovesOf(desk.books, BUSINESS, [account])).balances[0]!;
};
const numberOf = async (invoice: string): Promise<string | null> =>
  (await numberInvoice(desk.t.database, desk.books, BUSINESS, invoice))?.number ?? null;

describe('an invoice of a sale on the server', () => {
  it('stands where its figures are those of the books, moves nothing, and is asked for once', async () => {
    const sale = await sell(1, ACCOUNT);
    const made = await ofSale(sale, 1);
    assert.deepEqual(await push(made, HELPER), []);
    assert.equal(await owes(1), 900);
    const row = await invoiceRow(made[0]!.id);
    assert.deepEqual([row?.total, row?.paid, row?.buyer?.name], [900, 0, 'Wren']);
    // A second device out of touch did the same.
    assert.deepEqual(await push(await ofSale(sale, 1, 2), HELPER, 2), ['invoice/again']);
    assert.equal((await desk.books.rows(BUSINESS, 'invoices', { source: sale })).length, 1);
  });

  it('is left out with other figures, another customer, another account to pay to, or another day', async () => {
    const sale = await sell(2, CASH_WAY);
    const made = await ofSale(sale, 2);
    const { body } = made[0]! as unknown as { body: { vendor: object; lines: object[] } };
    assert.deepEqual(await push(changed(made, { paid: 0 }), HELPER), ['invoice/figures']);
    assert.deepEqual(await push(changed(made, { customer: customerId(3) })), ['invoice/customer']);
    const vendor = { ...body.vendor, iban: 'DE89370400440532013000' };
    assert.deepEqual(await push(changed(made, { vendor })), ['invoice/vendor']);
    assert.deepEqual(await push(changed(made, { issued: '2026-11-01' })), ['invoice/day']);
    const number = { is: 'sale', sale, number: 'D1-99' };
    assert.deepEqual(await push(changed(made, { of: number }), HELPER), ['invoice/figures']);
    const lines = [{ ...body.lines[0]!, quantity: 1000 }];
    assert.deepEqual(await push(changed(made, { lines })), ['invoice/figures']);
    const gone = { is: 'sale', sale: newId(), number: 'D1-99' };
    assert.deepEqual(await push(changed(made, { of: gone })), ['invoice/unknown']);
    assert.deepEqual(await push(made, HELPER), []);
    assert.equal((await invoiceRow(made[0]!.id))?.paid, 900);
  });

  it('is credited by what came back, once, and no more than is left of it', async () => {
    const sale = await sell(3, ACCOUNT);
    const made = await ofSale(sale, 3);
    assert.deepEqual(await push(made), []);
    const sold = await soldOf(sale);
    const back = makeReturn({
      ...{ newId, ...sold, before: [], voids: [], undone: [], card: null, refunds: [] },
      payments: await desk.books.rows(BUSINESS, 'payments', { id: [...sold.sale.payments] }),
      ...{ chosen: [{ line: 0, typed: '1', to: 'stock' as const }], reason: 'wilted' },
      ...{ way: ACCOUNT.id, account: `customer:${customerId(3)}` as const, drawer: null },
      ...{ cashStep: 1, currency: 'GBP', deviceNumber: 1, number: 1, event: EVENT },
      ...{ place: EVENT, day: '2026-11-22', hour: 10 },
    });
    assert.ok(back.ok, JSON.stringify(back));
    assert.deepEqual(await push(back.drafts), []);
    assert.equal(await owes(3), 450);
    const [row] = await desk.books.rows(BUSINESS, 'returns', { sale });
    const credit = drafts(
      creditReturn({
        ...{ newId, invoice: (await invoiceRow(made[0]!.id))!, credits: [], today: '2026-11-22' },
        ...{ reason: 'wilted', sold, back: row! },
      }),
    );
    assert.deepEqual(await push(credit), []);
    assert.equal(await owes(3), 450);
    assert.deepEqual(await push(changed(credit, {})), ['invoice/again']);
  });

  it('is left out once its sale was voided', async () => {
    const sale = await sell(4, CASH_WAY);
    const made = await ofSale(sale, 4);
    const sold = await soldOf(sale);
    const voided = voidSale({
      ...{ newId, sale: sold.sale, lines: sold.lines, voids: [], returns: [] },
      payments: await desk.books.rows(BUSINESS, 'payments', { id: [...sold.sale.payments] }),
      ...{ reason: 'mistaken', event: EVENT, openDrawers: [DRAWER] },
    });
    assert.ok(voided.ok, JSON.stringify(voided));
    assert.deepEqual(await push(voided.drafts), []);
    assert.deepEqual(await push(made), ['invoice/voided']);
  });
});

describe('an invoice by hand on the server', () => {
  it('is owed, by right alone, and taxed as was set up', async () => {
    assert.deepEqual(await push(byHand(5), HELPER), ['right/missing']);
    assert.equal(await owes(5), 0);
    const made = byHand(5);
    const { lines, taxes } = made[0]!.body as { lines: { tax: object }[]; taxes: object[] };
    const less = { [VAT.id]: 1 };
    const wrong = changed(made, {
      lines: [{ ...lines[0]!, tax: less, net: 2399 }],
      taxes: [{ ...taxes[0]!, base: 2399, amount: 1 }],
    });
    assert.deepEqual(await push(wrong), ['invoice/figures']);
    const rate = changed(made, { taxes: [{ ...taxes[0]!, rate: '1' }] });
    assert.deepEqual(await push(rate), ['invoice/tax']);
    assert.deepEqual(await push(made), []);
    assert.equal(await owes(5), 2400);
  });

  it('is paid as itself, and credited in part by its own postings', async () => {
    const made = byHand(6);
    assert.deepEqual(await push(made), []);
    const paid = putPaidIn(
      emptySlip(newId()),
      {
        ...{ account: `customer:${customerId(6)}`, name: 'On account', detail: '', amount: 1000 },
        pays: made[0]!.id,
      },
      'in',
    );
    assert.ok(paid.ok);
    await sell(6, CASH_WAY, paid.slip);
    assert.equal(await owes(6), 1400);
    const invoice = (await invoiceRow(made[0]!.id))!;
    const credit = drafts(
      creditOwn({
        ...{ newId, invoice, credits: [], today: '2026-11-22', reason: 'one too many' },
        deposit: null,
        off: new Map([[0, 1000]]),
      }),
    );
    assert.deepEqual(await push(credit, HELPER), ['right/missing']);
    const others = changed(credit, { customer: customerId(7) });
    assert.deepEqual(await push(others), ['invoice/customer']);
    assert.deepEqual(await push([{ ...credit[0]!, id: newId() }]), []);
    assert.equal(await owes(6), 200);
    // The other one as well, and then there is none left.
    assert.deepEqual(await push(changed(credit, {})), []);
    assert.equal(await owes(6), -1000);
    assert.deepEqual(await push(changed(credit, {})), ['invoice/credit-more']);
    // Somebody else's debt is not paid by it.
    const theirs = putPaidIn(
      emptySlip(newId()),
      {
        ...{ account: `customer:${customerId(7)}`, name: 'On account', detail: '', amount: 100 },
        pays: made[0]!.id,
      },
      'in',
    );
    assert.ok(theirs.ok);
    await assert.rejects(() => sell(7, CASH_WAY, theirs.slip), /sale\/paid-in/);
  });
});

describe('an invoice of an order on the server', () => {
  it('asks for no more in advance than the order comes to, all of them together', async () => {
    const agreed = orderDrafts(
      writers[0]!,
      { does: 'order', what: 'agree', n: 1, quantity: 1 },
      null,
      NOW,
    );
    const goods = changed(agreed, {
      lines: [
        {
          ...(agreed[0]!.body as { lines: object[] }).lines[0]!,
          ...{ quantity: 2000, price: 450, gross: 900, discount: 0, total: 900 },
          ...{ cost: item(1, 450).cost, isStocked: item(1, 450).isStocked, taxes: [VAT.id] },
        },
      ],
    });
    assert.deepEqual(await push(goods), []);
    const ask = (typed: string): readonly Draft[] =>
      drafts(
        invoiceOrder({
          ...saidOf(newId, 1),
          ...{ order: { id: orderId(1), number: 'K1-1' }, says: 'In advance', typed },
          ...{ currency: 'GBP', most: 10_000 },
        }),
      );
    assert.deepEqual(await push(ask('5.00')), []);
    assert.deepEqual(await push(ask('4.01')), ['invoice/figures']);
    assert.deepEqual(await push(ask('4.00')), []);
    const other = changed(ask('1'), { customer: customerId(2) });
    assert.deepEqual(await push(other), ['invoice/customer']);
  });
});

describe('numbers of invoices', () => {
  it('follow each other without a gap, however many ask at once, and stay once they are given', async () => {
    const made = [...byHand(8), ...byHand(8), ...byHand(8)];
    assert.deepEqual(await push(made), []);
    assert.equal(await numberOf(newId()), null);
    const ids = made.map(({ id }) => id);
    const given = await Promise.all([...ids, ...ids].map(numberOf));
    assert.deepEqual(given.slice(0, 3), given.slice(3));
    const figures = given.slice(0, 3).map((number) => Number(number!.slice(-4)));
    figures.sort((a, b) => a - b);
    assert.deepEqual(figures, [1, 2, 3]);
    const sealed = (await numberInvoice(desk.t.database, desk.books, BUSINESS, ids[0]!))!;
    const said = (invoice: string, more: Partial<typeof sealed> = {}): Draft =>
      draft('invoice.numbered', newId(), null, { invoice, ...sealed, ...more });
    assert.deepEqual(await push([said(ids[0]!)], null), []);
    // Another's number, another number, and one that nobody gave.
    assert.deepEqual(await push([said(ids[1]!)], null), ['invoice/number']);
    assert.deepEqual(await push([said(ids[0]!, { n: 99 })], null), ['invoice/number']);
    const unnumbered = byHand(8);
    assert.deepEqual(await push(unnumbered), []);
    const forged = said(unnumbered[0]!.id, { n: 99, number: 'R2026-0099' });
    assert.deepEqual(await push([forged], null), ['invoice/number']);
    assert.deepEqual(await push([said(newId())], null), ['invoice/unknown']);
    assert.equal(await numberOf(unnumbered[0]!.id), 'R2026-0004');
    await rebuild(desk.t.database, BUSINESS);
    const [row] = await desk.books.rows(BUSINESS, 'invoiceNumbers', { id: ids[0]! });
    assert.equal(row?.number, given[0]);
    assert.equal(await numberOf(ids[0]!), given[0]);
  });

  it('come back with a device after the server was set back, and are given to nobody else', async () => {
    const { database } = desk.t;
    const [made, other] = [byHand(9), byHand(9)];
    assert.deepEqual(await push([...made, ...other]), []);
    const invoice = made[0]!.id;
    const given = (await numberInvoice(database, desk.books, BUSINESS, invoice))!;
    assert.equal(given.number, 'R2026-0005');
    const forget = async (): Promise<void> =>
      void (await database.sequelize.query('DELETE FROM invoice_numbers WHERE n >= 5'));
    await forget();
    const again = draft('invoice.numbered', newId(), null, { invoice, ...given });
    assert.deepEqual(await push([again], null), []);
    assert.equal(await numberOf(other[0]!.id), 'R2026-0006');
    assert.equal(await numberOf(invoice), 'R2026-0005');
    // Where somebody else has it by then, that is said.
    await forget();
    assert.equal(await numberOf(other[0]!.id), 'R2026-0005');
    const late = draft('invoice.numbered', newId(), null, { invoice, ...given });
    assert.deepEqual(await push([late], null), ['invoice/number']);
  });
});

describe('a reminder', () => {
  it('is worded as the vendor has it, sent once for each step and not too early, and to nobody who has paid', async () => {
    const { database } = desk.t;
    const steps = FIRST_WORDS.map((step) => ({ ...step }));
    assert.deepEqual(await push([draft('business.reminders', newId(), null, { steps })]), []);
    const later = NOW + 40 * 86_400_000;
    const [made, paidFor] = [byHand(4), byHand(4)];
    assert.deepEqual(await push([...made, ...paidFor]), []);
    for (const { id: invoice } of [...made, ...paidFor]) {
      const given = (await numberInvoice(database, desk.books, BUSINESS, invoice))!;
      const noted = draft('invoice.numbered', newId(), null, { invoice, ...given });
      assert.deepEqual(await push([noted], null), []);
    }
    const ask = ({ id: invoice }: Draft, more: object = {}): Draft =>
      privateDraft(
        'reminder.asked',
        newId(),
        { invoice, customer: customerId(4), step: 0, ...steps[0]!, ...more },
        'sixteen-letters-',
        { to: 'wren@example.org' },
      );
    const [first] = made;
    assert.deepEqual(await push([ask(first!)], HELPER, 1, later), ['right/missing']);
    assert.deepEqual(await push([ask(first!)], OWNER, 1, NOW), ['reminder/early']);
    const threat = ask(first!, { text: 'Pay to another account' });
    assert.deepEqual(await push([threat], OWNER, 1, later), ['reminder/words']);
    assert.deepEqual(await push([ask(first!)], OWNER, 1, later), []);
    assert.deepEqual(await push([ask(first!)], OWNER, 1, later), ['reminder/again']);
    // The other one is paid before its letter goes out.
    assert.deepEqual(await push([ask(paidFor[0]!)], OWNER, 1, later), []);
    const paid = putPaidIn(
      emptySlip(newId()),
      {
        ...{ account: `customer:${customerId(4)}`, name: 'On account', detail: '', amount: 2400 },
        pays: paidFor[0]!.id,
      },
      'in',
    );
    assert.ok(paid.ok);
    await sell(4, CASH_WAY, paid.slip);
    const { sent, mailer } = new SentMail();
    await sendReceipts(database, desk.books, { mailer, texts: null }, later);
    assert.equal(sent.length, 1);
    assert.match(sent[0]!.subject, /^Invoice R2026-\d{4}$/);
    assert.match(
      sent[0]!.text,
      /you may have missed that £24\.00 of invoice R2026-\d{4} was due on/,
    );
    assert.match(sent[0]!.text, /To pay: £24\.00/);
    assert.equal(sent[0]!.attachments?.length, 2);
  });
});

describe('an invoice that is mailed', () => {
  it('waits for its number, is sent once with its PDF and UBL, and to nobody who was forgotten', async () => {
    const { database } = desk.t;
    const { sent, mailer } = new SentMail();
    const send = async (at: number): Promise<void> =>
      void (await sendReceipts(database, desk.books, { mailer, texts: null }, at));
    const made = byHand(8);
    assert.deepEqual(await push(made), []);
    const invoice = made[0]!.id;
    const ask = (customer: string): Draft =>
      privateDraft('invoice.asked', newId(), { invoice, customer }, 'sixteen-letters-', {
        to: 'wren@example.org',
      });
    assert.deepEqual(await push([ask(customerId(7))]), ['invoice/unknown']);
    assert.deepEqual(await push([ask(customerId(8))]), []);
    // However long its number takes, no try is lost.
    for (let minute = 0; minute < 35; minute += 1) await send(NOW + minute * 61_000);
    assert.equal(sent.length, 0);
    const number = await numberOf(invoice);
    const given = (await numberInvoice(database, desk.books, BUSINESS, invoice))!;
    assert.deepEqual(
      await push([draft('invoice.numbered', newId(), null, { invoice, ...given })], null),
      [],
    );
    await send(NOW + 3_600_000);
    await send(NOW + 3_700_000);
    assert.equal(sent.length, 1);
    const [mail] = sent;
    assert.match(mail!.subject, new RegExp(`Invoice ${number!} from Larkmoss`));
    assert.match(mail!.text, /To pay: £24\.00/);
    const [pdf, ubl] = mail!.attachments!;
    assert.equal((pdf!.content as Buffer).subarray(0, 5).toString(), '%PDF-');
    const parsed = new XMLParser().parse(String(ubl!.content)) as { Invoice: { 'cbc:ID': string } };
    assert.equal(parsed.Invoice['cbc:ID'], number);

    assert.deepEqual(await push([ask(customerId(8))]), []);
    const erased = eraseCustomer(newId, [customerId(8)]);
    assert.deepEqual(await push(erased.ok ? erased.drafts : []), []);
    const forgotten = await invoiceRow(invoice);
    assert.deepEqual([forgotten?.buyer, forgotten?.note], [null, '']);
    await send(NOW + 3_800_000);
    assert.equal(sent.length, 1);
    const [kept] = (await database.sequelize.query(
      "SELECT entry FROM daybook_entries WHERE kind = 'invoice.made' AND id = ?",
      { replacements: [invoice] },
    )) as unknown as [{ entry: string }[]];
    assert.doesNotMatch(kept[0]!.entry, /Wren/);
  });
});
