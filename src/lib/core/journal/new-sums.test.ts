import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { declaredSums, FIRST_SUMS, newSums } from './new-sums';
import { sumNames, sumsOf, type SumSpec } from './sums';

describe('sums that a store has not met', () => {
  it('are those that are declared otherwise, or were not there', () => {
    assert.deepEqual(newSums(declaredSums()), []);
    const { stock: _stock, ...without } = declaredSums();
    assert.deepEqual(newSums(without), ['stock']);
    assert.deepEqual(newSums({ ...declaredSums(), eventTips: 'otherwise' }), ['eventTips']);
  });

  it('are none for a store from before it was written down, but what was declared since', () => {
    // A sum that is declared anew, or otherwise, must not be added here: stores work it out then.
    for (const name of Object.keys(FIRST_SUMS)) assert.ok((sumNames as string[]).includes(name));
    assert.deepEqual(
      newSums(FIRST_SUMS),
      sumNames.filter((name) => FIRST_SUMS[name] !== declaredSums()[name]),
    );
  });
});

describe('a sum that adds an account which came later', () => {
  it('is the same sum: what stores had added up stays', () => {
    // As they were declared before there were deposits.
    const { heldSums, eventPaidIn, eventAccounts } = declaredSums();
    assert.deepEqual(
      { heldSums, eventPaidIn, eventAccounts },
      {
        heldSums: '92ee7616389ce783ae0c223003c75e789e58e3c521fd8503f8b5210fc605c9a3',
        eventPaidIn: 'cb7ec035d51709899bd4ae9bb2df12954dbf99f2a7d1ad6940339d7feea50fca',
        eventAccounts: '6b3505b66f1e389f4867c110476ed76af96f9ba1195c323a9a092fa0f5c16bdd',
      },
    );
  });
});

const byName = (a: { readonly sum: string; readonly key: object }, b: typeof a): number =>
  `${a.sum} ${JSON.stringify(a.key)}` < `${b.sum} ${JSON.stringify(b.key)}` ? -1 : 1;

describe('a sum', () => {
  it('cannot be declared over a field that no posting has, nor an account that there is not', () => {
    // @ts-expect-error: no posting has a colour.
    const byColour: SumSpec = { by: { event: 'colour' }, fields: {} };
    const ofPurse: SumSpec = {
      by: { event: 'event' },
      // @ts-expect-error: there is no account of that name.
      fields: { all: { figure: 'amount', accounts: ['purse'] } },
    };
    assert.deepEqual([byColour.by, Object.keys(ofPurse.fields)], [{ event: 'colour' }, ['all']]);
  });

  it('adds a posting once, by what it is of, and leaves out what has no such field', () => {
    const rows = sumsOf({
      entry: 'e',
      kind: 'payment.taken',
      event: null,
      day: '2026-11-22',
      hour: null,
      postings: [
        { account: 'slip:s', amount: -500, way: 'cash', documents: 1 },
        { account: 'drawer:d', amount: 700, drawer: 'd', documents: 1 },
        { account: 'drawer:d', amount: -200, drawer: 'd' },
      ],
    });
    const account = (name: string, amount: number) => ({
      sum: 'eventAccounts',
      key: { event: 'none', account: name },
      fields: { amount },
    });
    assert.deepEqual(
      rows.toSorted(byName),
      [
        // All slips are one account.
        account('slip', -500),
        account('drawer:d', 500),
        {
          sum: 'eventWays',
          key: { event: 'none', way: 'cash' },
          fields: { parts: 1, takings: 500 },
        },
        { sum: 'drawerSums', key: { drawer: 'd' }, fields: { parts: 1, handed: 700, change: 200 } },
      ].toSorted(byName),
    );
  });
});
