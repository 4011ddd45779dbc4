import type { EntryOf } from '../daybook/kinds';
import { may } from '../people/rights';
import type { Evidence } from './evidence';
import type { Doubt } from './verdict';

/**
 * Its number was given by the server and heads the numbers of its sales; which event and drawer it has is
 * for whoever may set up to say.
 */
export function judgeDevice(entry: EntryOf<'device.set'>, evidence: Evidence): Doubt | null {
  const { id, number, event, drawer } = entry.body;
  const { numbers, books, people } = evidence;
  if (numbers.get(id) !== number) return { code: 'device/not-its-own', found: number };
  const [by, lender] = [entry.by, entry.lentBy].map((each) =>
    each == null ? undefined : people.at(each, entry.stamp),
  );
  if (people.isEmpty || may(by, 'set-up') || may(lender, 'set-up')) return null;
  const known = books.row('devices', id);
  const isSame = event === (known?.event ?? null) && drawer === (known?.drawer ?? null);
  return isSame ? null : { code: 'device/not-its-own' };
}
