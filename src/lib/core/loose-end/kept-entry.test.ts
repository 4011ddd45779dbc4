import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { draft } from '../daybook/kinds';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { customerDraft, idOf, item } from '../testing/made-up-business';
import { looseEndOf, openOnes, settleKept, waysToSettle, type KeptEntry } from './kept-entry';

const now = Date.UTC(2026, 10, 22, 9);
const writer = new DeviceWriter(1);
const { setStamp: _stamp, ...goods } = item(1, 450);
const price = { ...goods, barcodes: [], taxes: [] };
const [barredPrice, sale, barredCustomer] = writer.append(
  [
    draft('item.set', writer.newId(), null, { ...price, price: 1 }),
    writer.sale([[1, 2]], 0, now).at(-1)!,
    customerDraft(1, 'Wren', writer.newId),
  ],
  now,
);
const kept = (entry: KeptEntry['entry'] | undefined, state: KeptEntry['state']): KeptEntry => ({
  entry: entry!,
  state,
  code: 'right/missing',
  message: 'whoever wrote it was not allowed to',
});
let ids = 0;
const settle = (
  each: KeptEntry,
  how: 'accepted' | 'done over' | 'left out',
  standing?: Record<string, unknown>,
  reason = 'Ines asked me first',
) =>
  settleKept({
    newId: () => idOf(40, (ids += 1)),
    newSalt: () => 'another-16-chars',
    kept: each,
    how,
    reason,
    standing,
    settlements: [],
  });

describe('settling an entry that was not allowed', () => {
  it('a price that was barred can be done over or left out, a sale that counts only accepted', () => {
    assert.deepEqual(waysToSettle(kept(barredPrice, 'barred')), ['done over', 'left out']);
    assert.deepEqual(waysToSettle(kept(sale, 'doubted')), ['accepted']);
    for (const state of ['unread', 'unfit'] as const)
      assert.deepEqual(waysToSettle(kept(barredPrice, state)), ['accepted']);
  });

  it('doing over says the same again, and the record names the entry', () => {
    const outcome = settle(kept(barredPrice, 'barred'), 'done over');
    assert.ok(outcome.ok);
    const [again, record] = outcome.drafts;
    assert.equal(again!.body['price'], 1);
    assert.deepEqual(record!.body, {
      looseEnd: `entry:${barredPrice!.id}`,
      how: 'done over',
      reason: 'Ines asked me first',
    });
  });

  it('a customer is done over with what is personal apart, under another salt', () => {
    const outcome = settle(kept(barredCustomer, 'barred'), 'done over');
    assert.ok(outcome.ok);
    assert.equal(outcome.drafts[0]!.private?.data['name'], 'Wren');
    assert.equal(outcome.drafts[0]!.private.salt, 'another-16-chars');
  });

  it('leaving out says again what stood before', () => {
    const outcome = settle(kept(barredPrice, 'barred'), 'left out', { ...price, setStamp: 'x' });
    assert.ok(outcome.ok);
    assert.deepEqual(outcome.drafts[0]!.body, price);
  });

  it('leaving out what was never there puts it away', () => {
    const outcome = settle(kept(barredPrice, 'barred'), 'left out');
    assert.ok(outcome.ok);
    assert.deepEqual(outcome.drafts[0]!.body, { ...price, price: 1, isActive: false });
  });

  it('asks for a reason, for a way that fits, and only once', () => {
    const each = kept(barredPrice, 'barred');
    const code = (outcome: ReturnType<typeof settle>) => (outcome.ok ? null : outcome.refusal.code);
    assert.equal(code(settle(each, 'left out', undefined, '  ')), 'looseEnd/no-reason');
    assert.equal(code(settle(kept(sale, 'doubted'), 'left out')), 'looseEnd/not-so');
    const settlements = [{ looseEnd: looseEndOf(each) }];
    const again = settleKept({
      newId: () => idOf(41, 1),
      newSalt: () => '',
      kept: each,
      how: 'left out',
      reason: 'again',
      standing: undefined,
      settlements,
    });
    assert.equal(code(again), 'looseEnd/settled');
    assert.deepEqual(openOnes([each, kept(sale, 'doubted')], settlements), [kept(sale, 'doubted')]);
  });
});
