import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { COUNTER_KEYS, keyOf } from './keys';

const pressed = (key: string, shiftKey = false, ctrlKey = false): string =>
  keyOf({ key, shiftKey, ctrlKey });

describe('a key that is pressed', () => {
  it('is named as the list of keys has it', () => {
    const names = [
      pressed('F9'),
      pressed('F9', true),
      pressed('Enter', false, true),
      pressed('Escape'),
      pressed('/'),
      // It takes a shift on most keyboards.
      pressed('?', true),
    ];
    assert.deepEqual(names, ['F9', 'Shift + F9', 'Ctrl + Enter', 'Esc', '/', '?']);
    for (const name of names) assert.ok(name in COUNTER_KEYS);
  });
});
