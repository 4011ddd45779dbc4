import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import { SUPPLIERS } from '../books/names';
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type KnownEntry } from '../daybook/kinds';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { EVENT, item, itemId } from '../testing/made-up-business';
import {
  acceptCount,
  beginCount,
  countedOf,
  countNumber,
  endCount,
  offAccepted,
  notCounted,
  noteCounted,
  type CountOutcome,
} from './count';

const NOW = Date.UTC(2026, 10, 22, 9);
const [A, B] = [itemId(1), itemId(2)];
const ITEMS = new Map([1, 2].map((n) => [itemId(n), { ...item(n, 450), cost: 180_000 }]));

/** A stall where two devices sell and count, each hearing of the other late or soon. */
class Stall {
  readonly books = new Books();
  readonly #writers = new Map([1, 2].map((n) => [n, new DeviceWriter(n)]));
  readonly newId = (): string => this.#writers.get(1)!.newId();

  constructor() {
    const goods = [A, B].map((each) => ({ item: each, quantity: 20_000 }));
    const move = { reason: 'delivered', from: SUPPLIERS, to: EVENT, goods, note: '' } as const;
    this.hear(this.write([draft('stock.moved', this.newId(), EVENT, move)], 0));
  }
  /** @param at Seconds after nine. */
  write(drafts: readonly Draft[], at: number, device = 1): readonly KnownEntry[] {
    return this.#writers
      .get(device)!
      .append(drafts, NOW + at * 1000)
      .map((entry) => {
        const read = readEntry(entry);
        assert.ok(read.ok, JSON.stringify(read));
        return read.entry;
      });
  }
  hear(entries: readonly KnownEntry[]): void {
    for (const entry of entries) this.books.apply(changesOf(entry));
  }
  sale(of: number, much: number): readonly Draft[] {
    return this.#writers.get(2)!.sale([[of, much]], 0, NOW);
  }
  done(outcome: CountOutcome, at: number, device = 1): string {
    assert.ok(outcome.ok, JSON.stringify(outcome));
    this.hear(this.write(outcome.drafts, at, device));
    return outcome.id;
  }
  begin(isBlind = false): string {
    const begun = beginCount({
      ...{ newId: this.newId, event: EVENT, name: '', place: EVENT, category: '' },
      ...{ isBlind, deviceNumber: 4, counts: this.books.rows('counts') },
    });
    return this.done(begun, 10);
  }
  count(id: string): Row<'counts'> {
    const row = this.books.row('counts', id);
    assert.ok(row !== undefined);
    return row;
  }
  onHand(): ReadonlyMap<string, number> {
    return new Map(
      this.books
        .rows('stock')
        .filter(({ place }) => place === EVENT)
        .map((row) => [row.item, row.quantity]),
    );
  }
  counted(id: string) {
    return countedOf({
      place: EVENT,
      notes: this.books.rows('countNotes').filter(({ count }) => count === id),
      moves: this.books.rows('moves'),
      onHand: this.onHand(),
      items: ITEMS,
      accepted: this.books.rows('countsAccepted'),
    });
  }
  off() {
    return offAccepted(
      this.books.rows('countsAccepted'),
      this.books.rows('moves'),
      (_place, of) => this.onHand().get(of) ?? 0,
      NOW,
    );
  }
  accept(id: string, at: number, device = 1): void {
    const all = { newId: this.newId, count: this.count(id), counted: this.counted(id), now: NOW };
    this.done(acceptCount({ ...all, reason: 'gone' }), at, device);
  }
  note(id: string, quantity: number, at: number, device = 1): void {
    this.done(noteCounted(this.newId, this.count(id), [{ item: A, quantity }]), at, device);
  }
}

describe('a count of stock', () => {
  it('compares with what was there at that moment: a sale that is heard of later explains itself', () => {
    const stall = new Stall();
    const id = stall.begin();
    assert.equal(countNumber(stall.count(id)), 'C4-1');
    // Sold at 20 on a device out of touch, counted at 30: 17 are there.
    const sold = stall.write(stall.sale(1, 3), 20, 2);
    stall.done(noteCounted(stall.newId, stall.count(id), [{ item: A, quantity: 17_000 }]), 30);
    assert.deepEqual(
      stall.counted(id).map(({ expected, difference, lost, retail }) => ({
        ...{ expected, difference, lost, retail },
      })),
      [{ expected: 20_000, difference: -3000, lost: 540, retail: 1350 }],
    );
    stall.hear(sold);
    assert.deepEqual(
      stall.counted(id).map(({ expected, difference }) => [expected, difference]),
      [[17_000, 0]],
    );
    // What is sold after it was counted says nothing about it.
    stall.hear(stall.write(stall.sale(1, 4), 40, 2));
    assert.equal(stall.counted(id)[0]?.difference, 0);
  });

  it('adds up what several people counted, and takes a miscount back', () => {
    const stall = new Stall();
    const id = stall.begin();
    const note = (quantity: number, device: number): void =>
      void stall.done(
        noteCounted(stall.newId, stall.count(id), [{ item: A, quantity }]),
        30 + device,
        device,
      );
    note(12_000, 1);
    note(9000, 2);
    note(-1000, 1);
    assert.deepEqual(
      stall.counted(id).map(({ counted, difference }) => [counted, difference]),
      [[20_000, 0]],
    );
    assert.deepEqual(
      notCounted(stall.onHand(), stall.books.rows('countNotes'), () => true),
      [B],
    );
  });

  it('puts the books right where it is accepted, with a reason, and nowhere else', () => {
    const stall = new Stall();
    const id = stall.begin();
    const notes = [A, B].map((each) => ({ item: each, quantity: 18_000 }));
    stall.done(noteCounted(stall.newId, stall.count(id), notes), 30);
    const accept = (reason: string, only?: ReadonlySet<string>): CountOutcome =>
      acceptCount({
        ...{ newId: stall.newId, count: stall.count(id), counted: stall.counted(id) },
        ...{ reason, only, now: NOW },
      });
    const none = accept(' ');
    assert.equal(none.ok ? '' : none.refusal.code, 'count/no-reason');
    stall.done(accept('the wind', new Set([A])), 40);
    assert.deepEqual([stall.onHand().get(A), stall.onHand().get(B)], [18_000, 20_000]);
    assert.deepEqual(
      stall.counted(id).map(({ isAccepted }) => isAccepted),
      [true, false],
    );
    stall.done(accept('all of it'), 50);
    assert.equal(stall.onHand().get(B), 18_000);
    const again = accept('again');
    assert.equal(again.ok ? '' : again.refusal.code, 'count/nothing');
    assert.deepEqual(stall.off(), []);
    stall.done(endCount(stall.newId, stall.count(id), 'done'), 60);
    const late = noteCounted(stall.newId, stall.count(id), notes);
    assert.equal(late.ok ? '' : late.refusal.code, 'count/ended');
  });

  it('finds what came in after it was accepted, and by how much it is off', () => {
    const stall = new Stall();
    const id = stall.begin();
    const sold = stall.write(stall.sale(1, 3), 20, 2);
    stall.note(id, 17_000, 30);
    stall.accept(id, 40);
    stall.hear(stall.write(stall.sale(1, 2), 45, 2));
    assert.deepEqual(stall.off(), []);
    stall.hear(sold);
    assert.deepEqual(
      stall.off().map(({ by }) => by),
      [3000],
    );
    assert.equal(stall.onHand().get(A), 12_000);
  });

  it('takes in what was counted elsewhere in the place and is heard of after it was accepted', () => {
    const stall = new Stall();
    const id = stall.begin();
    const other = noteCounted(stall.newId, stall.count(id), [{ item: A, quantity: 8000 }]);
    assert.ok(other.ok);
    const heardLater = stall.write(other.drafts, 35, 2);
    stall.note(id, 12_000, 30);
    stall.accept(id, 40);
    assert.equal(stall.onHand().get(A), 12_000);
    stall.hear(heardLater);
    assert.deepEqual(
      stall
        .counted(id)
        .map(({ counted, difference, isAccepted }) => [...[counted, difference, isAccepted]]),
      [[20_000, 8000, false]],
    );
    stall.accept(id, 50);
    assert.equal(stall.onHand().get(A), 20_000);
    assert.deepEqual(stall.off(), []);
  });

  it('finds what was accepted on two devices out of touch: it was taken off twice', () => {
    const stall = new Stall();
    const id = stall.begin();
    stall.note(id, 12_000, 30);
    const all = {
      newId: stall.newId,
      count: stall.count(id),
      counted: stall.counted(id),
      now: NOW,
    };
    const [one, other] = ['one', 'other'].map((reason) => acceptCount({ ...all, reason }));
    assert.ok(one?.ok === true && other?.ok === true);
    stall.hear(stall.write(one.drafts, 40));
    stall.hear(stall.write(other.drafts, 41, 2));
    assert.equal(stall.onHand().get(A), 4000);
    assert.deepEqual(
      stall.off().map(({ by }) => by),
      [8000],
    );
  });

  it('of before one that was accepted says nothing any more', () => {
    const stall = new Stall();
    const [first, second] = [stall.begin(), stall.begin()];
    stall.note(first, 12_000, 30);
    stall.note(second, 13_000, 40);
    stall.accept(second, 50);
    assert.equal(stall.counted(first)[0]?.isSuperseded, true);
    const all = { newId: stall.newId, count: stall.count(first), counted: stall.counted(first) };
    const none = acceptCount({ ...all, reason: 'x', now: NOW });
    assert.equal(none.ok ? '' : none.refusal.code, 'count/nothing');
    assert.equal(stall.onHand().get(A), 13_000);
    // A later one is compared with what was accepted.
    const third = stall.begin();
    stall.note(third, 13_000, 60);
    assert.equal(stall.counted(third)[0]?.difference, 0);
  });

  it('is not accepted when it is too long ago to be compared', () => {
    const stall = new Stall();
    const id = stall.begin();
    stall.note(id, 12_000, 30);
    const all = { newId: stall.newId, count: stall.count(id), counted: stall.counted(id) };
    const late = acceptCount({ ...all, reason: 'x', now: NOW + 13 * 86_400_000 });
    assert.equal(late.ok ? '' : late.refusal.code, 'count/too-old');
  });

  it('says the same in whichever order everything is heard of', () => {
    const act = fc.record({
      device: fc.constantFrom(1, 2),
      does: fc.constantFrom('sale', 'note'),
      much: fc.integer({ min: 1, max: 5 }),
    });
    fc.assert(
      fc.property(fc.array(act, { minLength: 1, maxLength: 20 }), fc.nat(), (acts, seed) => {
        const [one, other] = [new Stall(), new Stall()];
        const id = one.begin();
        const entries = acts.flatMap(({ device, does, much }, at) => {
          const noted = noteCounted(one.newId, one.count(id), [{ item: A, quantity: much * 1000 }]);
          const drafts = does === 'sale' ? one.sale(1, much) : noted.ok ? noted.drafts : [];
          return one.write(drafts, 100 + at, does === 'sale' ? 2 : device);
        });
        other.hear(entries.toSorted((a, b) => hash(a.id, seed) - hash(b.id, seed)));
        one.hear(entries);
        assert.deepEqual(other.counted(id), one.counted(id));
      }),
      { numRuns: 50 },
    );
  });

  it('is of a place', () => {
    const stall = new Stall();
    const facts = { newId: stall.newId, event: null, name: '', category: '', isBlind: true };
    const none = beginCount({ ...facts, place: '', deviceNumber: 4, counts: [] });
    assert.equal(none.ok ? '' : none.refusal.code, 'count/no-place');
  });
});

const hash = (id: string, seed: number): number =>
  Array.from(id).reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0) + seed) % 1_000_003, 7);
