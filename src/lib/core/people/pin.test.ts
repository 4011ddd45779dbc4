import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { isTimeToLock } from './auto-lock';
import { isTaken, pinFault, samePins } from './pin';
import { afterWrong, FREE_TRIES, LONGEST_DELAY, NO_TRIES, stillToWait } from './pin-tries';

describe('a PIN', () => {
  const rules = [
    { pin: '4071', is: null },
    { pin: '40712638', is: null },
    { pin: '407', is: 'pin/not-digits' },
    { pin: '407126380', is: 'pin/not-digits' },
    { pin: '40 71', is: 'pin/not-digits' },
    { pin: '٤٠٧١', is: 'pin/not-digits' },
    { pin: '7777', is: 'pin/too-easy' },
    { pin: '3456', is: 'pin/too-easy' },
    { pin: '98765', is: 'pin/too-easy' },
    { pin: '1357', is: null },
  ];
  for (const { pin, is } of rules) {
    it(`${pin} is ${is ?? 'fine'}`, () => assert.equal(pinFault(pin)?.code ?? null, is));
  }

  const person = (id: string, hash: string | null, isActive = true) => ({
    id,
    name: id,
    isActive,
    pin: hash === null ? null : { hash, iterations: 1 },
  });
  it('is taken when somebody else who is still here has it', () => {
    const people = [person('a', 'x'), person('b', 'y', false), person('c', null)];
    const taken = (id: string, hash: string) => isTaken(people, id, { hash, iterations: 1 });
    assert.deepEqual([taken('c', 'x'), taken('a', 'x'), taken('c', 'y')], [true, false, false]);
  });
  it('that two have after all is named', () => {
    const people = [person('a', 'x'), person('b', 'y'), person('c', 'x'), person('d', null)];
    assert.deepEqual(samePins(people), [['a', 'c']]);
  });
});

describe('wrong PINs', () => {
  const now = 1_000_000;
  it('are free three times less one, then cost 5 s, 10 s, 20 s … up to a quarter of an hour', () => {
    let tries = NO_TRIES;
    const waits = Array.from({ length: 14 }, () => {
      tries = afterWrong(tries, now);
      return stillToWait(tries, now) / 1000;
    });
    assert.deepEqual(waits, [0, 0, 5, 10, 20, 40, 80, 160, 320, 640, 900, 900, 900, 900]);
  });
  it('cannot be hurried or drawn out by setting the clock', () => {
    fc.assert(
      fc.property(fc.nat({ max: 40 }), fc.integer({ min: -1e9, max: 1e9 }), (wrong, shift) => {
        let tries = NO_TRIES;
        for (let n = 0; n < wrong; n += 1) tries = afterWrong(tries, now);
        const wait = stillToWait(tries, now + shift);
        assert.ok(wait >= 0 && wait <= LONGEST_DELAY);
        if (shift < 0 && wrong >= FREE_TRIES) assert.equal(wait, tries.until - tries.at);
      }),
    );
  });
  it('number a few hundred a day at most, of ten thousand that there are', () => {
    let [tries, at, made] = [NO_TRIES, now, 0];
    while (at < now + 86_400_000) {
      tries = afterWrong(tries, at);
      made += 1;
      at += stillToWait(tries, at);
    }
    assert.ok(made < 120, String(made));
  });
});

describe('the lock', () => {
  const minute = 60_000;
  it('comes after the time that the vendor set, and never when that is 0', () => {
    assert.equal(isTimeToLock(0, 5 * minute, 5), true);
    assert.equal(isTimeToLock(0, 5 * minute - 1, 5), false);
    assert.equal(isTimeToLock(0, 999 * minute, 0), false);
  });
  it('comes as well when the clock was set back', () => {
    assert.equal(isTimeToLock(10 * minute, 2 * minute, 5), true);
  });
});
