import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Change } from '../../core/books/change';
import { statementsOf } from './apply-changes';

const added = (amount: unknown): Change => ({
  op: 'add',
  table: 'heldSums',
  key: { account: "credit:it's" },
  fields: { amount: amount as number },
});

describe('statements that make changes', () => {
  it('carry figures as they are, and everything else quoted', () => {
    const [statement] = statementsOf("o'neill", [added(-250)]);
    assert.match(statement ?? '', /VALUES \('o\\'neill','credit:it\\'s',-250\) ON DUPLICATE/);
  });

  it('quote what is no number where one should be, so that it cannot speak to the database', () => {
    for (const hostile of ['0); DROP TABLE x; --', ['0); DROP TABLE x; --']]) {
      const [statement] = statementsOf('b', [added(hostile)]);
      assert.match(statement ?? '', /,'0\); DROP TABLE x; --'\) ON DUPLICATE/);
    }
  });
});
