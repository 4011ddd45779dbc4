import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { givenBack } from '../payment/give-back';
import { shareEqually } from '../payment/shares';
import { SUMS, workOut, type Sum } from './sums';

const examples = (file: string): readonly Record<string, unknown>[] =>
  JSON.parse(readFileSync(new URL(`../${file}.examples.json`, import.meta.url), 'utf8')) as Record<
    string,
    unknown
  >[];

const isError = (value: unknown): value is { readonly error: string } =>
  typeof value === 'object' && value !== null && 'error' in value;

describe('the worked examples, as documents', () => {
  const files: readonly (readonly [Sum, string, (each: Record<string, unknown>) => unknown])[] = [
    ['quote', 'pricing/slips', ({ slip }) => slip],
    ['pay', 'payment/payments', ({ payment }) => payment],
    ['share', 'payment/shares', ({ total, between }) => ({ total, between })],
    ['settle', 'settle/settling', ({ settle }) => ({ settle })],
    [
      'return',
      'payment/returns',
      ({ value, quantity, comesBack }) => ({ value, quantity, comesBack }),
    ],
  ];
  for (const [sum, file, documentOf] of files) {
    it(`${sum}: every one of them gives what is expected`, () => {
      const all = examples(file);
      assert.ok(all.length > 3);
      for (const each of all) {
        const found = workOut(sum, JSON.stringify(documentOf(each)));
        const { expect } = each;
        // An expected error is any clear message.
        if (isError(expect)) assert.ok(isError(found) && found.error.length > 10);
        else assert.deepEqual(found, expect);
      }
    });
  }
});

describe('a document that is wrong', () => {
  const slip = {
    pricesIncludeTax: true,
    taxRounding: 'sale',
    taxes: [{ id: 'std', rate: '20' }],
    lines: [{ price: 450, quantity: '3', taxes: ['std'] }],
  };
  const line = (more: object) => ({ ...slip, lines: [{ ...slip.lines[0], ...more }] });
  const cash = { id: 'cash', side: 'cash' };
  const wrong: readonly (readonly [Sum, unknown, RegExp])[] = [
    ['quote', line({ quantity: 3 }), /^lines\[0\]\.quantity: a quantity as text/],
    ['quote', line({ quantity: '3.0005' }), /^lines\[0\]\.quantity: /],
    ['quote', line({ price: 4.5 }), /^lines\[0\]\.price: an amount in whole minor units/],
    ['quote', line({ taxes: ['vat'] }), /^lines\[0\]\.taxes\[0\]: "vat" is not among/],
    ['quote', line({ taxes: ['std', 'std'] }), /^lines\[0\]\.taxes\[1\]: "std" stands here twice/],
    ['quote', line({ discont: {} }), /discont/],
    ['quote', line({ discount: { percent: '10', amount: 5 } }), /^lines\[0\]\.discount: either/],
    ['quote', { ...slip, taxes: [{ id: 'std', rate: 20 }] }, /^taxes\[0\]\.rate: a percentage/],
    [
      'quote',
      { ...slip, taxes: [{ id: 'std', rate: '20', on: ['x'] }] },
      /^taxes\[0\]\.on\[0\]: "x"/,
    ],
    ['quote', [], /^the document: /],
    ['pay', { cashTotal: 1, cardTotal: 1, ways: [cash, cash], parts: [] }, /^ways\[1\]\.id: /],
    ['share', { total: 5, between: 0 }, /^between: /],
    ['share', { total: 5, between: 1.5 }, /^between: a whole number of people/],
    ['return', { value: 5, quantity: '0', comesBack: [] }, /quantity of nothing/],
    ['return', { value: 5, quantity: '2', comesBack: ['1', '1.5'] }, /more would come back/],
    ['return', { value: 5, quantity: '2', comesBack: ['-1'] }, /same sign/],
    ['settle', {}, /^the document: one of pitch, tips, makers, wages, promotion, match/],
    ['settle', { pitch: { kind: 'rent', takings: 5 } }, /^pitch\.kind: /],
    ['settle', { tips: { how: 'hours', tips: 500, minutes: [0] } }, /nobody was on duty/],
    ['settle', { tips: { how: 'equally', tips: 500, minutes: [] } }, /nobody to share them/],
    [
      'settle',
      { makers: { commission: {}, lines: [{ maker: 'm1', net: 5 }] } },
      /no commission is known for "m1"/,
    ],
    ['settle', { wages: { minutes: [5], perHour: [] } }, /^wages\.perHour: as many rates/],
    ['settle', { promotion: { total: 0, taxes: [], parts: [0] } }, /comes to nothing/],
    ['settle', { promotion: { total: 5, taxes: [], parts: [3, 3] } }, /^parts\[1\]: with it 6/],
    [
      'settle',
      {
        match: {
          payments: [],
          report: [{ line: 1, reference: 'r', amount: 5, last4: '42', at: 'x' }],
        },
      },
      /^match\.report\[0\]\.last4: the last four/,
    ],
  ];
  for (const [sum, document, error] of wrong) {
    it(`${sum} ${JSON.stringify(document).slice(0, 60)} says ${error.source.slice(0, 40)}`, () => {
      const result = workOut(sum, JSON.stringify(document)) as { error?: string };
      assert.match(result.error ?? '', error);
    });
  }
  it('that is not JSON, or any JSON at all, gives a result or a reason', () => {
    for (const sum of SUMS) {
      assert.match((workOut(sum, '{"total":') as { error: string }).error, /not one JSON document/);
      fc.assert(fc.property(fc.json(), (text) => void workOut(sum, text)));
    }
  });
  it('a part that cannot be taken is named by its place', () =>
    assert.deepEqual(
      workOut(
        'pay',
        JSON.stringify({
          cashTotal: 5,
          cardTotal: 5,
          ways: [cash],
          parts: [{ way: 'cash', gives: 3 }, { way: 'sheep' }],
        }),
      ),
      { error: 'unknown way to pay', at: 1 },
    ));
});

describe('sharing out and giving back', () => {
  it('shares sum to the total, differ by at most one, and the first get more', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1e9, max: 1e9 }),
        fc.integer({ min: 1, max: 50 }),
        (total, n) => {
          const shares = shareEqually(total, n);
          assert.equal(
            shares.reduce((all, each) => all + each, 0),
            total,
          );
          assert.ok(shares[0]! - shares.at(-1)! <= 1);
          assert.deepEqual(
            shares,
            shares.toSorted((a, b) => b - a),
          );
        },
      ),
    );
  });
  it('returning everything in any portions gives back exactly what was paid', () => {
    const portions = fc.array(fc.integer({ min: 1, max: 5000 }), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(
        fc.integer({ min: -1e9, max: 1e9 }),
        fc.constantFrom(1, -1),
        portions,
        (value, sign, sizes) => {
          const parts = sizes.map((size) => size * sign);
          const all = parts.reduce((sum, part) => sum + part, 0);
          const given = givenBack(value, all, parts);
          assert.equal(
            given.reduce((sum, each) => sum + each, 0),
            value,
          );
        },
      ),
    );
  });
});
