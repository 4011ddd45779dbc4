/** Whether an entry takes back what it should: by its postings, or, before it carried any, by its sums. */
import { digestOf } from '../daybook/digest';
import { kinds, type KnownEntry } from '../daybook/kinds';
import { journalOf } from '../journal';
import { sumsOf } from '../journal/sums';

type TakesBack = Extract<
  KnownEntry,
  { readonly kind: 'sale.voided' | 'void.undone' | 'payment.reversed' }
>;

export function takesBack<E extends TakesBack>(entry: E, wanted: E['body']): boolean {
  const asked = { ...entry, body: wanted };
  if (digestOf(allOf(entry)) === digestOf(allOf(asked))) return true;
  return entry.v < kinds[entry.kind].v && digestOf(sumsIn(entry)) === digestOf(sumsIn(asked));
}

/** What it says beside its postings, whose they are, and the postings as the journal has them. */
function allOf(entry: TakesBack): unknown {
  const { takes, ...said } = entry.body;
  return [said, [takes].flat().map(({ of }) => of), journalOf(entry).postings];
}

const sumsIn = (entry: TakesBack): readonly string[] =>
  sumsOf(journalOf(entry))
    .filter(({ fields }) => Object.values(fields).some((by) => by !== 0))
    .map((change) => digestOf(change))
    .sort();
