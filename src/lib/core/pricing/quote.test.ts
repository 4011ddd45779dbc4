import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { describe, it } from 'node:test';
import { quoteSlip } from './quote';
import type { Quote, Slip } from './slip';

interface Case {
  readonly about: string;
  readonly slip: Slip;
  readonly expect: Quote;
}
const cases = JSON.parse(
  readFileSync(new URL('./slips.examples.json', import.meta.url), 'utf8'),
) as readonly Case[];

describe('what a slip comes to', () => {
  for (const { about, slip, expect } of cases) {
    it(about, () => assert.deepEqual(quoteSlip(slip), expect));
  }
});
