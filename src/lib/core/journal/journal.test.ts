/** What every entry moves adds up to nothing, and every figure is a sum of it. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import { SUPPLIERS } from '../books/names';
import type { Entry } from '../daybook/entry';
import type { KnownEntry } from '../daybook/kinds';
import { readEntry } from '../daybook/read-entry';
import { expectedCash } from '../drawer/expected-cash';
import { asCorrected } from '../sale/corrections';
import { standingVoids } from '../loose-end/voided-twice';
import { sum } from '../money/units';
import { takingsOfPart } from '../payment/part-sums';
import { arbitraryDaybook } from '../testing/arbitrary-daybook';
import { isAccount } from './accounts';
import { journalOf } from './index';
import { imbalance } from './posting';
import { figuresOfEntry, figuresOfRows, salePostings } from './sale';
import { Trial } from './trial';

const known = (entries: readonly Entry[]): readonly KnownEntry[] =>
  entries.flatMap((entry) => {
    const read = readEntry(entry);
    return read.ok ? [read.entry] : [];
  });
const trialOf = (entries: readonly KnownEntry[]): Trial => {
  const trial = new Trial();
  for (const entry of entries) trial.add(journalOf(entry).postings);
  return trial;
};
const booksOf = (entries: readonly KnownEntry[]): Books => {
  const books = new Books();
  for (const entry of entries) books.apply(changesOf(entry));
  return books;
};
const holds = (property: (entries: readonly KnownEntry[]) => void): void =>
  fc.assert(fc.property(arbitraryDaybook, (entries) => property(known(entries))));

describe('the journal of any daybook', () => {
  it('moves nothing out of nothing: each entry adds up, and so does the trial balance', () => {
    holds((entries) => {
      for (const entry of entries) {
        const { postings } = journalOf(entry);
        assert.equal(imbalance(postings), null, entry.kind);
        for (const { account } of postings) assert.ok(isAccount(account), account);
      }
      const trial = trialOf(entries);
      assert.equal(trial.total, 0);
      assert.equal(trial.amount('unexplained'), 0);
    });
  });

  it('leaves nothing on a slip that was rung up and paid, and on others what is owed', () => {
    holds((entries) => {
      const [trial, books] = [trialOf(entries), booksOf(entries)];
      const off = standingVoids(books.rows('voids'), books.rows('voidsUndone'));
      const isOff = (sale: string): number => off.filter((each) => each.sale === sale).length;
      const sales = books.rows('sales');
      const back = books.rows('reversals');
      for (const slip of new Set([
        ...sales.map((sale) => sale.slip),
        ...books.rows('payments').map((part) => part.slip),
      ])) {
        const owed = sum(
          sales
            .filter((sale) => sale.slip === slip)
            .map(({ id, total, uplift }) => (total + uplift) * (1 - isOff(id))),
        );
        const paid = sum(
          books.rows('payments').map((part) => {
            if (part.slip !== slip) return 0;
            const voided = sum(
              sales.filter(({ payments }) => payments.includes(part.id)).map(({ id }) => isOff(id)),
            );
            const given = back.filter(({ payment }) => payment === part.id).length;
            const side = part.side;
            return takingsOfPart({ ...part, side }) * (1 - voided - given);
          }),
        );
        assert.equal(trial.amount(`slip:${slip}`), owed - paid);
        const isRungAndPaid = sales.some((sale) => sale.slip === slip) && owed === paid;
        if (isRungAndPaid) assert.equal(trial.amount(`slip:${slip}`), 0);
      }
    });
  });

  it('has in each drawer what the formula says, less what its reads took out', () => {
    holds((entries) => {
      const [trial, books] = [trialOf(entries), booksOf(entries)];
      const reads = books.rows('drawerReads');
      for (const drawer of books.rows('drawers')) {
        const should = expectedCash(drawer, books.row('drawerSums', drawer.id));
        const taken = sum(
          reads.filter((read) => read.drawer === drawer.id).map(({ expected }) => expected),
        );
        const late = books.row('drawerSums', drawer.id)?.late ?? 0;
        assert.equal(trial.amount(`drawer:${drawer.id}`), should - taken - late);
      }
    });
  });

  it('has at each place what was moved there, by sales and otherwise', () => {
    holds((entries) => {
      const [trial, books] = [trialOf(entries), booksOf(entries)];
      for (const { place, item, quantity } of books.rows('stock'))
        assert.equal(trial.quantity(`place:${place}`, item), quantity);
      const moved = new Map<string, number>();
      for (const { item, from, to, quantity } of books.rows('movements'))
        for (const [place, by] of [
          [from, -quantity],
          [to, quantity],
        ] as const)
          moved.set(`${place} ${item}`, (moved.get(`${place} ${item}`) ?? 0) + by);
      const voided = new Set(
        standingVoids(books.rows('voids'), books.rows('voidsUndone')).map(({ sale }) => sale),
      );
      const places = new Map(books.rows('sales').map((sale) => [sale.id, sale.place]));
      const allLines = books.rows('sales').flatMap(
        (sale) =>
          asCorrected(
            {
              sale,
              lines: books.rows('saleLines').filter((line) => line.sale === sale.id),
              payments: [],
            },
            books.rows('corrections'),
          ).lines,
      );
      for (const line of allLines) {
        if (!line.isStocked || line.item === null || voided.has(line.sale)) continue;
        const at = `${places.get(line.sale)!} ${line.item}`;
        moved.set(at, (moved.get(at) ?? 0) - line.quantity);
      }
      for (const { sale, place, lines } of books.rows('returns'))
        for (const { line, quantity } of lines) {
          const of = allLines.find((each) => each.sale === sale && each.line === line);
          if (of === undefined || !of.isStocked || of.item === null) continue;
          moved.set(`${place} ${of.item}`, (moved.get(`${place} ${of.item}`) ?? 0) + quantity);
        }
      for (const { place, lines } of books.rows('refunds'))
        for (const { item, quantity, isStocked } of lines)
          if (item !== null && isStocked)
            moved.set(`${place} ${item}`, (moved.get(`${place} ${item}`) ?? 0) + quantity);
      for (const { place, item, counted, expected } of books.rows('countsAccepted'))
        moved.set(`${place} ${item}`, (moved.get(`${place} ${item}`) ?? 0) + counted - expected);
      for (const [at, quantity] of moved) {
        const [place, item] = at.split(' ') as [string, string];
        if (place !== 'gone:counted')
          assert.equal(trial.quantity(`place:${place}`, item), quantity, at);
      }
    });
  });

  it('has at each place of one’s own the sum of what the moves say, each with its document', () => {
    holds((entries) => {
      const books = booksOf(entries);
      const moved = new Map<string, number>();
      for (const { place, item, quantity, doc, stamp } of books.rows('moves')) {
        assert.ok(doc !== '' && stamp !== '');
        moved.set(`${place} ${item}`, (moved.get(`${place} ${item}`) ?? 0) + quantity);
      }
      for (const { place, item, quantity } of books.rows('stock'))
        if (place !== SUPPLIERS && !place.startsWith('gone:'))
          assert.equal(moved.get(`${place} ${item}`) ?? 0, quantity);
    });
  });

  it('has on each account that somebody holds what its moves say, of parts, lines and what was moved', () => {
    holds((entries) => {
      const [trial, books] = [trialOf(entries), booksOf(entries)];
      const moved = new Map<string, number>();
      const move = (account: string, amount: number): void => {
        moved.set(account, (moved.get(account) ?? 0) + amount);
      };
      for (const { account, amount } of books.rows('heldMoves'))
        if (!account.startsWith('points:')) move(account, amount);
      for (const { account, amount } of books.rows('heldSums')) {
        assert.equal(moved.get(account) ?? 0, amount);
        assert.equal(trial.amount(account), amount);
      }
      // The same from the documents: no voucher, credit or debt is made or lost.
      const voided = new Set(
        standingVoids(books.rows('voids'), books.rows('voidsUndone')).map(({ sale }) => sale),
      );
      const said = new Map<string, number>();
      const say = (account: string, amount: number): void => {
        said.set(account, (said.get(account) ?? 0) + amount);
      };
      for (const { account, sale, total } of books.rows('saleLines'))
        if (account !== null && !voided.has(sale)) say(account, -total);
      const gone = new Set(
        books.rows('sales').flatMap(({ id, payments }) => (voided.has(id) ? payments : [])),
      );
      for (const { id, held, charge } of books.rows('payments'))
        if (held != null && !gone.has(id)) say(held.account, charge);
      for (const { kind, body } of entries) {
        if (kind === 'voucher.lapsed') say(`voucher:${body.number}`, body.amount);
        if (kind === 'charge.paid') say(`customer:${body.customer}`, -body.amount);
        if (kind === 'order.paid') say(`deposit:${body.order}`, -body.amount);
        if (kind === 'invoice.made' && body.of.is !== 'sale') {
          say(`customer:${body.customer}`, body.total);
          if (body.of.is === 'order') say(`deposit:${body.of.order}`, -body.total);
        }
        if (kind === 'invoice.credited' && body.of.is === 'own')
          say(`customer:${body.customer}`, -body.total);
        if (kind !== 'held.moved') continue;
        say(body.from, body.amount);
        say(body.to, -body.amount);
      }
      for (const account of new Set([...said.keys(), ...moved.keys()]))
        assert.equal(moved.get(account) ?? 0, said.get(account) ?? 0, account);
    });
  });

  it('has of each customer’s points what sales brought and points paid, and has given as many', () => {
    holds((entries) => {
      const [trial, books] = [trialOf(entries), booksOf(entries)];
      const moved = new Map<string, number>();
      for (const { account, amount } of books.rows('heldMoves'))
        if (account.startsWith('points:')) moved.set(account, (moved.get(account) ?? 0) - amount);
      let all = 0;
      for (const { account, item, quantity } of books.rows('pointSums')) {
        assert.equal(trial.quantity(account, item), quantity);
        if (item !== 'points') continue;
        all += quantity;
        if (account !== 'points:given') assert.equal(moved.get(account) ?? 0, quantity);
      }
      assert.equal(all, 0);
      // The same from the documents: no point is made or lost.
      const voided = new Set(
        standingVoids(books.rows('voids'), books.rows('voidsUndone')).map(({ sale }) => sale),
      );
      const said = new Map<string, number>();
      const say = (customer: string | null, points: number): void => {
        const account = `points:${customer ?? 'nobody'}`;
        said.set(account, (said.get(account) ?? 0) + points);
      };
      const sales = new Map(books.rows('sales').map((sale) => [sale.id, sale]));
      for (const { sale, points } of books.rows('saleLines'))
        if (points !== 0 && !voided.has(sale)) say(sales.get(sale)?.customer ?? null, points);
      const gone = new Set(
        [...sales.values()].flatMap(({ id, payments }) => (voided.has(id) ? payments : [])),
      );
      for (const { id, promotion, customer } of books.rows('payments'))
        if (promotion?.of === 'points' && !gone.has(id)) say(customer, -promotion.taken);
      for (const { takes, promotions, sale } of books.rows('returns'))
        for (const { item, quantity = 0, account } of [
          ...takes,
          ...promotions.flatMap(({ postings }) => postings),
        ])
          if (item === 'points' && account !== 'points:given')
            say(sales.get(sale)?.customer ?? null, quantity);
      for (const { kind, body } of entries)
        if (kind === 'points.moved' && body.of === 'points') say(body.customer, body.quantity);
      for (const account of new Set([...said.keys(), ...moved.keys()]))
        assert.equal(moved.get(account) ?? 0, said.get(account) ?? 0, account);
    });
  });

  it('has handed over of each line of an order what sales that stand say', () => {
    holds((entries) => {
      const books = booksOf(entries);
      const voided = new Set(
        standingVoids(books.rows('voids'), books.rows('voidsUndone')).map(({ sale }) => sale),
      );
      const handed = new Map<string, number>();
      for (const { ordered, sale, quantity } of books.rows('saleLines')) {
        if (ordered === null || voided.has(sale)) continue;
        const key = `${ordered.order} ${ordered.line}`;
        handed.set(key, (handed.get(key) ?? 0) + quantity);
      }
      for (const row of books.rows('orderSums'))
        assert.equal(row.handed, handed.get(`${row.order} ${row.line}`) ?? 0);
      for (const [key, much] of handed) {
        const [order = '', line = ''] = key.split(' ');
        assert.equal(books.row('orderSums', `${order} ${line}`)?.handed, much);
      }
    });
  });

  it('is the same in any order', () => {
    fc.assert(
      fc.property(arbitraryDaybook, fc.infiniteStream(fc.nat()), (all, order) => {
        const entries = known(all);
        const shuffled = entries
          .map((entry) => ({ entry, at: order.next().value as number }))
          .sort((a, b) => a.at - b.at)
          .map(({ entry }) => entry);
        assert.deepEqual(trialOf(shuffled).balances(), trialOf(entries).balances());
      }),
    );
  });

  it('has of a sale what its rows have', () => {
    holds((entries) => {
      const books = booksOf(entries);
      for (const entry of entries) {
        if (entry.kind !== 'sale.rung') continue;
        const lines = books.rows('saleLines').filter((line) => line.sale === entry.id);
        assert.deepEqual(
          salePostings(figuresOfRows(books.row('sales', entry.id)!, lines)),
          salePostings(figuresOfEntry(entry.body)),
        );
      }
    });
  });
});
