import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { addressKey } from './address-key';

describe('what tries from an address are counted under', () => {
  for (const [address, key] of [
    ['192.0.2.7', '192.0.2.7'],
    ['::ffff:192.0.2.7', '192.0.2.7'],
    ['2001:db8:1:2::7', '2001:db8:1:2::/64'],
    ['2001:db8:1:2:ffff:1:2:3', '2001:db8:1:2::/64'],
    ['2001:db8::7', '2001:db8:0:0::/64'],
    ['nonsense', 'nonsense'],
  ] as const)
    it(`${address}: ${key}`, () => assert.equal(addressKey(address), key));
});
