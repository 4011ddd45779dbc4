/** Events that something may have happened at instead. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import { eventsAbout } from './events-about';

const event = (id: string, ...dates: readonly string[]) => ({
  id,
  days: dates.map((date) => ({ date })) as unknown as Row<'events'>['days'],
});

describe('events about a day', () => {
  it('are those within two weeks, the nearest first, and not the one itself', () => {
    const all = [
      event('itself', '2026-11-22'),
      event('a week later', '2026-11-29'),
      event('no day yet'),
      event('on', '2026-11-20', '2026-11-24'),
      event('two weeks before', '2026-11-07', '2026-11-08'),
      event('over two weeks before', '2026-11-07'),
    ];
    assert.deepEqual(
      eventsAbout(all, '2026-11-22', 'itself').map(({ id }) => id),
      ['on', 'a week later', 'two weeks before'],
    );
  });
});
