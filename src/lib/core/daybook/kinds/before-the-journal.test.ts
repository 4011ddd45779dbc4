/** Voids and reversals from before the journal add the same to every sum as those that carry postings. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Books } from '../../books/books';
import { changesOf } from '../../books/changes';
import { GONE_SOLD, UNLISTED, UPLIFT, type Row } from '../../books/tables';
import { journalOf } from '../../journal';
import { imbalance } from '../../journal/posting';
import { sumNames } from '../../journal/sums';
import { sum } from '../../money/units';
import { paidWith, takingsOfPart } from '../../payment/part-sums';
import { costOf } from '../../sale/cost';
import { DeviceWriter } from '../../testing/arbitrary-daybook';
import { EVENT, personId } from '../../testing/made-up-business';
import type { Draft } from '../chain';
import { readEntry } from '../read-entry';

const NOW = Date.UTC(2026, 10, 22, 9);
const SELLER = personId(1);

/** What the body of version 1 was made of. */
function oldVoid(books: Books, sale: Row<'sales'>): Record<string, unknown> {
  const lines = books.rows('saleLines').filter((line) => line.sale === sale.id);
  const parts = books.rows('payments').filter(({ id }) => sale.payments.includes(id));
  return {
    sale: sale.id,
    number: sale.number,
    reason: 'wrong customer',
    place: sale.place,
    day: sale.day,
    hour: sale.hour,
    units: sale.units,
    takings: sale.total + sale.uplift,
    tax: sale.tax,
    cost: sum(lines.map((line) => costOf(line) ?? 0)),
    items: [
      ...lines.map((line) => ({
        item: line.item ?? UNLISTED,
        quantity: line.quantity,
        takings: line.total,
        tax: sum(Object.values(line.tax)),
        isStocked: line.item !== null && line.isStocked,
      })),
      ...(sale.uplift === 0
        ? []
        : [
            {
              item: UPLIFT,
              quantity: 0,
              takings: sale.uplift,
              tax: sum(Object.values(sale.upliftTaxes).map(({ amount }) => amount)),
              isStocked: false,
            },
          ]),
    ],
    taxes: sale.taxes.map(({ id, rate, base, amount }) => {
      const above = sale.upliftTaxes[id] ?? { base: 0, amount: 0 };
      return { tax: id, rate, base: base + above.base, amount: amount + above.amount };
    }),
    parts: parts.map((part) => ({
      payment: part.id,
      way: part.way,
      drawer: part.drawer,
      seller: part.by,
      takings: takingsOfPart(part),
      surcharge: part.surcharge,
      tip: part.tip,
      amount: paidWith(part),
      isCard: part.card !== null,
    })),
  };
}

/** The sums of a daybook, without rows that came to nothing. */
function sumsOf(writer: DeviceWriter, books: Books, drafts: readonly Draft[]): unknown {
  for (const entry of writer.append(drafts, NOW, SELLER)) {
    const read = readEntry(entry);
    assert.ok(read.ok, JSON.stringify(read));
    assert.equal(imbalance(journalOf(read.entry).postings), null, entry.kind);
    books.apply(changesOf(read.entry));
  }
  return sumNames.map((name) =>
    books
      .rows(name)
      .filter((row) =>
        Object.values(row).some((value) => typeof value === 'number' && value !== 0),
      ),
  );
}

const what = { goods: 2, clears: 50, tip: 30, isGivenBack: false, isVoided: false } as const;

describe('an entry from before the journal', () => {
  it('voids a sale: every sum is as before it, but what went back out of the drawer', () => {
    const [writer, books] = [new DeviceWriter(1), new Books()];
    const first = sumsOf(writer, books, writer.sale([[1, 2]], 0, NOW));
    sumsOf(writer, books, writer.parts(what, NOW, SELLER));
    const sale = books.rows('sales').find(({ number }) => number === 'D1-2')!;
    const body = oldVoid(books, sale);
    const draft = { id: writer.newId(), kind: 'sale.voided', v: 1, event: EVENT, body };
    const after = sumsOf(writer, books, [draft]);
    const cash = books
      .rows('payments')
      .filter(({ slip, drawer }) => slip === sale.slip && drawer !== null);
    const back = sum(cash.map(paidWith));
    assert.ok(back > 0);
    assert.equal(books.rows('drawerSums')[0]?.back, back);
    const drawers = sumNames.indexOf('drawerSums');
    const but = (all: unknown): unknown[] => (all as unknown[]).filter((_, at) => at !== drawers);
    // Rows of hours keep their hour, which is a number.
    const hours = sumNames.indexOf('eventHours');
    assert.deepEqual(
      but(after)[hours < drawers ? hours : hours - 1],
      but(first)[hours < drawers ? hours : hours - 1],
    );
    assert.deepEqual(but(after), but(first));
    assert.equal(books.rows('stock').find(({ place }) => place === GONE_SOLD)?.quantity, 2000);
    // And taken back again, it is as if it had not been voided.
    const undone = { ...body, void: draft.id };
    sumsOf(writer, books, [
      { id: writer.newId(), kind: 'void.undone', v: 1, event: EVENT, body: undone },
    ]);
    assert.equal(books.rows('drawerSums')[0]?.back, 0);
    assert.equal(books.rows('eventTotals')[0]?.sales, 2);
  });

  it('gives a part back, with the tip of whoever took it, or of whoever wrote it', () => {
    for (const seller of [SELLER, undefined]) {
      const [writer, books] = [new DeviceWriter(1), new Books()];
      const [card] = writer.parts(what, NOW, SELLER);
      sumsOf(writer, books, [card!]);
      const [part] = books.rows('payments');
      const { id: payment, slip, way, drawer, clears, surcharge, tip } = part!;
      const body = {
        payment,
        slip,
        way,
        drawer,
        clears,
        takings: takingsOfPart({ ...part!, side: 'card' }),
        surcharge,
        tip,
        ...(seller === undefined ? {} : { seller }),
        amount: paidWith(part!),
        reason: 'left',
        isCard: false,
      };
      const draft = { id: writer.newId(), kind: 'payment.reversed', v: 2, event: EVENT, body };
      assert.deepEqual(
        sumsOf(writer, books, [draft]),
        sumNames.map(() => []),
      );
      assert.equal(books.rows('reversals')[0]?.amount, paidWith(part!));
    }
  });

  it('names what its sums do not account for, and is read all the same', () => {
    const [writer, books] = [new DeviceWriter(1), new Books()];
    sumsOf(writer, books, writer.sale([[1, 2]], 0, NOW));
    const old = oldVoid(books, books.rows('sales')[0]!);
    const body = { ...old, takings: 999 };
    const [entry] = writer.append(
      [{ id: writer.newId(), kind: 'sale.voided', v: 1, event: EVENT, body }],
      NOW,
    );
    const read = readEntry(entry!);
    assert.ok(read.ok);
    const { postings } = journalOf(read.entry);
    assert.equal(imbalance(postings), null);
    const open = postings.filter(({ account }) => account === 'unexplained');
    assert.deepEqual(
      open.map(({ amount }) => amount),
      [999 - Number(old['takings'])],
    );
  });

  it('is refused where its sums were never right', () => {
    const [writer, books] = [new DeviceWriter(1), new Books()];
    sumsOf(writer, books, writer.sale([[1, 2]], 0, NOW));
    const body = { ...oldVoid(books, books.rows('sales')[0]!), cost: 'much' };
    const draft = { id: writer.newId(), kind: 'sale.voided', v: 1, event: EVENT, body };
    const read = readEntry(writer.append([draft], NOW)[0]!);
    assert.equal(read.ok ? '' : read.fault.code, 'body/wrong');
  });
});
