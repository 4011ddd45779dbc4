import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { BUSINESS, EVENT, idOf } from '../testing/made-up-business';
import { NO_EVENT } from '../books/names';
import { bankLineId } from '../books/changes/bank';
import { bytesOf, LARGEST_ENTRY } from '../daybook/entry-size';
import { bankLinesOf, isOver } from './bank-lines';
import { dueCostsOf, proposeCosts, type CostRows } from './due-costs';
import { joinBank, noneOfOurs, payByLine, takeApart, type JoinBank } from './join-bank';
import { alreadyCame, proposeBank, type BankLine } from './match-bank';
import { openMoneyOf, type OpenMoney, type OpenRows } from './open-money';
import { namedLines, type Statement } from './statement';
import { linesToTake, takeIn } from './take-in';
import { accountOf, lookAt, setBankAccount, takeStatement } from './take-statement';

const OTHER_EVENT = idOf(3, 99);
const CARD = idOf(5, 1);
const TRANSFER = idOf(5, 2);
let made = 0;
const newId = (): string => idOf(90, (made += 1));

const line = (more: Partial<BankLine> = {}): BankLine => ({
  ...{ id: idOf(70, 1), day: '2026-11-24', amount: 5000, reference: '', text: '', other: '' },
  left: more.amount ?? 5000,
  ...more,
});
const open = (more: Partial<OpenMoney> = {}): OpenMoney => ({
  ...{ key: 'bag b1', is: 'bag', what: 'B-104', references: ['B-104'], amount: 5000 },
  ...{ day: '2026-11-22', events: [EVENT], money: null },
  parts: [{ event: EVENT, from: [{ account: 'bag:b1', amount: 5000 }], fees: 0, payments: [] }],
  ...more,
});

describe('what a line may be', () => {
  it('is certain by its reference and amount, where nothing else fits', () => {
    const [found] = proposeBank([line({ text: 'CASH PAID IN B 104' })], [open()]);
    assert.deepEqual(found, {
      ...{ line: idOf(70, 1), key: 'bag b1', by: 'reference', difference: 0, isCertain: true },
    });
  });

  it('is looked at where the amount differs, two lines claim it, or only the amount fits', () => {
    const of = (lines: readonly BankLine[], all: readonly OpenMoney[]) =>
      proposeBank(lines, all).map(({ by, difference, isCertain }) => [by, difference, isCertain]);
    assert.deepEqual(of([line({ text: 'B-104', amount: 4900 })], [open()]), [
      ['reference', -100, false],
    ]);
    const twice = [line({ text: 'B-104' }), line({ id: idOf(70, 2), reference: 'b104' })];
    assert.deepEqual(of(twice, [open()]), [
      ['reference', 0, false],
      ['reference', 0, false],
    ]);
    assert.deepEqual(of([line()], [open()]), [['amount', 0, false]]);
    // Too early, too late, another sign, another amount: nothing.
    for (const odd of [
      { day: '2026-11-18' },
      { day: '2026-12-20' },
      { amount: -5000 },
      { amount: 1 },
    ])
      assert.deepEqual(of([line(odd)], [open()]), [], JSON.stringify(odd));
  });

  it('takes short references as words of their own alone', () => {
    const short = open({ references: ['12'], what: '12', amount: 4999 });
    assert.deepEqual(proposeBank([line({ text: 'ref 512 of 3' })], [short]), []);
    assert.equal(proposeBank([line({ text: 'bag 12' })], [short]).length, 1);
  });

  it('says what came already', () => {
    const came = [{ id: idOf(80, 1), what: 'B-104', amount: 5000 }];
    assert.deepEqual(alreadyCame([line({ text: 'b-104' })], came), [
      { line: idOf(70, 1), money: idOf(80, 1) },
    ]);
    assert.deepEqual(alreadyCame([line({ text: 'b-104', left: 0 })], came), []);
  });
});

const ROWS: OpenRows = {
  accounts: [],
  ways: [
    { id: CARD, name: 'Card', method: 'card' },
    { id: TRANSFER, name: 'Transfer', method: 'transfer' },
  ],
  ...{ cardLines: [], cardJoins: [], cards: [], payments: [], handedIn: [], cashMoves: [] },
  ...{ drawerReads: [], came: [], paid: [], joins: [] },
};
const owed = (event: string, account: string, amount: number) => ({ event, account, amount });
const cardLine = (n: number, more: Partial<OpenRows['cardLines'][number]> = {}) => ({
  ...{ id: idOf(60, n), source: 'a', day: '2026-11-22', sort: 'payment' as const },
  ...{ reference: idOf(40, n), amount: 3000, fee: 50, scheme: 'Visa', last4: '4242' },
  ...{ paidAt: '2026-11-22T10:00:00Z', payout: 'PO-1', payoutDay: '2026-11-23', setStamp: 'x' },
  ...more,
});
const payment = (n: number, amount: number, reference: string) =>
  ({
    ...{ id: idOf(41, n), event: EVENT, way: TRANSFER, reference, at: '2026-11-22T11:00:00Z' },
    ...{ charge: amount, surcharge: 0, tip: 0, change: 0 },
  }) as unknown as OpenRows['payments'][number];

describe('what is still to come', () => {
  it('has a payout in parts by event, with what is owed there and has not come', () => {
    const rows: OpenRows = {
      ...ROWS,
      accounts: [
        owed(EVENT, `owed:${CARD}`, 3000),
        owed(OTHER_EVENT, `owed:${CARD}`, 2500),
        owed(EVENT, 'owed:x', 0),
      ],
      cardLines: [cardLine(1), cardLine(2), cardLine(3, { reference: 'stranger' })],
      cards: [
        { id: idOf(40, 1), event: EVENT, way: CARD },
        { id: idOf(40, 2), event: OTHER_EVENT, way: CARD },
      ],
    };
    const [payout, ...none] = openMoneyOf(rows);
    assert.deepEqual(none, []);
    assert.equal(payout?.amount, 2950 + 2450);
    assert.deepEqual(
      payout.parts.map(({ event, from, fees }) => [event, from[0]?.amount, fees]),
      [
        [EVENT, 3000, 50],
        [OTHER_EVENT, 2500, 50],
      ],
    );
    const came = {
      event: EVENT,
      what: 'PO-1',
      payments: [],
    } as unknown as OpenRows['came'][number];
    const later = openMoneyOf({ ...rows, came: [came] });
    assert.deepEqual(later.find(({ is }) => is === 'payout')?.events, [OTHER_EVENT]);
  });

  it('has what cards on file paid of no event, in its payout and in the ways', () => {
    const rows: OpenRows = {
      ...ROWS,
      accounts: [
        owed(EVENT, `owed:${CARD}`, 3000),
        owed(NO_EVENT, `owed:${CARD}`, 3000),
        owed(NO_EVENT, `owed:${TRANSFER}`, 900),
      ],
      cardLines: [cardLine(1), cardLine(2)],
      cards: [
        { id: idOf(40, 1), event: EVENT, way: CARD },
        { id: idOf(40, 2), event: null, way: CARD },
      ],
    };
    const all = openMoneyOf(rows);
    const payout = all.find(({ is }) => is === 'payout');
    assert.deepEqual([payout?.amount, payout?.events], [5900, [EVENT]]);
    assert.deepEqual(
      payout?.parts.map(({ event }) => event),
      [EVENT, null],
    );
    const way = all.find(({ is }) => is === 'way');
    assert.deepEqual([way?.amount, way?.events, way?.parts[0]?.event], [900, [], null]);
    // What is written of it is of no event either.
    const made = joinBank({
      ...{ newId, line: line({ amount: 5900 }), open: payout, typed: '59.00', currency: 'GBP' },
      rest: 'to come',
    });
    assert.ok(made.ok);
    const came = made.drafts.filter(({ kind }) => kind === 'money.came');
    assert.deepEqual(
      came.map(({ event }) => event),
      [EVENT, null],
    );
    const known = came.map(({ event }) => ({ event, what: 'PO-1', payments: [] }));
    const rest = openMoneyOf({ ...rows, came: known as unknown as OpenRows['came'] });
    assert.equal(
      rest.find(({ is }) => is === 'payout'),
      undefined,
    );
  });

  it('has transfers one by one and all together, and what was handed in as one', () => {
    const rows: OpenRows = {
      ...ROWS,
      accounts: [owed(EVENT, `owed:${TRANSFER}`, 7000)],
      payments: [payment(1, 2000, 'INV-7'), payment(2, 5000, '')],
    };
    assert.deepEqual(
      openMoneyOf(rows).map(({ is, amount, references }) => [is, amount, references]),
      [
        ['payment', 2000, ['INV-7']],
        ['payment', 5000, ['']],
        ['way', 7000, []],
      ],
    );
    const batch = {
      ...{ id: idOf(42, 1), event: EVENT, way: TRANSFER, amount: 7000, what: 'slip 9' },
      ...{ payments: [idOf(41, 1), idOf(41, 2)], day: '2026-11-25' },
    } as unknown as OpenRows['handedIn'][number];
    assert.deepEqual(
      openMoneyOf({ ...rows, handedIn: [batch] }).map(({ is, amount }) => [is, amount]),
      [['handed in', 7000]],
    );
  });

  it('has what was noted by hand until a line is it', () => {
    const came = {
      ...{ id: idOf(80, 1), event: EVENT, what: 'PO-9', amount: 900, day: '2026-11-24' },
      payments: [],
    } as unknown as OpenRows['came'][number];
    const join = { money: idOf(80, 1), amount: 900 } as unknown as OpenRows['joins'][number];
    assert.equal(openMoneyOf({ ...ROWS, came: [came] })[0]?.amount, 900);
    assert.deepEqual(openMoneyOf({ ...ROWS, came: [came], joins: [join] }), []);
  });
});

describe('joining', () => {
  const twoParts = open({
    ...{ key: 'payout PO-1', is: 'payout', what: 'PO-1', amount: 5400 },
    parts: [
      { event: EVENT, from: [{ account: `owed:${CARD}`, amount: 3000 }], fees: 50, payments: [] },
      {
        event: OTHER_EVENT,
        from: [{ account: `owed:${CARD}`, amount: 2500 }],
        fees: 50,
        payments: [],
      },
    ],
  });
  const join = (more: Partial<JoinBank>) =>
    joinBank({
      ...{ newId, line: line({ amount: 5400 }), open: twoParts, typed: '54', currency: 'GBP' },
      rest: 'to come',
      ...more,
    });
  const cameOf = (made: ReturnType<typeof joinBank>) => {
    if (!made.ok) assert.fail(made.refusal.code);
    return made.drafts.flatMap(({ kind, event, body }) => {
      const { amount, fees, from } = body as {
        amount: number;
        fees: number;
        from: { amount: number }[];
      };
      return kind === 'money.came' ? [[event, amount, fees, from[0]?.amount]] : [];
    });
  };

  it('writes what came to each event, and joins each to the line', () => {
    const done = join({});
    assert.deepEqual(cameOf(done), [
      [EVENT, 2950, 50, 3000],
      [OTHER_EVENT, 2450, 50, 2500],
    ]);
    assert.deepEqual(done.ok && done.drafts.map(({ kind }) => kind), [
      'money.came',
      'bank.joined',
      'money.came',
      'bank.joined',
    ]);
  });

  it('with less than was expected leaves the rest to come, or has it kept', () => {
    assert.deepEqual(cameOf(join({ typed: '40' })), [
      [EVENT, 2950, 50, 3000],
      [OTHER_EVENT, 1050, 0, 1050],
    ]);
    assert.deepEqual(cameOf(join({ typed: '50', rest: 'kept' })), [
      [EVENT, 2950, 50, 3000],
      [OTHER_EVENT, 2050, 450, 2500],
    ]);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5400 }),
        fc.constantFrom('kept' as const, 'to come' as const),
        (amount, rest) => {
          const done = cameOf(join({ typed: (amount / 100).toFixed(2), rest }));
          assert.equal(
            done.reduce((sum, [, came]) => sum + Number(came), 0),
            amount,
          );
          for (const [, came, fees, from] of done) {
            assert.ok(Number(came) > 0 && Number(fees) >= 0);
            assert.equal(Number(came) + Number(fees), from);
          }
        },
      ),
    );
  });

  it('refuses more than the line or what is open has, and what went for what came', () => {
    const code = (made: ReturnType<typeof joinBank>) => (made.ok ? '' : made.refusal.code);
    assert.equal(code(join({ typed: '54.01' })), 'bank/more-than-line');
    assert.equal(code(join({ typed: '60', line: line({ amount: 9999 }) })), 'bank/more-than-open');
    assert.equal(code(join({ line: line({ amount: -5400 }) })), 'bank/other-way');
    assert.equal(code(join({ typed: 'all' })), 'bank/amount-wrong');
    const pay = {
      newId,
      line: line({ amount: -4500 }),
      for: 'pitch',
      typed: '45',
      currency: 'GBP',
    } as const;
    assert.equal(code(payByLine({ ...pay, event: '', what: '' })), 'bank/no-event');
    assert.equal(
      code(payByLine({ ...pay, event: EVENT, what: '', typed: '46' })),
      'bank/more-than-line',
    );
    assert.equal(code(noneOfOurs(newId, line(), 0, ' ')), 'bank/no-reason');
  });

  it('is taken apart, and the money taken back with it', () => {
    const came = {
      ...({ is: 'came', id: idOf(80, 1), event: EVENT, amount: 900, fees: 100 } as const),
      from: [{ account: `owed:${CARD}`, amount: 1000 }],
    };
    const done = takeApart(newId, idOf(70, 1), came, true);
    if (!done.ok) assert.fail(done.refusal.code);
    const [apart, undone] = done.drafts;
    assert.deepEqual(apart?.body, { line: idOf(70, 1), money: idOf(80, 1), amount: 0, why: '' });
    const { takes } = undone!.body as {
      takes: { of: string; postings: { account: string; amount: number }[] };
    };
    assert.deepEqual(
      takes.postings.map(({ account, amount }) => [account, amount]),
      [
        ['bank', -900],
        ['card-fees', -100],
        [`owed:${CARD}`, 1000],
      ],
    );
    const kept = takeApart(newId, idOf(70, 1), came, false);
    assert.equal(kept.ok && kept.drafts.length, 1);
  });
});

describe('a line', () => {
  const row = (amount: number) =>
    ({ ...line({ amount }), account: 'a', source: 'f', setStamp: 'x' }) as never;
  const joined = (money: string | null, amount: number) =>
    ({ line: idOf(70, 1), money, amount, why: '', saidAt: '', saidBy: null }) as never;

  it('has left what nothing was said of; what was taken back is said of nothing', () => {
    const of = (joins: readonly never[], undone: readonly string[] = []) =>
      bankLinesOf([row(5000)], joins, new Set(undone))[0]?.left;
    assert.equal(of([joined('m1', 3000), joined(null, 500)]), 1500);
    assert.equal(of([joined('m1', 3000), joined(null, 500)], ['m1']), 4500);
  });

  it('has too much said of it where what is left has the other sign', () => {
    const over = (joins: readonly never[]): boolean | undefined =>
      bankLinesOf([row(5000)], joins, new Set()).map(isOver)[0];
    assert.equal(over([]), false);
    assert.equal(over([joined('m1', 5000)]), false);
    assert.equal(over([joined('m1', 5000), joined('m2', 100)]), true);
  });
});

describe('a file', () => {
  const accounts = [
    { id: idOf(75, 1), name: 'Business account', number: 'GB33BUKB20201555555555' },
    { id: idOf(75, 2), name: 'Savings', number: 'GB33BUKB20201555550000' },
  ];
  const statement = (more: Partial<Statement> = {}): Statement => ({
    ...{ account: 'GB33BUKB20201555555555', currency: 'GBP', number: '1' },
    ...{ opening: null, closing: null },
    lines: namedLines([
      { day: '2026-11-23', amount: 100, own: 'B1', reference: '', text: 'a', other: '' },
      { day: '2026-11-23', amount: 200, own: 'B2', reference: '', text: 'b', other: '' },
    ]),
    ...more,
  });
  const look = (of: Statement, more: Partial<Parameters<typeof lookAt>[1]> = {}) =>
    lookAt(of, {
      ...{ business: BUSINESS, currency: 'GBP', accounts, chosen: null, known: [] },
      ...more,
    });

  it('is of an account by its number, or by the end of it where only one fits', () => {
    assert.equal(accountOf('GB33BUKB20201555555555', accounts)?.name, 'Business account');
    assert.equal(accountOf('1555550000', accounts)?.name, 'Savings');
    assert.equal(accountOf('5555', accounts), null);
    assert.equal(accountOf('', accounts), null);
  });

  it('of an account that is not set up, or another than was chosen, is not taken', () => {
    assert.match(look(statement({ account: 'DE00' })).faults.join(), /DE00, which is not set up/);
    assert.match(look(statement({ account: '' })).faults.join(), /choose one/);
    assert.match(
      look(statement(), { chosen: accounts[1]! }).faults.join(),
      /not of Savings: choose that one/,
    );
  });

  it('taken in twice is once; the same lines in another form are shown', () => {
    const first = look(statement());
    assert.equal(first.fresh.length, 2);
    const known = first.fresh.map(({ id, day, amount }) => ({
      ...{ id: bankLineId(BUSINESS, idOf(75, 1), id), account: idOf(75, 1), day, amount },
      source: 'nov.xml',
    }));
    const again = look(statement(), { known });
    assert.deepEqual([again.fresh.length, again.known], [0, 2]);
    const others = namedLines([
      { day: '2026-11-23', amount: 100, own: '', reference: '', text: 'A', other: '' },
      { day: '2026-11-23', amount: 100, own: '', reference: '', text: 'A', other: '' },
    ]);
    const otherForm = look(statement({ lines: others }), { known });
    // One of two stands for the one that is there.
    assert.deepEqual(
      [otherForm.fresh.length, otherForm.alike.map(({ source }) => source)],
      [2, ['nov.xml']],
    );
  });

  it('is taken in with what is certain joined, and what is alike left out unless it is said to be another', () => {
    const sure = open({ references: ['a-7781'], what: 'A-7781', amount: 100 });
    const named = statement({
      lines: namedLines([
        { day: '2026-11-23', amount: 100, own: 'B1', reference: 'A-7781', text: '', other: '' },
        { day: '2026-11-24', amount: 200, own: 'B2', reference: '', text: 'b', other: '' },
      ]),
    });
    const other = { id: idOf(70, 99), account: idOf(75, 1), day: '2026-11-24', amount: 200 };
    const looks = [look(named, { known: [{ ...other, source: 'nov.csv' }] })];
    const taken = (isAlikeTaken: boolean) =>
      linesToTake({ business: BUSINESS, looks, isAlikeTaken, money: [sure] });
    assert.deepEqual(
      taken(false).map((line) => [line.amount, line.is?.key]),
      [[100, 'bag b1']],
    );
    const all = taken(true);
    assert.deepEqual(
      all.map((line) => [line.amount, line.is?.key]),
      [
        [100, 'bag b1'],
        [200, undefined],
      ],
    );
    const drafts = takeIn(newId, all, 'nov.xml', 'GBP');
    assert.deepEqual(
      drafts.map(({ kind }) => kind),
      ['bank.stated', 'money.came', 'bank.joined'],
    );
    // What is joined is the line as the books will call it.
    assert.equal((drafts[2]!.body as { line: string }).line, all[0]?.id);
  });

  it('is written in entries that are small enough', () => {
    const lines = namedLines(
      Array.from({ length: 170 }, (_, n) => ({
        ...{ day: '2026-11-23', amount: n + 1, own: `B${String(n)}`, reference: '' },
        ...{ text: '', other: '' },
      })),
    );
    const drafts = takeStatement(newId, idOf(75, 1), '', lines);
    assert.deepEqual(
      drafts.map(({ body }) => (body as { lines: unknown[] }).lines.length),
      [80, 80, 10],
    );
    // Words of two bytes a letter, as long as they may be.
    const long = namedLines(
      Array.from({ length: 80 }, (_, n) => ({
        ...{ day: '2026-11-23', amount: n + 1, own: '', reference: 'Ж'.repeat(140) },
        ...{ text: 'Ж'.repeat(300), other: 'Ж'.repeat(140) },
      })),
    );
    for (const { body } of takeStatement(newId, idOf(75, 1), 'x', long))
      assert.ok(bytesOf(body) < LARGEST_ENTRY * 0.8);
  });

  it('has an account with a name and a number of its own', () => {
    const set = (typedName: string, typedNumber: string) =>
      setBankAccount(newId, {
        ...{ id: null, typedName, typedNumber, columns: null, isActive: true, accounts },
      });
    const code = (made: ReturnType<typeof set>) =>
      made.ok ? made.drafts[0]?.kind : made.refusal.code;
    assert.equal(code(set('Third', 'de89 3704 0044')), 'bank.set');
    assert.equal(code(set(' ', 'x')), 'bank/no-name');
    assert.equal(code(set('Third', '-')), 'bank/no-number');
    assert.equal(code(set('Third', 'gb33 bukb 2020 1555 5555 55')), 'bank/number-taken');
  });
});

describe('costs that lines may have paid', () => {
  const event = {
    ...{ id: EVENT, name: 'Wharf market', organiser: 'Wharf Trust' },
    days: [{ date: '2026-11-22', opens: '09:00', closes: '16:00' }],
    fee: { kind: 'both', fixed: 2500, percent: '10', of: 'gross' } as const,
    costs: [{ what: 'Power', each: 4500, many: 1000 }],
  } as unknown as CostRows['events'][number];
  const rows = (more: Partial<CostRows> = {}): CostRows => ({
    events: [event],
    totals: [{ event: EVENT, takings: 20_000, tax: 0 }],
    ...{ paid: [], cashMoves: [], ...more },
  });
  const went = (amount: number, text = '', more: Partial<BankLine> = {}): BankLine =>
    line({ amount: -amount, left: -amount, text, reference: '', other: '', ...more });
  const found = (of: BankLine, more: Partial<CostRows> = {}) =>
    proposeCosts([of], dueCostsOf(rows(more))).map((each) => `${each.for} by ${each.by}`);

  it('are a pitch by its rule and what was agreed, less what was paid of either', () => {
    const due = (more: Partial<CostRows> = {}) =>
      dueCostsOf(rows(more)).map(({ for: is, amount }) => `${is} ${String(amount)}`);
    assert.deepEqual(due(), ['pitch 4500', 'cost 4500']);
    const paid = { event: EVENT, for: 'cost', what: ' power', amount: 4500 } as const;
    assert.deepEqual(due({ paid: [paid] }), ['pitch 4500']);
    const move = { event: EVENT, to: 'spent:pitch', what: 'to the warden', amount: 2500 };
    assert.deepEqual(due({ cashMoves: [move] }), ['pitch 2000', 'cost 4500']);
    assert.deepEqual(due({ paid: [{ ...paid, event: idOf(6, 9) }] }), ['pitch 4500', 'cost 4500']);
  });

  it('are found by their amount, and by a name before all else', () => {
    assert.deepEqual(found(went(4500)), ['pitch by amount', 'cost by amount']);
    assert.deepEqual(found(went(4500, 'WHARF TRUST LTD')), ['pitch by name']);
    assert.deepEqual(found(went(4501, 'Wharf Trust')), []);
  });

  it('are near their event, and nothing that came pays them', () => {
    assert.deepEqual(found(went(4500, '', { day: '2026-08-01' })), [
      'pitch by amount',
      'cost by amount',
    ]);
    assert.deepEqual(found(went(4500, '', { day: '2026-06-01' })), []);
    assert.deepEqual(found(went(4500, '', { day: '2027-02-01' })), []);
    assert.deepEqual(found(went(-4500)), []);
  });
});
