import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import { stampOf } from '../daybook/clock';
import { countAccepted } from '../daybook/kinds/count-set';
import { looseEndSettled } from '../daybook/kinds/loose-end-settled';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { deviceId, EVENT, idOf, itemId } from '../testing/made-up-business';
import { lateCounts, settleLateCount, type LateCount } from './late-count';

const NOW = Date.UTC(2026, 10, 22, 9);
const accepted: Row<'countsAccepted'> = {
  ...{ event: EVENT, device: 'd', by: null, at: new Date(NOW).toISOString() },
  ...{ id: `${idOf(70, 1)}:0`, count: idOf(51, 1), place: EVENT, item: itemId(1) },
  ...{ counted: 17_000, expected: 20_000, lost: 540, retail: 1350, reason: 'gone' },
  stamp: stampOf({ millis: NOW, counter: 0 }, deviceId(1)),
};
/** On hand, where nothing has moved since it was counted. */
const late = (onHand: number, settled: readonly string[] = [], now = NOW): readonly LateCount[] =>
  lateCounts(
    [accepted],
    [],
    () => onHand,
    settled.map((looseEnd) => ({ looseEnd })),
    now,
  );
let ids = 0;
const settle = (of: LateCount, isPutRight: boolean, reason: string) =>
  settleLateCount({
    ...{ newId: () => idOf(71, (ids += 1)), late: of, isPutRight, reason },
    item: { cost: 180_000, price: 450 },
  });

describe('what was accepted and the books say otherwise', () => {
  it('is a loose end, put right by accepting it once more against what they say now', () => {
    assert.deepEqual(late(17_000), []);
    const [found] = late(14_000);
    assert.equal(found?.by, 3000);
    const none = settle(found, true, ' ');
    assert.equal(none.ok ? '' : none.refusal.code, 'looseEnd/no-reason');
    const done = settle(found, true, 'Ines was out of touch');
    assert.ok(done.ok);
    const body = countAccepted.body.parse(done.drafts[0]?.body);
    assert.deepEqual(body.goods, [
      {
        ...{ item: itemId(1), counted: 17_000, expected: 14_000, stamp: accepted.stamp },
        ...{ lost: -540, retail: -1350 },
      },
    ]);
    // What it moves counts from when it was counted, so that nothing is off any more.
    const read = readEntry(new DeviceWriter(1).append(done.drafts, NOW + 9000)[0]!);
    assert.ok(read.ok);
    const books = new Books();
    books.apply(changesOf(read.entry));
    const [move] = books.rows('moves');
    assert.deepEqual([move?.quantity, move?.stamp], [3000, accepted.stamp]);
    const all = [accepted, ...books.rows('countsAccepted')];
    assert.deepEqual(
      lateCounts(all, books.rows('moves'), () => 17_000, [], NOW),
      [],
    );
  });

  it('may be left as it is; being off by something else is another one', () => {
    const left = settle(late(14_000)[0]!, false, 'so be it');
    assert.ok(left.ok);
    const { looseEnd } = looseEndSettled.body.parse(left.drafts[0]?.body);
    assert.deepEqual(late(14_000, [looseEnd]), []);
    assert.equal(late(13_000, [looseEnd])[0]?.by, 4000);
    assert.equal(late(20_000, [looseEnd])[0]?.by, -3000);
  });

  it('is not looked for where moves are not kept any more', () =>
    assert.deepEqual(late(14_000, [], NOW + 13 * 86_400_000), []));
});
