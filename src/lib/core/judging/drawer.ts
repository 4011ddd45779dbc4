/** Cash: drawers that are opened at an event and counted once against the books, and what is moved in between. */
import type { EntryOf } from '../daybook/kinds';
import { bagAt, drawerAt } from '../drawer/cash-places';
import { expectedCash, lateCash } from '../drawer/expected-cash';
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
  if (books.where('drawerReads', 'drawer', body.drawer).some((each) => each.id !== id))
    return { code: 'read/again' };
  const expected = expectedCash(drawer, books.row('drawerSums', body.drawer));
  return expected === body.expected
    ? null
    : { code: 'read/expected', found: body.expected, wanted: expected };
}

/**
 * Cash goes from and to drawers that there are, and a bag is opened with all that is in it, once. What is heard of after
 * a count shows as late cash.
 */
export function judgeCashMoved(
  { event, body }: EntryOf<'cash.moved'>,
  { books }: Evidence,
): Doubt | null {
  for (const place of [body.from, body.to]) {
    const drawer = drawerAt(place);
    if (drawer !== null && books.row('drawers', drawer) === undefined)
      return { code: 'cash/drawer', found: drawer };
  }
  if (bagAt(body.from) === null) return null;
  const wanted = books.row('eventAccounts', `${String(event)} ${body.from}`)?.amount ?? 0;
  return wanted === body.amount ? null : { code: 'cash/bag', found: body.amount, wanted };
}

/** What came late is what the books say came late: no more, and not twice. */
export function judgeLate({ body }: EntryOf<'drawer.late'>, { books }: Evidence): Doubt | null {
  const drawer = books.row('drawers', body.drawer);
  const reads = books.where('drawerReads', 'drawer', body.drawer);
  const wanted =
    drawer === undefined ? 0 : lateCash(drawer, books.row('drawerSums', body.drawer), reads);
  return wanted === body.amount ? null : { code: 'drawer/not-late', found: body.amount, wanted };
}
