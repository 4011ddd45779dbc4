import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { readQuantity, withPoint } from './typed';

describe('a typed quantity', () => {
  it('has a comma or a point, and blanks around it are nothing', () => {
    assert.deepEqual(['3', ' 0,385 ', '0.5', '-2'].map(readQuantity), [3000, 385, 500, -2000]);
  });

  it('is none where it is no figure, or has too many decimals', () => {
    assert.deepEqual(['', 'three', '1,2,3', '1.2345', '1e3', '١'].map(readQuantity), [
      null,
      null,
      null,
      null,
      null,
      null,
    ]);
    assert.equal(withPoint(' 1,5 '), '1.5');
  });
});
