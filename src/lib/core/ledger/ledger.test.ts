/** The ledger is the journal: the same amounts, balanced, under other names. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Entry } from '../daybook/entry';
import type { KnownEntry } from '../daybook/kinds';
import { readEntry } from '../daybook/read-entry';
import {
  documentsText,
  plainLedger,
  PlainLedgerError,
  readPlainLedger,
} from '../formats/plain-ledger';
import { journalOf } from '../journal';
import { isAccount, moneyHeads } from '../journal/accounts';
import { Trial } from '../journal/trial';
import { arbitraryDaybook, DeviceWriter } from '../testing/arbitrary-daybook';
import { DRAWER, EVENT } from '../testing/made-up-business';
import { DEFAULT_CHART, ledgerAccountOf, namesIn } from './chart';
import { ledgerOf, type Ledger } from './ledger';
import { LEDGER_BY } from './ledger-by';

function read(entries: readonly Entry[]): { known: readonly KnownEntry[]; books: Books } {
  const books = new Books();
  const known = entries.flatMap((entry) => {
    const each = readEntry(entry);
    if (!each.ok) return [];
    books.apply(changesOf(each.entry));
    return [each.entry];
  });
  return { known, books };
}

const byName = ({ transactions }: Ledger): Map<string, number> => {
  const all = new Map<string, number>();
  for (const { postings } of transactions)
    for (const { account, amount } of postings)
      all.set(account.name, (all.get(account.name) ?? 0) + amount);
  for (const [name, amount] of all) if (amount === 0) all.delete(name);
  return all;
};

describe('the ledger of any daybook', () => {
  it('balances in every transaction, however it is grouped, and comes to the trial balance', () => {
    fc.assert(
      fc.property(arbitraryDaybook, fc.constantFrom(...LEDGER_BY), (entries, by) => {
        const { known, books } = read(entries);
        const ledger = ledgerOf(known, books, { by });
        for (const { postings } of ledger.transactions) {
          assert.equal(
            postings.reduce((sum, { amount }) => sum + amount, 0),
            0,
          );
          for (const { amount, documents } of postings)
            assert.ok(amount !== 0 && documents.length > 0);
        }
        const trial = new Trial();
        for (const entry of known) trial.add(journalOf(entry).postings);
        const stand = new Map<string, number>();
        const names = namesIn(books);
        for (const balance of trial.balances()) {
          if (!('amount' in balance)) continue;
          const { name } = ledgerAccountOf(balance.account, DEFAULT_CHART, names);
          stand.set(name, (stand.get(name) ?? 0) + balance.amount);
        }
        for (const [name, amount] of stand) if (amount === 0) stand.delete(name);
        assert.deepEqual([...byName(ledger)].toSorted(), [...stand].toSorted());
      }),
    );
  });

  it('is read back from its text as it was written', () => {
    fc.assert(
      fc.property(arbitraryDaybook, (entries) => {
        const { known, books } = read(entries);
        const ledger = ledgerOf(known, books);
        assert.deepEqual(
          readPlainLedger(plainLedger(ledger)),
          ledger.transactions.map(({ day, what, postings }) => ({
            day,
            what,
            postings: postings.map(({ account, amount, documents }) => ({
              account: account.name,
              amount,
              documents: documentsText(documents),
            })),
          })),
        );
      }),
    );
  });
});

describe('a ledger', () => {
  const NOW = Date.UTC(2026, 10, 22, 9);
  const writer = new DeviceWriter(4);
  const { known, books } = read([
    ...writer.write({ does: 'event', name: 'Green' }, NOW),
    ...writer.write({ does: 'open', float: 50 }, NOW),
    ...writer.write({ does: 'sale', goods: [[1, 2]], over: 0 }, NOW),
    ...writer.write({ does: 'sale', goods: [[2, 1]], over: 90 }, NOW + 60_000),
    ...writer.write({ does: 'sale', goods: [[2, 1]], over: 0 }, NOW + 86_400_000),
  ]);

  it('has a transaction for each day of an event, with the numbers of its documents', () => {
    const { transactions } = ledgerOf(known, books, { event: EVENT });
    assert.deepEqual(
      transactions.map(({ day, what }) => [day, what]),
      [
        ['2026-11-22', 'Green'],
        ['2026-11-23', 'Green'],
      ],
    );
    const sales = transactions[0]!.postings.find(
      ({ account }) => account.name === 'Revenues:Sales',
    );
    assert.deepEqual(sales?.documents, ['D4-1', 'D4-2']);
    assert.equal(ledgerOf(known, books, { event: EVENT, by: 'event' }).transactions.length, 1);
  });

  it('has one for each drawer’s shift', () => {
    const { transactions } = ledgerOf(known, books, { by: 'shift', event: EVENT });
    assert.ok(transactions.some(({ what }) => what === 'Green, Tin'));
    const drawers = transactions.flatMap(({ postings }) =>
      postings.filter(({ account }) => account.name.startsWith('Assets:Cash:Drawers')),
    );
    // The sales went to a drawer that this daybook does not open; it stands under its id.
    assert.ok(drawers.some(({ account }) => account.name.endsWith(DRAWER.slice(-8))));
  });

  it('posts a way to pay under the vendor’s own account, split by customer where it needs one', () => {
    const names = {
      drawers: new Map<string, string>(),
      ways: new Map([
        ['w', { name: 'On account', ledger: '' }],
        ['own', { name: 'Card', ledger: 'Bank: cards; (new)' }],
        ['number', { name: 'Cheque', ledger: '1040' }],
      ]),
      people: new Map<string, string>(),
      suppliers: new Map<string, string>(),
      taxes: new Map([['t', 'VAT: home']]),
      customers: new Map([['c', 'Wren  & Co']]),
    };
    const name = (account: string, customer: string | null = null): string =>
      ledgerAccountOf(account, DEFAULT_CHART, names, customer).name;
    assert.equal(name('owed:w', 'c'), 'Assets:To come:On account:Wren & Co');
    assert.equal(name('owed:own'), 'Assets:Bank:cards new');
    const byNumber = ledgerAccountOf('owed:number', DEFAULT_CHART, names);
    assert.deepEqual([byNumber.number, byNumber.name], ['1040', 'Assets:To come:Cheque']);
    assert.equal(name('tax:t@20'), 'Liabilities:Tax:VAT home 20%');
    assert.throws(() => name('place:base'), /holds no money/);
  });

  it('has a name for every account of money', () => {
    for (const head of moneyHeads) assert.ok(isAccount(head) || isAccount(`${head}:x`), head);
    const names = moneyHeads.map((head) => DEFAULT_CHART[head].name);
    assert.equal(new Set(names).size, names.length);
  });
});

describe('the text of a ledger', () => {
  it('says runs of documents by their first and last', () => {
    assert.equal(
      documentsText(['D4-1', 'D4-2', 'D4-3', 'D5-4', 'D5-5', 'void D4-2']),
      'D4-1 … D4-3, D5-4, D5-5, void D4-2',
    );
  });

  it('is not written where it does not add up, and says where it cannot be read', () => {
    const account = { number: '', name: 'Assets:Cash', kind: 'Assets' } as const;
    const off = [
      { day: '2026-11-22', what: 'x', postings: [{ account, amount: 5, documents: [] }] },
    ];
    assert.throws(
      () => plainLedger({ business: 'B', currency: 'GBP', transactions: off }),
      /off by 5/,
    );
    const text = '2026-11-22 * x\n    Assets:Cash  5.00 GBP\n';
    assert.throws(() => readPlainLedger(text), PlainLedgerError);
    assert.throws(() => readPlainLedger('nonsense'), /^PlainLedgerError: line 1: neither/);
  });

  it('keeps amounts of currencies without a minor unit whole', () => {
    const postings = [
      {
        account: { number: '1', name: 'Assets:Cash', kind: 'Assets' },
        amount: 500,
        documents: ['D1-1'],
      },
      {
        account: { number: '', name: 'Revenues:Sales', kind: 'Revenues' },
        amount: -500,
        documents: [],
      },
    ] as const;
    const text = plainLedger({
      business: 'B',
      currency: 'JPY',
      transactions: [{ day: '2026-11-22', what: 'x', postings }],
    });
    assert.match(text, /commodity 1000\. JPY/);
    assert.match(text, /Assets:Cash +500 JPY/);
    assert.equal(readPlainLedger(text)[0]!.postings[0]!.amount, 500);
  });
});
