import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { untilForgotten } from './forget-after';

const DAY = 86_400_000;
describe('forgetting after days without network', () => {
  it('is never where the vendor set nothing, or the server has never answered', () => {
    assert.equal(untilForgotten(0, 0, 99 * DAY), null);
    assert.equal(untilForgotten(3, undefined, 99 * DAY), null);
  });
  it('is so many days after the server last answered', () => {
    assert.equal(untilForgotten(3, DAY, 2 * DAY), 2 * DAY);
    assert.equal(untilForgotten(3, DAY, 4 * DAY), 0);
    assert.ok(untilForgotten(3, DAY, 5 * DAY)! < 0);
  });
});
