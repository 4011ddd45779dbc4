/** Who could do what at any moment: rights change, and an entry is judged by those of its time. */
import type { EntryOf, KnownEntry } from '../daybook/kinds';
import type { Stamp } from '../daybook/clock';
import { breachOf, type Breach, type PersonWithLimits } from './judge';

export class PeopleHistory {
  /** By person, in the order of their stamps. */
  readonly #versions = new Map<
    string,
    { readonly stamp: Stamp; readonly is: PersonWithLimits }[]
  >();

  /** Nobody has been set up: the business is being founded, and whoever does so may. */
  get isEmpty(): boolean {
    return this.#versions.size === 0;
  }

  add({ stamp, body }: EntryOf<'staff.set'>): void {
    const versions = [...(this.#versions.get(body.id) ?? []), { stamp, is: body }];
    versions.sort((a, b) => (a.stamp < b.stamp ? -1 : 1));
    this.#versions.set(body.id, versions);
  }

  /** A person as of a stamp; somebody whose first mention comes later was the same before it. */
  at(id: string, stamp: Stamp): PersonWithLimits | undefined {
    const versions = this.#versions.get(id);
    return (versions?.findLast((each) => each.stamp <= stamp) ?? versions?.[0])?.is;
  }

  /** What rule the entry breaks, if any. An entry that breaks none is taken into the history. */
  judge(entry: KnownEntry): Breach | null {
    const breach = this.isEmpty ? null : breachOf(entry, (id) => this.at(id, entry.stamp));
    if (breach === null && entry.kind === 'staff.set') this.add(entry);
    return breach;
  }
}
