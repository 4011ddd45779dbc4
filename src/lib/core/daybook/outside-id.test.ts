import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { idOf } from '../testing/made-up-business';
import { recordId } from './kind';
import { outsideId } from './outside-id';

describe('an id made from a name', () => {
  const [ours, theirs] = [idOf(1, 1), idOf(1, 2)];
  it('is the same for the same name, and a UUID', () => {
    assert.equal(outsideId(ours, 'item', ' LAV10'), outsideId(ours, 'item', 'LAV10 '));
    assert.ok(recordId.safeParse(outsideId(ours, 'item', 'LAV10')).success);
  });
  it('is another one for another name, sort or business', () => {
    const all = [
      outsideId(ours, 'item', 'LAV10'),
      outsideId(ours, 'item', 'lav10'),
      outsideId(ours, 'category', 'LAV10'),
      outsideId(theirs, 'item', 'LAV10'),
    ];
    assert.equal(new Set(all).size, 4);
  });
});
