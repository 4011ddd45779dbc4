import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { PartLostError } from '../../core/daybook/part-lost';
import { faultWords } from './fault-words';

const LOST = 'a part of the till did not come over the network; try again';

describe('a fault in words', () => {
  const cases: readonly (readonly [unknown, string])[] = [
    [new DOMException('', 'QuotaExceededError'), 'this device has no room left; free some'],
    [new Error('Encountered full disk while opening'), 'this device has no room left; free some'],
    [new Error('ENOSPC: no space left on device'), 'this device has no room left; free some'],
    [new DOMException('', 'AbortError'), 'the browser says AbortError'],
    [new Error('the connection was lost'), 'the connection was lost'],
    ['thrown as it is', 'thrown as it is'],
    ...[
      'Failed to fetch dynamically imported module: https://till.example/a.js',
      'error loading dynamically imported module: https://till.example/a.js',
      'Importing a module script failed.',
      'Unable to preload CSS for /a.css',
    ].map((message) => [new TypeError(message), LOST] as const),
    [new PartLostError(), LOST],
  ];
  for (const [error, says] of cases)
    it(`${String(error)}: ${says}`, () => assert.equal(faultWords(error), says));
});
