import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { partsSchema } from './parts-schema';

interface Answer {
  readonly lines: readonly { readonly amount: number }[];
  readonly name: string;
  readonly more: number;
  readonly tips: { readonly given: number };
  readonly settled: { readonly at: string } | null;
}
const schema = partsSchema<Answer>({
  lines: 'list',
  name: 'text',
  more: 'number',
  tips: 'record',
  settled: 'record or null',
});
const ANSWER: Answer = {
  lines: [{ amount: 1 }],
  name: 'Pellow Green',
  more: 0,
  tips: { given: 5 },
  settled: null,
};

describe('an answer that is looked at part by part', () => {
  it('is as it came, with what a later version says beside it', () => {
    assert.deepEqual(schema.parse(ANSWER), ANSWER);
    const later = { ...ANSWER, settled: { at: '2026-11-22' }, weather: [] };
    assert.deepEqual(schema.parse(later), later);
  });

  it('does not fit where a part is missing or is something else', () => {
    for (const part of Object.keys(ANSWER)) {
      const { [part as keyof Answer]: _left, ...without } = ANSWER;
      assert.equal(schema.safeParse(without).success, false, `without ${part}`);
      assert.equal(schema.safeParse({ ...ANSWER, [part]: true }).success, false, part);
    }
    assert.equal(schema.safeParse({ ...ANSWER, tips: null }).success, false);
    assert.equal(schema.safeParse({ ...ANSWER, tips: [] }).success, false);
    for (const other of [null, 'away', []]) assert.equal(schema.safeParse(other).success, false);
  });
});

// The compiler asks for every part, and for what it is.
// @ts-expect-error a part is missing
partsSchema<Pick<Answer, 'name' | 'more'>>({ name: 'text' });
// @ts-expect-error a list is no record
partsSchema<Pick<Answer, 'lines'>>({ lines: 'record' });
