import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import { looseEndSettled } from '../daybook/kinds/loose-end-settled';
import { EVENT, idOf, itemId } from '../testing/arbitrary-daybook';
import { lateCounts, settleLateCount, type LateCount } from './late-count';

const NOW = Date.UTC(2026, 10, 22, 9);
const saidBy = { event: EVENT, device: 'd', by: null, at: new Date(NOW).toISOString() };
const accepted: Row<'countsAccepted'> = {
  ...saidBy,
  id: `${idOf(70, 1)}:0`,
  count: idOf(51, 1),
  place: EVENT,
  item: itemId(1),
  counted: 17_000,
  expected: 20_000,
  stamp: '5',
  lost: 540,
  retail: 1350,
  reason: 'gone',
};
/** Sold, three of them, before they were counted: heard of later. */
const onHand = (sold: number) => (): number => 17_000 - sold;
const acceptedMove = {
  ...saidBy,
  ...{ id: 'm', place: EVENT, item: itemId(1), quantity: -3000, stamp: '6', doc: 'c' },
  kind: 'count.accepted',
} as Row<'moves'>;
const late = (sold: number, settled: readonly string[] = [], now = NOW): readonly LateCount[] =>
  lateCounts(
    [accepted],
    [acceptedMove],
    onHand(sold),
    settled.map((looseEnd) => ({ looseEnd })),
    now,
  );
let ids = 0;
const settle = (of: LateCount, isPutRight: boolean, reason: string, settled: string[] = []) =>
  settleLateCount({
    ...{ newId: () => idOf(71, (ids += 1)), late: of, isPutRight, cost: 180_000, reason },
    settlements: settled.map((looseEnd) => ({ looseEnd })),
  });

describe('something heard of after a count was accepted', () => {
  it('is a loose end with what puts it right, once', () => {
    assert.deepEqual(late(0), []);
    const [found] = late(3000);
    assert.equal(found?.by, 3000);
    const none = settle(found, true, ' ');
    assert.equal(none.ok ? '' : none.refusal.code, 'looseEnd/no-reason');
    const done = settle(found, true, 'Ines was out of touch');
    assert.ok(done.ok);
    const [moved, settled] = done.drafts;
    assert.deepEqual(
      [moved?.body['from'], moved?.body['to'], moved?.body['goods']],
      ['gone:counted', EVENT, [{ item: itemId(1), quantity: 3000, amount: 540 }]],
    );
    const { looseEnd } = looseEndSettled.body.parse(settled?.body);
    assert.deepEqual(late(3000, [looseEnd]), []);
    const again = settle(found, true, 'again', [looseEnd]);
    assert.equal(again.ok ? '' : again.refusal.code, 'looseEnd/settled');
    // One more that is heard of after that is another loose end, and only what is new of it.
    const [more] = late(4000, [looseEnd]);
    assert.equal(more?.by, 1000);
    assert.notEqual(more?.looseEnd, looseEnd);
    // And one that takes it back is as well.
    assert.equal(late(2000, [looseEnd])[0]?.by, -1000);
  });

  it('may be left as it is, and is not looked for where moves are not kept any more', () => {
    const left = settle(late(3000)[0]!, false, 'so be it');
    assert.deepEqual(left.ok && left.drafts.map(({ kind }) => kind), ['looseEnd.settled']);
    assert.deepEqual(late(3000, [], NOW + 13 * 86_400_000), []);
  });
});
