import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Draft } from '../daybook/chain';
import { readEntry } from '../daybook/read-entry';
import { emptySlip, putItem, removeLine, sayOfLine, type OpenSlip } from '../slip/open-slip';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { EVENT, idOf, item } from '../testing/made-up-business';
import { fits, keepSlip, keptSlips, moveLine, openFrom, takeUp, throwAway } from './kept-slips';

const now = Date.UTC(2026, 10, 22, 9);

/** Two devices that know all of each other's entries. */
class Stall {
  readonly #writers = [new DeviceWriter(1), new DeviceWriter(2)];
  readonly books = new Books();
  #at = now;

  write(device: 1 | 2, drafts: readonly Draft[]): number {
    for (const entry of this.#writers[device - 1]!.append(drafts, (this.#at += 1000))) {
      const read = readEntry(entry);
      assert.ok(read.ok, JSON.stringify(read));
      this.books.apply(changesOf(read.entry));
    }
    return drafts.length;
  }
  get kept() {
    return keptSlips(this.books.rows('slips'), this.books.rows('slipLines'));
  }
  keep(device: 1 | 2, slip: OpenSlip, name = '', sort: 'aside' | 'tab' = 'aside'): number {
    const { newId } = this.#writers[device - 1]!;
    const known = this.books.rows('slipLines').filter((row) => row.slip === slip.id);
    const outcome = keepSlip({ newId, event: EVENT, slip, sort, name, known });
    assert.ok(outcome.ok, JSON.stringify(outcome));
    return this.write(device, outcome.drafts);
  }
  newId(device: 1 | 2) {
    return this.#writers[device - 1]!.newId;
  }
}

const put = (slip: OpenSlip, n: number, key: number): OpenSlip => {
  const outcome = putItem(slip, item(n, 450), 1000, idOf(60, key));
  assert.ok(outcome.ok);
  return outcome.slip;
};
const slip = put(put(emptySlip(idOf(61, 1)), 1, 1), 2, 2);

describe('setting a slip aside', () => {
  it('and taking it up again gives the same slip', () => {
    const stall = new Stall();
    const said = sayOfLine(slip, idOf(60, 1), { note: 'by the gate', discount: { percent: '5' } });
    assert.ok(said.ok);
    const full: OpenSlip = {
      ...said.slip,
      note: 'back at noon',
      group: { name: 'M', percent: '5' },
    };
    stall.keep(1, full, 'Hazel');
    const [kept] = stall.kept;
    const { asTakenUp, ...again } = openFrom(kept!, undefined);
    assert.equal(asTakenUp?.length, 2);
    assert.deepEqual(again, {
      ...full,
      lines: full.lines.map((line) => JSON.parse(JSON.stringify(line)) as typeof line),
      touched: null,
      kept: { sort: 'aside', name: 'Hazel' },
    });
  });

  it('again writes only what changed: a line that is new, and one that is off', () => {
    const stall = new Stall();
    assert.equal(stall.keep(1, slip), 3);
    assert.equal(stall.keep(1, slip), 1);
    assert.equal(stall.keep(1, put(slip, 3, 3)), 2);
    const fewer = removeLine(slip, idOf(60, 1));
    assert.ok(fewer.ok);
    assert.equal(stall.keep(1, fewer.slip), 3);
    assert.deepEqual(
      stall.kept[0]!.lines.map(({ id }) => id),
      [idOf(60, 2)],
    );
  });

  it('lists the newest first, and what is gone no more', () => {
    const stall = new Stall();
    stall.keep(1, slip, 'first');
    stall.keep(2, { ...slip, id: idOf(61, 2) }, 'second');
    const names = (): readonly string[] => stall.kept.map(({ row }) => row.name);
    assert.deepEqual(names(), ['second', 'first']);
    stall.keep(1, slip, 'first');
    assert.deepEqual(names(), ['first', 'second']);
    stall.write(1, throwAway(stall.newId(1), EVENT, slip).drafts);
    assert.deepEqual(names(), ['second']);
  });

  it('what both devices add to the same one both stays', () => {
    const stall = new Stall();
    stall.keep(1, slip, 'Bench', 'tab');
    const [kept] = stall.kept;
    // Each goes on from what it knew.
    const mine = put(openFrom(kept!, undefined), 3, 3);
    const theirs = put(openFrom(kept!, undefined), 4, 4);
    stall.keep(1, mine, 'Bench', 'tab');
    const onlyNew = keepSlip({
      newId: stall.newId(2),
      event: EVENT,
      slip: theirs,
      sort: 'tab',
      name: 'Bench',
      known: kept!.lines,
    });
    assert.ok(onlyNew.ok);
    stall.write(2, onlyNew.drafts);
    assert.deepEqual(
      stall.kept[0]!.lines.map(({ id }) => id),
      [1, 2, 3, 4].map((n) => idOf(60, n)),
    );
  });

  it('says which device has taken it up, until it is put back', () => {
    const stall = new Stall();
    stall.keep(1, slip);
    stall.write(2, takeUp(stall.newId(2), EVENT, slip.id).drafts);
    assert.equal(stall.kept[0]!.row.state, 'taken');
    assert.equal(stall.kept[0]!.row.device, idOf(5, 2));
    stall.keep(2, slip);
    assert.equal(stall.kept[0]!.row.state, 'open');
  });

  it('a line goes to another tab, for the same person, and is found there', () => {
    const stall = new Stall();
    stall.keep(1, { ...slip, id: idOf(61, 2) }, 'Bench', 'tab');
    const said = sayOfLine(put(emptySlip(idOf(61, 1)), 3, 3), idOf(60, 3), { person: 'Wren' });
    assert.ok(said.ok);
    const [line] = said.slip.lines;
    stall.write(2, moveLine(stall.newId(2), EVENT, line!, idOf(61, 2)).drafts);
    const bench = openFrom(stall.kept[0]!, undefined);
    assert.deepEqual(
      bench.lines.map(({ item: id, person }) => [id, person]),
      [
        [item(1, 0).id, undefined],
        [item(2, 0).id, undefined],
        [item(3, 0).id, 'Wren'],
      ],
    );
  });

  it('wants something on it, a tab a name', () => {
    const keep = (sort: 'aside' | 'tab', name: string) =>
      keepSlip({
        newId: new DeviceWriter(1).newId,
        event: EVENT,
        slip: emptySlip(idOf(61, 9)),
        sort,
        name,
        known: [],
      });
    const code = (outcome: ReturnType<typeof keep>) => (outcome.ok ? null : outcome.refusal.code);
    assert.deepEqual(
      [code(keep('aside', 'Hazel')), code(keep('tab', ' ')), code(keep('tab', 'Bench'))],
      ['aside/nothing-on-it', 'tab/no-name', null],
    );
  });

  it('is found by its name, the customer, or what is on it', () => {
    const stall = new Stall();
    stall.keep(1, slip, 'by the gate');
    const [kept] = stall.kept;
    for (const [typed, is] of [
      ['gate', true],
      ['thing 2', true],
      ['hazel thing', true],
      ['zebra', false],
    ] as const)
      assert.equal(fits(kept!, typed, 'Hazel Birk'), is, typed);
  });
});
