import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Draft } from '../daybook/chain';
import { readEntry } from '../daybook/read-entry';
import { keepSlip, keptSlips, openFrom, takeUp } from '../set-aside/kept-slips';
import { slipEnded } from '../set-aside/slip-ended';
import { emptySlip, putItem, type OpenSlip } from '../slip/open-slip';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { EVENT, idOf, item } from '../testing/made-up-business';
import { leftOnSlip } from './left-on-slip';

const NOW = Date.UTC(2026, 10, 22, 9);
const put = (slip: OpenSlip, n: number, key: number): OpenSlip => {
  const outcome = putItem(slip, item(n, 450), 1000, idOf(60, key));
  assert.ok(outcome.ok);
  return outcome.slip;
};

describe('what is left on a slip that is gone', () => {
  it('is what another device put on it out of touch, until somebody has looked', () => {
    const [first, second] = [new DeviceWriter(1), new DeviceWriter(2)];
    const books = new Books();
    const say = (writer: DeviceWriter, drafts: readonly Draft[], at: number): void => {
      for (const entry of writer.append(drafts, NOW + at)) {
        const read = readEntry(entry);
        assert.ok(read.ok, JSON.stringify(read));
        books.apply(changesOf(read.entry));
      }
    };
    const keep = (slip: OpenSlip, known: Parameters<typeof keepSlip>[0]['known']) => {
      const kept = keepSlip({
        newId: first.newId,
        event: EVENT,
        slip,
        sort: 'tab',
        name: 'Bench',
        known,
      });
      assert.ok(kept.ok);
      return kept.drafts;
    };
    const left = (settled: readonly { looseEnd: string }[] = []) =>
      leftOnSlip(books.rows('slips'), books.rows('slipLines'), settled);
    say(first, keep(put(emptySlip(idOf(61, 1)), 1, 1), []), 0);
    const [onList] = keptSlips(books.rows('slips'), books.rows('slipLines'));
    const inHand = openFrom(onList!, undefined);
    say(second, takeUp(second.newId, EVENT, inHand.id).drafts, 1000);
    // The first device puts another thing on it; the second one does not hear of that and ends it.
    say(first, keep(put(inHand, 2, 2), books.rows('slipLines')), 2000);
    say(second, [slipEnded(second.newId, EVENT, inHand, 'rung')], 3000);
    assert.deepEqual(
      left().map(({ lines }) => lines.map(({ item: id }) => id)),
      [[item(2, 450).id]],
    );
    assert.deepEqual(left([{ looseEnd: `left:${inHand.id}` }]), []);
  });

  it('is nothing where whoever ended it knew all of it', () => {
    const slips = [
      { id: 's', name: '', state: 'gone', known: [{ id: 'l', stamp: 'a' }], at: '', by: null },
      { id: 't', name: '', state: 'gone', known: null, at: '', by: null },
    ];
    const line = { ...item(1, 450), item: null, quantity: 1000, detail: '' } as never;
    const lines = [
      { id: 'l', slip: 's', line, setStamp: 'a' },
      { id: 'm', slip: 't', line, setStamp: 'z' },
    ];
    assert.deepEqual(leftOnSlip(slips, lines, []), []);
  });
});
