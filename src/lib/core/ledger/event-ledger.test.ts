import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { deviceId, EVENT, idOf } from '../testing/made-up-business';
import { chartWith, DEFAULT_CHART, setChart } from './chart';
import { handOverLedger, isNewSince } from './event-ledger';

const entry = (n: number, seq: number) => ({ id: idOf(90, n), device: deviceId(1), seq });
const newId = (): string => idOf(91, 1);

describe('what is new since a ledger was handed over', () => {
  const handed = (stamp: string, seq: number, leftOut: readonly string[] = []) => ({
    ...{ stamp, heads: [{ device: deviceId(1), seq }], leftOut },
  });

  it('is all of it before, and what came later after; the last time counts', () => {
    assert.equal(isNewSince([])(entry(1, 1)), true);
    const isNew = isNewSince([handed('b', 5), handed('a', 9)]);
    assert.deepEqual([isNew(entry(1, 5)), isNew(entry(2, 6))], [false, true]);
    // A device that nobody had heard of is new, all of it.
    assert.equal(isNew({ ...entry(3, 1), device: deviceId(2) }), true);
  });

  it('is also what changed nothing then and does now', () => {
    assert.equal(isNewSince([handed('a', 5, [idOf(90, 1)])])(entry(1, 3)), true);
  });

  it('is noted with how far each device was known', () => {
    const [draft] = handOverLedger(newId, EVENT, 'day', {
      ...{ heads: [{ device: deviceId(1), seq: 4 }], leftOut: [] },
      lines: [],
    });
    assert.deepEqual(draft?.body, {
      ...{ event: EVENT, groupedBy: 'day', leftOut: [], postings: 0 },
      heads: [{ device: deviceId(1), seq: 4 }],
    });
  });
});

describe('the vendor’s own accounts', () => {
  const all = () =>
    (Object.keys(DEFAULT_CHART) as (keyof typeof DEFAULT_CHART)[]).map((head) => ({
      ...{ head, number: DEFAULT_CHART[head].number, name: DEFAULT_CHART[head].name },
    }));
  const said = (head: string, more: object) =>
    setChart(
      newId,
      all().map((each) => (each.head === head ? { ...each, ...more } : each)),
    );

  it('are said where they are not as they begin', () => {
    const made = said('sales', { number: ' 8400 ', name: 'Plants' });
    assert.ok(made.ok);
    const { accounts } = made.drafts[0]!.body as Parameters<typeof chartWith> extends [infer A]
      ? { accounts: A }
      : never;
    assert.deepEqual(accounts, [{ head: 'sales', number: '8400', name: 'Plants' }]);
    const chart = chartWith(accounts);
    assert.deepEqual(chart.sales, { kind: 'Revenues', number: '8400', name: 'Plants' });
    assert.deepEqual(chart.service, DEFAULT_CHART.service);
  });

  it('need names, each its own among those of its kind', () => {
    const code = (made: ReturnType<typeof said>) => (made.ok ? '' : made.refusal.code);
    assert.equal(code(said('sales', { name: ' ' })), 'chart/no-name');
    assert.equal(code(said('sales', { name: DEFAULT_CHART.service.name })), 'chart/name-twice');
    assert.equal(code(said('sales', { name: DEFAULT_CHART.cost.name })), '');
  });
});
