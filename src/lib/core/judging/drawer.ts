/** Drawers: opened at an event, counted once, against what the books say should be in them. */
import type { EntryOf } from '../daybook/kinds';
import { expectedCash } from '../drawer/expected-cash';
import type { Evidence } from './evidence';
import type { Doubt } from './verdict';

export function judgeDrawerOpened(
  { event }: EntryOf<'drawer.opened'>,
  { history }: Evidence,
): Doubt | null {
  return event !== null && history.knows('event.set', event) ? null : { code: 'drawer/event' };
}

/** What should have been in it is worked out again: a device can only say what it knew. */
export function judgeRead(
  { id, body }: EntryOf<'drawer.counted'>,
  evidence: Evidence,
): Doubt | null {
  const { books, device } = evidence;
  const drawer = books.row('drawers', body.drawer);
  if (drawer === undefined) return { code: 'read/drawer' };
  const wanted = device.lastRead + 1;
  if (body.number !== wanted) return { code: 'read/number', found: body.number, wanted };
  if (books.rows('drawerReads').some((each) => each.drawer === body.drawer && each.id !== id))
    return { code: 'read/again' };
  const expected = expectedCash(drawer, books.row('drawerSums', body.drawer));
  return expected === body.expected
    ? null
    : { code: 'read/expected', found: body.expected, wanted: expected };
}
