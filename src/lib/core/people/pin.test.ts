import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { isTimeToLock } from './auto-lock';
import { pinFault, pinNeeds } from './pin';
import { afterWrong, FREE_TRIES, LONGEST_DELAY, NO_TRIES, stillToWait } from './pin-tries';

describe('a PIN', () => {
  const helper = { role: 'helper', rights: [] };
  const lead = { role: 'lead', rights: ['refund'] };
  const owner = { role: 'owner', rights: [] };
  const rules = [
    { pin: '4071', of: helper, is: null },
    { pin: '4071', of: lead, is: 'pin/too-short' },
    { pin: '40713', of: owner, is: 'pin/too-short' },
    { pin: '407138', of: owner, is: null },
    { pin: '40712638', of: lead, is: null },
    { pin: '407', of: helper, is: 'pin/not-digits' },
    { pin: '407126380', of: helper, is: 'pin/not-digits' },
    { pin: '40 71', of: helper, is: 'pin/not-digits' },
    { pin: '٤٠٧١', of: helper, is: 'pin/not-digits' },
    { pin: '7777', of: helper, is: 'pin/too-easy' },
    { pin: '3456', of: helper, is: 'pin/too-easy' },
    { pin: '987654', of: lead, is: 'pin/too-easy' },
    { pin: '1357', of: helper, is: null },
  ] as const;
  for (const { pin, of, is } of rules) {
    it(`${pin} of a ${of.role} is ${is ?? 'fine'}`, () =>
      assert.equal(pinFault(pin, of)?.code ?? null, is));
  }

  const kept = (salt: string) => ({ hash: 'a'.repeat(64), iterations: 1, salt });
  it('that is too short for what its holder may do is asked for anew', () => {
    assert.equal(pinNeeds('4071', kept('x'), lead), 'longer');
    assert.equal(pinNeeds('4071', kept('x'), helper), 'nothing');
    assert.equal(pinNeeds('407138', kept('x'), owner), 'nothing');
  });
  it('from before there were salts is kept anew', () =>
    assert.equal(pinNeeds('4071', kept(''), helper), 'salt'));
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
