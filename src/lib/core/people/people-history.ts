/** Who could do what at any moment: rights change, and an entry is judged by those of its time. */
import type { Stamp } from '../daybook/clock';
import type { EntryOf, KnownEntry } from '../daybook/kinds';
import type { Breach } from '../judging/verdict';
import { breachOf, hasRight, missing, type PersonWithLimits } from './judge';
import type { PinHash } from './pin';
import type { Right } from './rights';

interface Version<T> {
  readonly stamp: Stamp;
  readonly is: T;
}

export class PeopleHistory {
  /** By person, in the order of their stamps. */
  readonly #people = new Map<string, Version<PersonWithLimits>[]>();
  readonly #pins = new Map<string, Version<PinHash | null>[]>();

  /** Nobody has been set up: the business is being founded, and whoever does so may. */
  get isEmpty(): boolean {
    return this.#people.size === 0;
  }

  add({ stamp, ...entry }: EntryOf<'staff.set'> | EntryOf<'pin.set'>): void {
    if (entry.kind === 'pin.set') {
      put(this.#pins, entry.body.person, { stamp, is: entry.body.pin });
      return;
    }
    const { id, pin } = entry.body;
    put(this.#people, id, { stamp, is: entry.body });
    if (pin !== undefined) put(this.#pins, id, { stamp, is: pin });
  }

  /** A person as of a stamp; somebody whose first mention comes later was the same before it. */
  at(id: string, stamp: Stamp): PersonWithLimits | undefined {
    return asOf(this.#people.get(id), stamp);
  }

  /** What rule the entry breaks, if any. An entry that breaks none is taken into the history. */
  judge(entry: KnownEntry): Breach | null {
    const then = {
      person: (id: string) => this.at(id, entry.stamp),
      pin: (id: string) => asOf(this.#pins.get(id), entry.stamp) ?? null,
    };
    const breach = this.isEmpty ? null : breachOf(entry, then);
    if (breach === null && (entry.kind === 'staff.set' || entry.kind === 'pin.set'))
      this.add(entry);
    return breach;
  }

  /** The breach of lacking a right that the books ask for, beside what the kind does. */
  lacks(entry: KnownEntry, right: Right): Breach | null {
    const then = { person: (id: string) => this.at(id, entry.stamp) };
    return this.isEmpty || hasRight(entry, right, then) ? null : missing(entry, right);
  }
}

function put<T>(of: Map<string, Version<T>[]>, id: string, version: Version<T>): void {
  const versions = [...(of.get(id) ?? []), version];
  versions.sort((a, b) => (a.stamp < b.stamp ? -1 : 1));
  of.set(id, versions);
}

const asOf = <T>(versions: readonly Version<T>[] | undefined, stamp: Stamp): T | undefined =>
  (versions?.findLast((each) => each.stamp <= stamp) ?? versions?.[0])?.is;
