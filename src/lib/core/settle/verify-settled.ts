/** Whether what an event was settled with is still what the daybook says: anybody who has the daybook can tell. */
import type { Entry } from '../daybook/entry';
import type { EntryOf, KnownEntry } from '../daybook/kinds';
import { digestOf } from '../daybook/digest';
import { journalOf } from '../journal';
import { foldSums } from '../journal/sums';
import { balancesOf } from './settling';
import { changesSince, type BalanceChange } from './event-ends';

export type SettledFault =
  /** No entry says that it was settled. */
  | { readonly code: 'settled/never' }
  | { readonly code: 'settled/digest'; readonly found: string; readonly wanted: string }
  /** A device's chain is not there as far as it was known, or another entry stands there. */
  | { readonly code: 'settled/gone'; readonly device: string; readonly seq: number }
  | { readonly code: 'settled/other'; readonly device: string; readonly seq: number }
  | { readonly code: 'settled/balances'; readonly changes: readonly BalanceChange[] };

export interface VerifiedSettled {
  readonly entry: EntryOf<'event.settled'> | null;
  /** How many entries of the event it was settled with. */
  readonly entries: number;
  readonly faults: readonly SettledFault[];
}

/**
 * Works out again what stood on the event's accounts, from the entries that were known when it was settled last, and
 * compares: with what was written down, and each device's chain with how far it was known.
 *
 * @param all Every entry of the daybook, word for word. @param known Those that can be read.
 */
export function verifySettled(
  all: readonly Pick<Entry, 'device' | 'seq' | 'hash'>[],
  known: readonly KnownEntry[],
  event: string,
): VerifiedSettled {
  const settlings = known.filter(
    (entry): entry is EntryOf<'event.settled'> =>
      entry.kind === 'event.settled' && entry.body.event === event,
  );
  const entry = settlings.reduce<EntryOf<'event.settled'> | null>(
    (last, each) => (last === null || each.stamp > last.stamp ? each : last),
    null,
  );
  if (entry === null) return { entry, entries: 0, faults: [{ code: 'settled/never' }] };
  const { balances, heads, leftOut, digest } = entry.body;
  const faults: SettledFault[] = [];
  const wanted = digestOf({ event, balances, heads, leftOut });
  if (wanted !== digest) faults.push({ code: 'settled/digest', found: digest, wanted });

  const hashes = new Map(all.map(({ device, seq, hash }) => [`${device} ${String(seq)}`, hash]));
  for (const { device, seq, hash } of heads) {
    const found = hashes.get(`${device} ${String(seq)}`);
    if (found === undefined) faults.push({ code: 'settled/gone', device, seq });
    else if (found !== hash) faults.push({ code: 'settled/other', device, seq });
  }

  const upTo = new Map(heads.map(({ device, seq }) => [device, seq]));
  const out = new Set(leftOut);
  const counted = known.filter(
    ({ event: of, device, seq, id }) =>
      of === event && seq <= (upTo.get(device) ?? 0) && !out.has(id),
  );
  const sums = foldSums(counted.map(journalOf)).flatMap(({ sum, key, fields }) =>
    sum === 'eventAccounts'
      ? { account: String(key['account']), amount: fields['amount'] ?? 0 }
      : [],
  );
  const changes = changesSince(balances, balancesOf(sums));
  if (changes.length > 0) faults.push({ code: 'settled/balances', changes });
  return { entry, entries: counted.length, faults };
}
