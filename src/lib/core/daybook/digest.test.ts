import assert from 'node:assert/strict';
import { createHash } from 'node:crypto';
import { describe, it } from 'node:test';
import canonicalize from 'canonicalize';
import fc from 'fast-check';
import { canonical, digestOf } from './digest';

/** Anything that arrives as JSON can hold. */
const anyJson = fc.json({ maxDepth: 4 }).map((text): unknown => JSON.parse(text));

describe('canonical JSON', () => {
  it('is what the library makes of it, whatever arrives', () => {
    fc.assert(
      fc.property(anyJson, (value) => {
        assert.equal(canonical(value), canonicalize(value));
      }),
      { numRuns: 1000 },
    );
  });

  it('has the fields in the order of their letters, at each depth', () => {
    const value = { z: [{ b: 1, a: 2 }], a: { y: null, x: true }, Z: 0.1 };
    assert.equal(canonical(value), '{"Z":0.1,"a":{"x":true,"y":null},"z":[{"a":2,"b":1}]}');
  });

  it('puts names that are numbers where their letters belong', () => {
    assert.equal(canonical({ a: 1, 10: 2, 9: 3, '-': 4 }), '{"-":4,"10":2,"9":3,"a":1}');
    assert.equal(canonical([{ b: { 2: 0, 10: 0 } }]), '[{"b":{"10":0,"2":0}}]');
  });

  it('drops no field, whatever it is called', () => {
    const hidden: unknown = JSON.parse('{"a":1,"__proto__":{"takings":5},"constructor":2}');
    assert.equal(canonical(hidden), '{"__proto__":{"takings":5},"a":1,"constructor":2}');
    assert.notEqual(digestOf(hidden), digestOf({ a: 1, constructor: 2 }));
  });

  it('leaves out what has no value, and writes nothing for it in a list', () => {
    assert.equal(canonical({ b: undefined, a: [undefined, 1] }), '{"a":[null,1]}');
    assert.equal(canonical(undefined), 'null');
    assert.equal(canonical({ at: new Date(0) }), '{"at":"1970-01-01T00:00:00.000Z"}');
  });

  it('refuses what JSON cannot say', () => {
    const endless: unknown[] = [];
    endless.push(endless);
    for (const value of [
      '\ud83c',
      { '\udf3f': 1 },
      ['\udf3f'],
      { a: Infinity },
      [NaN],
      endless,
      1n,
    ])
      assert.throws(() => canonical(value));
  });

  it('takes words that only look like half a character', () => {
    for (const value of ['typed as \\ud83c', '\\\\ud83c', '🌿', { '\\ud83c': '\\udf3f' }])
      assert.equal(canonical(value), canonicalize(value));
  });
});

describe('a digest', () => {
  it('is SHA-256 over it, whoever works it out', () => {
    const native = (text: string): string => createHash('sha256').update(text).digest('hex');
    fc.assert(
      fc.property(anyJson, (value) => {
        assert.equal(digestOf(value), digestOf(value, native));
      }),
    );
    assert.equal(digestOf({ n: 1 }), native('{"n":1}'));
  });
});
