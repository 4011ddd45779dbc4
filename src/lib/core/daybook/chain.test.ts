import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { arbitraryDaybook, DeviceWriter } from '../testing/arbitrary-daybook';
import { chainEntry, chainFault, EMPTY_CHAIN, hashOf, headAfter, type ChainHead } from './chain';
import { follow, stampOf, tick } from './clock';
import { entrySchema, type Entry } from './entry';

const now = Date.UTC(2026, 10, 22, 9);
const id = '0b6f7c1e-4a2d-4c55-9d3e-6f1a2b3c4d5e';

function threeEntries(): [Entry, Entry, Entry] {
  const writer = new DeviceWriter(1);
  const write = (at: number) => writer.write({ does: 'load', item: 1, quantity: 1000 }, at)[0]!;
  return [write(now), write(now + 5), write(now - 60_000)];
}

describe('the chain of a device', () => {
  it('holds for any daybook, whatever the clocks do', () => {
    fc.assert(
      fc.property(arbitraryDaybook, (entries) => {
        const heads = new Map<string, ChainHead>();
        for (const entry of entries) {
          assert.equal(chainFault(entry, heads.get(entry.device) ?? EMPTY_CHAIN), null);
          assert.deepEqual(entrySchema.parse(JSON.parse(JSON.stringify(entry))), entry);
          heads.set(entry.device, headAfter(entry));
        }
      }),
    );
  });

  it('has no half characters, and leaves whole ones and what only looks like halves', () => {
    const texts = ['Ferns \ud83c', '\udf3f', 'Ferns 🌿', 'typed as \\ud83c', ''];
    const writer = { business: id, device: id, by: null, lentBy: undefined, now };
    for (const name of texts)
      for (const others of [[], texts]) {
        const body = { name, others };
        const written = chainEntry(
          { id, event: null, kind: 'device.set', v: 1, body },
          EMPTY_CHAIN,
          writer,
        );
        const whole = (text: string): string => text.toWellFormed();
        assert.deepEqual(written.body, { name: whole(name), others: others.map(whole) });
        assert.equal(written.hash, hashOf(written));
      }
  });

  it('shows a gap', () => {
    const [first, , third] = threeEntries();
    assert.deepEqual(chainFault(third, headAfter(first)), { code: 'chain/gap', seq: 3, wanted: 2 });
  });

  it('shows a changed figure', () => {
    const [first, second] = threeEntries();
    const forged: Entry = { ...second, body: { ...second.body, note: 'half as many' } };
    assert.equal(chainFault(forged, headAfter(first))?.code, 'chain/hash-wrong');
  });

  it('shows an entry that was put in the place of another', () => {
    const [first, second, third] = threeEntries();
    const other: Entry = { ...second, body: { ...second.body, note: 'another' } };
    const rehashed = { ...other, hash: hashOf(other) };
    assert.equal(chainFault(rehashed, headAfter(first)), null);
    assert.equal(chainFault(third, headAfter(rehashed))?.code, 'chain/broken');
  });

  it('shows a stamp that does not go on', () => {
    const [first, second] = threeEntries();
    const back: Entry = { ...second, stamp: first.stamp };
    const rehashed = { ...back, hash: hashOf(back) };
    assert.equal(chainFault(rehashed, headAfter(first))?.code, 'chain/stamp-back');
  });

  it('still holds when the private part is erased, and shows a changed one', () => {
    const [first] = threeEntries();
    const withPrivate = { ...first, private: { salt: 'sixteen-letters-', data: { name: 'Wren' } } };
    assert.equal(chainFault(withPrivate, EMPTY_CHAIN)?.code, 'chain/private-wrong');
    assert.equal(chainFault(first, EMPTY_CHAIN), null);
  });
});

describe('the hybrid clock', () => {
  it('goes on even when the device’s own clock goes back', () => {
    const times = fc.array(fc.integer({ min: 0, max: 2 ** 44 }), { minLength: 2, maxLength: 50 });
    fc.assert(
      fc.property(times, (nows) => {
        let clock = { millis: 0, counter: 0 };
        let last = '';
        for (const at of nows) {
          clock = tick(clock, at);
          const stamp = stampOf(clock, 'device');
          assert.ok(stamp > last);
          last = stamp;
        }
      }),
    );
  });

  it('counts on into the next millisecond when the counter is full', () => {
    assert.deepEqual(tick({ millis: 5, counter: 0xffff }, 5), { millis: 6, counter: 0 });
  });

  it('follows what others have seen, and never goes back', () => {
    const clock = { millis: now, counter: 0 };
    const ahead = stampOf({ millis: now + 1000, counter: 3 }, 'other');
    assert.deepEqual(follow(clock, ahead), { millis: now + 1000, counter: 3 });
    assert.deepEqual(follow({ millis: now + 2000, counter: 0 }, ahead).millis, now + 2000);
  });
});
