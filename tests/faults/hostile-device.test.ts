/**
 * One hostile device among honest ones, under a helper's own name: it writes whatever its kinds' schemas
 * take, with any stamps. Thousands of runs; the seed is printed. RUNS and SEED ask for others.
 */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { Books } from '../../src/lib/core/books/books';
import type { Change } from '../../src/lib/core/books/change';
import { changesOf } from '../../src/lib/core/books/changes';
import type { TableName } from '../../src/lib/core/books/tables';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { stampOf } from '../../src/lib/core/daybook/clock';
import type { Entry } from '../../src/lib/core/daybook/entry';
import type { KnownEntry } from '../../src/lib/core/daybook/kinds';
import { readEntry } from '../../src/lib/core/daybook/read-entry';
import { handedBackIn } from '../../src/lib/core/journal/take-back';
import { Evidence, type WritingDevice } from '../../src/lib/core/judging/evidence';
import { effectOf, judgeEntry } from '../../src/lib/core/judging/judge-entry';
import { isBarred } from '../../src/lib/core/people/judge';
import { DeviceWriter, step } from '../../src/lib/core/testing/arbitrary-daybook';
import { BUSINESS, deviceId, itemId, personId } from '../../src/lib/core/testing/made-up-business';
import { foundedDrafts } from '../../src/lib/core/testing/founded';
import { calledOther, forged, mutation, type Mutation } from '../support/hostile';
import { SEED, TIMES } from '../support/random';

const RUNS = 1500 * TIMES;
const NOW = Date.UTC(2026, 10, 22, 10);
const [OWNER, HELPER] = [personId(1), personId(3)];

type State = 'applied' | 'doubted' | 'barred';
interface Judged {
  readonly entry: KnownEntry;
  readonly state: State;
  readonly changes: readonly Change[];
}

/** As the server takes entries in, without a database. */
class Taking {
  readonly evidence: Evidence;
  readonly all: Judged[] = [];
  readonly #devices = new Map<string, WritingDevice>();
  #now = NOW;

  constructor(numbers: readonly number[]) {
    for (const number of numbers)
      this.#devices.set(deviceId(number), {
        id: deviceId(number),
        number,
        lastSale: 0,
        lastRead: 0,
      });
    const known = new Map([...this.#devices.values()].map(({ id, number }) => [id, number]));
    this.evidence = new Evidence(BUSINESS, this.#devices.values().next().value!, known, NOW);
  }

  take(entry: Entry): Judged | null {
    this.#now += 1000;
    const isAhead = Number.parseInt(entry.stamp.slice(0, 12), 16) > this.#now + 600_000;
    const held = stampOf({ millis: this.#now, counter: 0 }, entry.device);
    const read = readEntry(isAhead ? { ...entry, held } : entry);
    if (!read.ok) return null;
    const surroundings = this.evidence as { device: WritingDevice; arrival: number };
    surroundings.device = this.#devices.get(entry.device)!;
    surroundings.arrival = this.#now;
    const verdict = judgeEntry(read.entry, this.evidence);
    const state: State = verdict === null ? 'applied' : effectOf(read.entry, verdict);
    const changes = state === 'barred' ? [] : changesOf(read.entry);
    if (state !== 'barred') this.evidence.take(read.entry, changes);
    const judged = { entry: read.entry, state, changes };
    this.all.push(judged);
    return judged;
  }
}

interface Act {
  readonly isHostile: boolean;
  readonly what: Parameters<DeviceWriter['steps']>[0];
  readonly mutations: readonly Mutation[];
  readonly isRefitted: boolean;
  /** A sale that adds up in every figure, and calls its goods others. */
  readonly calls: number | null;
  readonly lag: number;
}
const acts = fc.array(
  fc.record({
    isHostile: fc.boolean(),
    what: step,
    mutations: fc.array(mutation, { minLength: 1, maxLength: 3 }),
    isRefitted: fc.boolean(),
    calls: fc.option(fc.integer({ min: 1, max: 4 })),
    lag: fc.oneof(
      fc.constant(0),
      fc.constantFrom(-30 * 365 * 86_400_000, 70 * 365 * 86_400_000, 3_600_000, -3_600_000),
    ),
  }),
  { minLength: 1, maxLength: 25 },
);

/** Set-up that a helper without rights must not change, whatever they write. */
const SET_UP: readonly TableName[] = [
  'businesses',
  'taxes',
  'items',
  'ways',
  'makers',
  'categories',
  'photos',
  'tables',
  'staff',
  'events',
  'places',
  'suppliers',
  'supplies',
];

function run(all: readonly Act[]): Taking {
  const [desk, honest, hostile] = [new DeviceWriter(1), new DeviceWriter(2), new DeviceWriter(3)];
  const taking = new Taking([1, 2, 3]);
  const [owner, ...rest] = foundedDrafts(desk);
  for (const entry of desk.append([owner!], NOW - 60_000, null)) taking.take(entry);
  for (const entry of desk.append(rest, NOW - 50_000, OWNER))
    assert.equal(taking.take(entry)?.state, 'applied');
  all.forEach((act, n) => {
    const at = NOW + n * 2000;
    const writer = act.isHostile ? hostile : honest;
    let drafts: readonly Draft[];
    try {
      drafts = writer.steps(act.what, at);
    } catch {
      return; // Such a step cannot be made here.
    }
    if (act.isHostile)
      drafts =
        act.what.does === 'sale' && act.calls !== null
          ? drafts.map((each) => calledOther(each, itemId(act.calls ?? 1)))
          : drafts.flatMap((each) => forged(each, act.mutations, act.isRefitted) ?? []);
    const clock = act.isHostile ? Math.max(1, at + act.lag) : at;
    for (const entry of writer.append(drafts, clock, HELPER)) taking.take(entry);
  });
  return taking;
}

const rowsOf = (judged: readonly Judged[], tables: readonly TableName[]): string => {
  const books = new Books();
  for (const { changes } of judged) books.apply(changes);
  // The stage of an event is for anybody to say, and everybody sets their own PIN.
  return JSON.stringify(
    tables.map((table) => books.rows(table).map((row) => ({ ...row, ...STAGES_AND_PIN }))),
  );
};

/** What everybody may set: how far an event is, what is brought to it, and their own PIN. */
const STAGES_AND_PIN = {
  packedStamp: null,
  tradingStamp: null,
  countedStamp: null,
  settledStamp: null,
  pin: null,
  pinStamp: null,
  things: null,
  bringStamp: null,
};

const fromHostile = ({ entry }: Judged): boolean => entry.device === deviceId(3);

describe(`a hostile device among honest ones (seed ${String(SEED)})`, () => {
  const hold = (property: (taking: Taking) => void): void =>
    fc.assert(
      fc.property(acts, (all) => property(run(all))),
      { numRuns: RUNS, seed: SEED, includeErrorInReport: true },
    );

  it('gains no right and changes no set-up under a helper’s name', () => {
    hold((taking) => {
      const honest = taking.all.filter((each) => !fromHostile(each));
      assert.equal(rowsOf(taking.all, SET_UP), rowsOf(honest, SET_UP));
      const people = new Set(taking.all.filter(fromHostile).map(({ entry }) => entry.by));
      for (const by of people) assert.ok(by === HELPER);
      assert.deepEqual(taking.evidence.people.at(HELPER, 'f')?.rights, ['stock.move']);
      assert.equal(taking.evidence.people.at(HELPER, 'f')?.role, 'helper');
    });
  });

  it('brings what it sold at the vendor’s prices, paid, or a loose end names the sale', () => {
    hold((taking) => {
      for (const { entry, state } of taking.all.filter(fromHostile)) {
        if (entry.kind !== 'sale.rung' || state !== 'applied') continue;
        const { lines, total, payments, day } = entry.body;
        const least = lines.reduce((all, { item, price, quantity }) => {
          const listed = [1, 2, 3, 4].find((n) => itemId(n) === item);
          const each = listed === undefined ? price : Math.max(listed * 105, 0);
          return all + Math.floor((each * quantity * 0.95) / 1000) - 1;
        }, 0);
        assert.ok(total >= least, `${String(total)} for goods of ${String(least)}`);
        assert.equal(day, '2026-11-22');
        const parts = payments.map((id) => taking.evidence.books.row('payments', id));
        assert.equal(
          parts.reduce((all, part) => all + (part?.clears ?? Number.NaN), 0),
          total,
        );
      }
    });
  });

  it('takes nothing out of a drawer, and takes no sale back, but a loose end names it', () => {
    hold((taking) => {
      for (const { entry, state } of taking.all.filter(fromHostile)) {
        if (state !== 'applied') continue;
        assert.notEqual(entry.kind, 'sale.voided');
        if (entry.kind === 'payment.reversed') {
          const part = taking.evidence.books.row('payments', entry.body.payment);
          // Its own, and of a slip that was not rung up before.
          assert.equal(part?.device, deviceId(3));
          assert.equal(
            handedBackIn(entry.body.takes),
            part.charge + part.surcharge + part.tip - part.change,
          );
        }
        if (entry.kind === 'payment.taken') assert.equal(entry.body.rounding, 0);
        if (entry.kind === 'drawer.counted')
          assert.equal(entry.body.difference, entry.body.counted - entry.body.expected);
      }
    });
  });

  it('blocks nobody: what honest devices write counts, whatever was written before it', () => {
    hold((taking) => {
      const barred = taking.all.filter((each) => !fromHostile(each) && each.state === 'barred');
      // Helpers' own set-up is barred, and a void that they take back; and what speaks of a sale, an invoice, a list or a
      // count that there is not. No event is settled by its stage alone.
      for (const { entry } of barred)
        assert.ok(
          isBarred(entry) ||
            (entry.kind === 'event.stage' && entry.body.stage === 'settled') ||
            /(receipt|invoice)\.asked|payment\.(result|asked)|hold\.decided|list\.packed|count\.noted/.test(
              entry.kind,
            ),
          entry.kind,
        );
    });
  });
});
