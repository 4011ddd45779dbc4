/** Every entry becomes one of five things, and nothing that it holds makes that fail. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Entry } from '../daybook/entry';
import { arbitraryDaybook, DeviceWriter } from '../testing/arbitrary-daybook';
import { BUSINESS, deviceId, EVENT } from '../testing/made-up-business';
import { foundedDrafts } from '../testing/founded';
import { becomes, changesIn, type Grounds } from './becomes';
import { Evidence } from './evidence';

const NOW = Date.UTC(2026, 10, 22, 9);
const NONE: Grounds = { evidence: null };
const writer = new DeviceWriter(1);
const [sale] = writer.append(writer.sale([[1, 2]], 0, NOW), NOW).slice(-1) as [Entry];
const evidence = (): Evidence =>
  new Evidence(
    BUSINESS,
    { id: deviceId(1), number: 1, lastSale: 0, lastRead: 0 },
    new Map([[deviceId(1), 1]]),
    NOW,
  );
function founded(): Evidence {
  const found = evidence();
  const desk = new DeviceWriter(1);
  for (const entry of desk.append(foundedDrafts(desk), NOW)) {
    const became = becomes(entry, { evidence: found });
    if (became.state === 'applied') found.take(became.known, became.changes);
  }
  return found;
}

describe('what becomes of an entry', () => {
  it('is applied where nobody judges it, with all that it changes', () => {
    const became = becomes(sale, NONE);
    assert.equal(became.state, 'applied');
    assert.ok(changesIn(became).length > 3);
  });

  it('is doubted where it has happened and the books say otherwise: it counts', () => {
    const became = becomes(sale, { evidence: founded() });
    assert.equal(became.state, 'doubted');
    assert.deepEqual(changesIn(became), changesIn(becomes(sale, NONE)));
  });

  it('is barred where nothing has happened and it was not allowed: it changes nothing', () => {
    const [stage] = writer.append(
      [{ id: writer.newId(), kind: 'tax.set', v: 1, event: null, body: foundedTax() }],
      NOW,
    );
    const became = becomes(stage!, { evidence: founded() });
    assert.equal(became.state, 'barred');
    assert.deepEqual(changesIn(became), []);
  });

  it('is unread where this version does not know it, or its body is not right', () => {
    for (const change of [{ kind: 'moon.landed' }, { v: 99 }, { body: {} }]) {
      const became = becomes({ ...sale, ...change }, NONE);
      assert.equal(became.state, 'unread');
      assert.deepEqual(changesIn(became), []);
    }
  });

  it('is unfit where a store refuses it, or working it out fails', () => {
    assert.equal(becomes(sale, { evidence: null, isRefused: true }).state, 'unfit');
    const became = becomes(sale, {
      evidence: null,
      changes: () => {
        throw new RangeError('beyond a safe integer');
      },
    });
    assert.deepEqual(
      [became.state, 'why' in became ? became.why : ''],
      ['unfit', 'beyond a safe integer'],
    );
  });

  it('is said of any entry, whatever is done to its body', () => {
    fc.assert(
      fc.property(arbitraryDaybook, fc.json(), (entries, json) => {
        for (const entry of entries)
          for (const body of [entry.body, JSON.parse(json) as Entry['body']])
            assert.ok(
              ['applied', 'doubted', 'barred', 'unread', 'unfit'].includes(
                becomes({ ...entry, body, event: EVENT }, { evidence: founded() }).state,
              ),
            );
      }),
      { numRuns: 20 },
    );
  });
});

const foundedTax = (): Record<string, unknown> => {
  const desk = new DeviceWriter(1);
  return foundedDrafts(desk).find(({ kind }) => kind === 'tax.set')!.body;
};
