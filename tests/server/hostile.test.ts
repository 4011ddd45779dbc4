/** The hostile device against a real MariaDB: whatever it sends, nothing throws and nobody else is held up. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import fc from 'fast-check';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { DeviceWriter, step } from '../../src/lib/core/testing/arbitrary-daybook';
import { BUSINESS, deviceId, personId } from '../../src/lib/core/testing/made-up-business';
import { foundedDrafts } from '../../src/lib/core/testing/founded';
import { BookReader } from '../../src/lib/server/books/read-books';
import { append } from '../../src/lib/server/daybook/append';
import { keptEntries } from '../../src/lib/server/daybook/kept';
import { pull } from '../../src/lib/server/daybook/pull';
import { rebuild } from '../../src/lib/server/daybook/rebuild';
import { forged, mutation } from '../support/hostile';
import { SEED } from '../support/random';
import { startAll } from '../support/start-all';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 10);
const [OWNER, HELPER] = [personId(1), personId(3)];
const refOf = (n: number) => ({ business: BUSINESS, device: deviceId(n) });
let t: TestDatabase;
before(async () => {
  t = await testDatabase();
  for (const n of [1, 2, 3]) await t.enrol(BUSINESS, deviceId(n));
});
after(() => t.end());

describe(`a hostile device at the server (seed ${String(SEED)})`, () => {
  it('is answered whatever it sends; honest sales beside it count, and books rebuild to the same', async () => {
    const [desk, honest, hostile] = [new DeviceWriter(1), new DeviceWriter(2), new DeviceWriter(3)];
    const [owner, ...rest] = foundedDrafts(desk);
    await append(t.database, refOf(1), desk.append([owner!], now - 60_000, null), now);
    await append(t.database, refOf(1), desk.append(rest, now - 50_000, OWNER), now);
    const acts = fc.sample(
      fc.record({
        what: step,
        mutations: fc.array(mutation, { minLength: 0, maxLength: 3 }),
        isRefitted: fc.boolean(),
        lag: fc.constantFrom(0, 0, -946_080_000_000, 2_207_520_000_000),
      }),
      { numRuns: 600, seed: SEED },
    );
    let [sold, at] = [0, now];
    for (let from = 0; from < acts.length; from += 20) {
      const drafts = acts.slice(from, from + 20).flatMap(({ what, mutations, isRefitted }) => {
        try {
          return hostile
            .steps(what, at)
            .flatMap((each): Draft[] => [forged(each, mutations, isRefitted) ?? []].flat());
        } catch {
          return [];
        }
      });
      at += 30_000;
      const clock = Math.max(1, at + acts[from]!.lag);
      const entries = hostile.append(drafts.slice(0, 200), clock, HELPER);
      if (entries.length > 0) {
        const answer = await append(t.database, refOf(3), entries, at);
        assert.equal(answer.refused, null, answer.refused?.message);
        assert.equal(answer.have, entries.at(-1)!.seq);
      }
      const sale = honest.append(honest.sale([[1, 1]], 0, at), at, HELPER);
      const answer = await append(t.database, refOf(2), sale, at);
      assert.deepEqual([answer.refused, answer.kept], [null, []]);
      sold += 1;
    }
    const books = new BookReader(t.database);
    const sales = await books.rows(BUSINESS, 'sales', { device: deviceId(2) });
    assert.equal(sales.length, sold);
    const { kept, more } = await keptEntries(t.database, BUSINESS);
    assert.ok(kept.length + more > 20);
    assert.ok(kept.every(({ entry }) => entry.device === deviceId(3)));
    const before = await books.all(BUSINESS);
    await rebuild(t.database, BUSINESS);
    assert.deepEqual(await books.all(BUSINESS), before);
    await pull(t.database, refOf(1), 0);
    await startAll(t.database, BUSINESS, at);
  });
});
