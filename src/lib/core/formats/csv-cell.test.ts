import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { guarded, unguarded } from './csv-cell';

describe('a cell of a CSV file', () => {
  for (const text of [
    '=HYPERLINK("http://evil.example")',
    '+1',
    '-1',
    '@SUM(A1)',
    '\t=1',
    '\r=1',
    "'=1",
  ])
    it(`${JSON.stringify(text)} is no formula`, () => assert.match(guarded(text), /^'/));
  for (const text of ['Moss', '12.50', 'yes', "'tis", ''])
    it(`${JSON.stringify(text)} stays as it is`, () => assert.equal(guarded(text), text));
  it('is read as it was written, whatever it says', () => {
    const text = fc
      .array(fc.constantFrom("'", '=', '+', '-', '@', '\t', 'a', '1'))
      .map((all) => all.join(''));
    fc.assert(fc.property(text, (said) => assert.equal(unguarded(guarded(said)), said)));
  });
});
