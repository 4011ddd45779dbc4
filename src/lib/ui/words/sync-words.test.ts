import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { syncWords, type Standing } from './sync-words';

const standing = (network: Standing['network'], toSend: number, ...pauses: string[]): Standing => ({
  network,
  toSend,
  pauses: new Set(pauses),
});

describe('what the awning says of the network', () => {
  const said = [
    [standing('there', 0), 'All sent', 'All sent'],
    [standing('there', 3), '3 to send', '3 to send'],
    [standing('gone', 0), 'No network · selling goes on', 'No network'],
    [standing('gone', 12), 'No network · selling goes on · 12 to send', 'No network · 12 to send'],
    [standing('unknown', 0), 'Looking for the network', 'Looking for the network'],
    [
      standing('there', 2, 'refused'),
      'The server refused an entry · 2 to send',
      'Refused · 2 to send',
    ],
    [standing('there', 2, 'shut out'), 'This device has been shut out', 'Shut out'],
  ] as const;
  for (const [is, long, short] of said) {
    it(`"${long}", and on a phone "${short}"`, () => {
      assert.equal(syncWords(is, false), long);
      assert.equal(syncWords(is, true), short);
    });
  }
});
