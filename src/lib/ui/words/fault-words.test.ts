import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { faultWords } from './fault-words';

describe('a fault in words', () => {
  const cases: readonly (readonly [unknown, string])[] = [
    [new DOMException('', 'QuotaExceededError'), 'this device has no room left; free some'],
    [new Error('Encountered full disk while opening'), 'this device has no room left; free some'],
    [new Error('ENOSPC: no space left on device'), 'this device has no room left; free some'],
    [new DOMException('', 'AbortError'), 'the browser says AbortError'],
    [new Error('the connection was lost'), 'the connection was lost'],
    ['thrown as it is', 'thrown as it is'],
  ];
  for (const [error, says] of cases) it(says, () => assert.equal(faultWords(error), says));
});
