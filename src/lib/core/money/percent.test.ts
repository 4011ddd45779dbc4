import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ANY_RATE, readPercent } from './percent';

describe('a percentage as it is typed', () => {
  const typed = [
    { typed: '17.5', is: '17.5' },
    { typed: ' 17,5 % ', is: '17.5' },
    { typed: '9.9750', is: '9.9750' },
    { typed: '', is: '0' },
    { typed: '100', is: '100' },
    { typed: '100.0001', is: null },
    { typed: '-1', is: null },
    { typed: '1.23456', is: null },
    { typed: 'ten', is: null },
  ];
  for (const { typed: text, is } of typed)
    it(`“${text}” is ${is ?? 'none'}`, () => assert.equal(readPercent(text), is));

  it('may be above a hundred where that is asked for', () =>
    assert.equal(readPercent('250', ANY_RATE), '250'));
});
