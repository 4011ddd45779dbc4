import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { sum } from '../money/units';
import { heldPart } from './held-part';
import { isHeld, type HeldAccount } from './held-account';
import { overspends } from './overspends';
import { lapseVouchers, moveHeld, paidInFor, replaceVoucher, setVoucher } from './set-held';
import { lastDayOf, spendable, voucherFault, type HeldFacts } from './spend';
import { newVoucherNumber, numberFault, voucherNumber, voucherText } from './voucher-number';

const BUSINESS = '00000000-0000-7000-8000-000000000001';
const ELSEWHERE = '00000000-0000-7000-8000-000000000002';
const CUSTOMER = '00000000-0000-7000-8000-000000000003';
const bytes = fc.uint8Array({ minLength: 10, maxLength: 10 });
let count = 0;
const newId = (): string => `id-${String((count += 1))}`;

const facts = (said: Partial<HeldFacts> = {}): HeldFacts => ({
  balance: -2000,
  sold: [{ until: '', value: 1000, kept: null }],
  state: undefined,
  creditLimit: null,
  ...said,
});
const state = (said: Partial<NonNullable<HeldFacts['state']>>) => ({
  ...{ isBlocked: false, until: '', reason: 'lost', setStamp: 'x' },
  ...said,
});

describe('a number of a voucher', () => {
  it('is made of chance alone behind the business’s sign', () => {
    const number = newVoucherNumber(BUSINESS, new Uint8Array(10));
    assert.match(number, /^V[0-9A-Z]{13}$/);
    assert.equal(numberFault(number, BUSINESS), null);
  });

  it('finds any one character that is mistyped, and two neighbours that changed places', () => {
    fc.assert(
      fc.property(bytes, fc.nat({ max: 12 }), fc.nat({ max: 34 }), (random, at, by) => {
        const number = newVoucherNumber(BUSINESS, random);
        const signs = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ';
        const where = at + 1;
        const other = signs[(signs.indexOf(number[where]!) + 1 + by) % 36]!;
        const wrong = number.slice(0, where) + other + number.slice(where + 1);
        assert.equal(numberFault(wrong, BUSINESS), 'mistyped');
        if (where > 12 || number[where] === number[where + 1]) return;
        const turned =
          number.slice(0, where) + number[where + 1]! + number[where]! + number.slice(where + 2);
        assert.equal(numberFault(turned, BUSINESS), 'mistyped');
      }),
    );
  });

  it('is of its business, reads in fours and is the same however it is typed', () => {
    const number = newVoucherNumber(BUSINESS, new Uint8Array([1, 2, 3, 4, 5, 6, 7, 8, 9, 10]));
    assert.equal(numberFault(number, ELSEWHERE), 'other-business');
    assert.match(voucherText(number), /^V\w{3} \w{4} \w{4} \w\w$/);
    assert.equal(voucherNumber(` ${voucherText(number).toLowerCase()}-`), number);
    assert.equal(numberFault('12', BUSINESS), 'no-number');
    assert.equal(numberFault('CARD0042', BUSINESS), null);
    assert.throws(() => newVoucherNumber(BUSINESS, new Uint8Array(9)), RangeError);
  });

  it('is an account with its number, and a customer’s with their id', () => {
    assert.ok(isHeld('voucher:CARD0042'));
    assert.ok(isHeld(`credit:${CUSTOMER}`));
    for (const wrong of ['voucher:a b', 'voucher:', 'credit:Rosa', 'drawer:1', 'customer'])
      assert.equal(isHeld(wrong), false, wrong);
  });
});

describe('what can be spent', () => {
  const voucher = (said: Partial<HeldFacts> = {}, reference = 'card-0042') =>
    spendable('voucher', { customer: null, reference }, facts(said), BUSINESS, '2026-11-28');

  it('is what is left on a voucher', () => {
    assert.deepEqual(voucher(), { ok: true, account: 'voucher:CARD0042', left: 2000 });
  });

  const refused: readonly (readonly [string, Partial<HeldFacts>, string, string])[] = [
    ['no number', {}, ' ', 'held/no-number'],
    ['nothing known of it', { balance: 0, sold: [] }, 'card-0042', 'held/unknown'],
    ['used up', { balance: 0 }, 'card-0042', 'held/used-up'],
    ['overspent already', { balance: 5 }, 'card-0042', 'held/used-up'],
    ['blocked', { state: state({ isBlocked: true }) }, 'card-0042', 'held/blocked'],
    [
      'out of date',
      { sold: [{ until: '2026-11-27', value: 1000, kept: null }] },
      'card-0042',
      'held/out-of-date',
    ],
  ];
  for (const [what, said, typed, code] of refused)
    it(`is nothing of one that is ${what}`, () => {
      const found = voucher(said, typed);
      assert.equal(found.ok ? 'ok' : found.refusal.code, code);
    });

  it('says of an unknown number whether it is mistyped, or another business’s', () => {
    const theirs = newVoucherNumber(ELSEWHERE, new Uint8Array(10));
    const none = facts({ balance: 0, sold: [] });
    assert.equal(voucherFault(theirs, none, BUSINESS, '2026-11-28')?.code, 'held/other-business');
    const typo = `${theirs.slice(0, -1)}${theirs.endsWith('A') ? 'B' : 'A'}`;
    assert.equal(voucherFault(typo, none, BUSINESS, '2026-11-28')?.code, 'held/mistyped');
  });

  it('lasts as long as was said last', () => {
    assert.equal(
      lastDayOf({ sold: [{ until: '2026-12-01', value: 1000, kept: null }], state: undefined }),
      '2026-12-01',
    );
    assert.equal(
      lastDayOf({
        sold: [{ until: '2026-12-01', value: 1000, kept: null }],
        state: state({ until: '2027-01-01' }),
      }),
      '2027-01-01',
    );
    assert.equal(
      lastDayOf({
        sold: [
          { until: '2026-12-01', value: 1000, kept: null },
          { until: '', value: 1000, kept: null },
        ],
        state: undefined,
      }),
      '',
    );
    const lastDay = { sold: [{ until: '2026-11-28', value: 1000, kept: null }] };
    assert.equal(voucher(lastDay).ok, true);
  });

  it('is a customer’s credit, and what they may still owe', () => {
    const who = { customer: CUSTOMER, reference: '' };
    const on = (method: string, said: Partial<HeldFacts>) =>
      spendable(method, who, facts(said), BUSINESS, '2026-11-28');
    assert.deepEqual(on('credit', {}), { ok: true, account: `credit:${CUSTOMER}`, left: 2000 });
    const owing = { balance: 1500, creditLimit: 2000 };
    assert.deepEqual(on('account', owing), {
      ...{ ok: true, account: `customer:${CUSTOMER}`, left: 500 },
    });
    assert.deepEqual(on('account', { balance: 1500 }), {
      ...{ ok: true, account: `customer:${CUSTOMER}`, left: null },
    });
    const nobody = spendable(
      'account',
      { ...who, customer: null },
      facts(),
      BUSINESS,
      '2026-11-28',
    );
    assert.equal(nobody.ok ? 'ok' : nobody.refusal.code, 'held/no-customer');
  });
});

describe('a part from an account', () => {
  const ask = (said: Partial<Parameters<typeof heldPart>[0]>) =>
    heldPart({
      ...{ method: 'voucher', customer: CUSTOMER, reference: 'CARD0042', amount: null, tip: 0 },
      ...{
        left: 3000,
        most: null,
        facts: facts(),
        mayOweMore: false,
        business: BUSINESS,
        sale: { lines: [], total: 3000, taxes: [], before: [] },
        day: '2026-11-28',
      },
      ...said,
    });

  it('is none of a way that is paid with money', () => {
    assert.equal(ask({ method: 'cash' }), null);
  });

  it('is all that is on it at most, and never more', () => {
    const taken = ask({});
    assert.equal(taken?.ok === true && taken.amount, 2000);
    const asked = ask({ amount: 2500 });
    assert.deepEqual(asked?.ok === false && asked.refusal, { code: 'held/less', left: 2000 });
    const tipped = ask({ tip: 100 });
    assert.equal(tipped?.ok === false && tipped.refusal.code, 'held/no-tip');
  });

  it('is no more than was set up while nobody hears of it', () => {
    const taken = ask({ most: 700 });
    assert.equal(taken?.ok === true && taken.amount, 700);
    const asked = ask({ most: 700, amount: 800 });
    assert.deepEqual(asked?.ok === false && asked.refusal, {
      code: 'held/offline-most',
      most: 700,
    });
    const none = ask({ most: 0 });
    assert.equal(none?.ok === false && none.refusal.code, 'held/offline-most');
    // What a customer owes has a limit of its own.
    assert.equal(ask({ most: 0, method: 'account' })?.ok, true);
  });

  it('is owed within what was agreed, and beyond it only by right', () => {
    const owing = { method: 'account', facts: facts({ balance: 100, creditLimit: 500 }) };
    const over = ask(owing);
    assert.deepEqual(over?.ok === false && over.refusal, {
      ...{ code: 'held/over-limit', limit: 500, owes: 100 },
    });
    const within = ask({ ...owing, amount: 400 });
    assert.equal(within?.ok === true && !within.isOverLimit, true);
    const let_ = ask({ ...owing, mayOweMore: true });
    assert.equal(let_?.ok === true && let_.isOverLimit && let_.amount, 3000);
  });
});

describe('what is moved and paid in', () => {
  it('pays what is owed first, and what is more is credit; to the minor unit', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9999 }),
        fc.integer({ min: -99, max: 9999 }),
        (paid, owes) => {
          const lines = paidInFor(CUSTOMER, paid, owes);
          assert.equal(sum(lines.map(({ amount }) => amount)), paid);
          const off = lines.find(({ account }) => account.startsWith('customer:'))?.amount ?? 0;
          assert.equal(off, Math.min(paid, Math.max(0, owes)));
        },
      ),
    );
  });

  it('writes off what is left on vouchers that ran out, and on no others', () => {
    const row = (number: string, until: string, left: number) => ({
      ...{ number, until, left },
      kept: null,
    });
    const lapse = (...vouchers: ReturnType<typeof row>[]) =>
      lapseVouchers(newId, vouchers, '2026-11-28');
    const done = lapse(row('OLD1', '2026-11-27', 500), row('OLD2', '2025-01-01', 0));
    assert.deepEqual(done.ok && done.drafts.map(({ kind, body }) => [kind, body]), [
      ['voucher.lapsed', { number: 'OLD1', amount: 500 }],
    ]);
    for (const [until, code] of [
      ['2026-11-28', 'held/not-over'],
      ['', 'held/not-over'],
      ['2025-01-01', 'held/nothing-there'],
    ] as const) {
      const made = lapse(row('OLD1', until, 0));
      assert.equal(made.ok ? 'done' : made.refusal.code, code);
    }
  });

  it('replaces a voucher: all that is left goes on the fresh one, and the old one is blocked', () => {
    const done = replaceVoucher({
      ...{ newId, number: 'OLD0001', fresh: 'NEW0001', reason: ' lost at the fair ' },
      facts: facts({ sold: [{ until: '2027-01-01', value: 1000, kept: null }] }),
    });
    assert.deepEqual(done.ok && done.drafts.map(({ kind, body }) => [kind, body]), [
      [
        'held.moved',
        {
          ...{ from: 'voucher:OLD0001', to: 'voucher:NEW0001', amount: 2000 },
          ...{ until: '2027-01-01', reason: 'lost at the fair' },
        },
      ],
      [
        'voucher.set',
        {
          number: 'OLD0001',
          isBlocked: true,
          until: '2027-01-01',
          reason: ' lost at the fair '.trim(),
        },
      ],
    ]);
  });

  it('refuses what is not there, no reason and no day', () => {
    const move = (said: Partial<Parameters<typeof moveHeld>[0]>) => {
      const done = moveHeld({
        ...{ newId, from: `credit:${CUSTOMER}`, to: `customer:${CUSTOMER}`, balance: -500 },
        ...{ amount: null, reason: 'asked for' },
        ...said,
      });
      return done.ok ? 'ok' : done.refusal.code;
    };
    assert.equal(move({}), 'ok');
    assert.equal(move({ balance: 0 }), 'held/nothing-there');
    assert.equal(move({ amount: 501 }), 'held/less-there');
    assert.equal(move({ reason: ' ' }), 'held/no-reason');
    const wrong = setVoucher({
      ...{ newId, number: 'CARD0042', isBlocked: false, until: '2027-02-30', reason: 'asked for' },
    });
    assert.equal(wrong.ok ? 'ok' : wrong.refusal.code, 'held/day-wrong');
  });
});

describe('what would be spent twice', () => {
  const take = (account: HeldAccount, amount: number) => ({ account, amount });

  it('is more than there is of a voucher or of credit, and never what a customer owes', () => {
    const balances = new Map([['voucher:CARD0042', -500]]);
    const over = (...postings: ReturnType<typeof take>[]) => overspends(postings, balances);
    assert.equal(over(take('voucher:CARD0042', 500)), null);
    assert.deepEqual(over(take('voucher:CARD0042', 300), take('voucher:CARD0042', 201)), {
      ...{ account: 'voucher:CARD0042', taken: 501, left: 500 },
    });
    assert.deepEqual(over(take(`credit:${CUSTOMER}`, 1))?.left, 0);
    assert.equal(over(take(`customer:${CUSTOMER}`, 900)), null);
    // What is put on it and taken at once is nothing taken.
    assert.equal(over(take('voucher:CARD0042', 900), take('voucher:CARD0042', -900)), null);
  });
});
