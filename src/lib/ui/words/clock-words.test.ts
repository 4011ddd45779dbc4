import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { clockWords } from './clock-words';

const HOUR = 3_600_000;
describe('a clock that is off', () => {
  it('by a minute is nothing to speak of', () => assert.equal(clockWords(-60_000), null));
  for (const [ahead, says] of [
    [5 * 60_000, '5 minutes behind'],
    [-3 * HOUR, '3 hours ahead'],
    [-72 * 365 * 24 * HOUR, '26280 days ahead'],
  ] as const)
    it(says, () => assert.match(clockWords(ahead) ?? '', new RegExp(says)));
});
