/** Set-up as it was at any moment: an entry is judged by what its writer can have known. */
import { clockOf, type Stamp } from '../daybook/clock';
import type { BodyOf, EntryOf, Kind } from '../daybook/kinds';

/** Kinds whose versions the judge looks at. */
export type Judged =
  | 'business.set'
  | 'business.points'
  | 'business.invoicing'
  | 'business.reminders'
  | 'tax.set'
  | 'way.set'
  | 'item.set'
  | 'event.set'
  | 'customer.set'
  | 'place.set'
  | 'reward.set';

/**
 * How long a device may have been out of touch: what stood at any time of these days before an entry
 * counts as known to whoever wrote it. Milliseconds.
 */
export const OUT_OF_TOUCH = 7 * 86_400_000;

interface Version {
  readonly stamp: Stamp;
  readonly is: unknown;
}

export class History {
  readonly #versions = new Map<string, Version[]>();

  /** @param is The body, or the row that was made of it. */
  add<K extends Judged>(kind: K, id: string, stamp: Stamp, is: Omit<BodyOf<K>, 'id'>): void {
    const key = `${kind} ${id}`;
    const versions = this.#versions.get(key) ?? [];
    if (versions.some((each) => each.stamp === stamp)) return;
    versions.push({ stamp, is });
    versions.sort((a, b) => (a.stamp < b.stamp ? -1 : 1));
    this.#versions.set(key, versions);
  }

  take(entry: EntryOf<Judged>): void {
    const id = 'id' in entry.body ? entry.body.id : entry.business;
    this.add(entry.kind, id, entry.stamp, entry.body);
  }

  knows(kind: Judged, id: string): boolean {
    return this.#versions.has(`${kind} ${id}`);
  }

  /**
   * The versions that stood at some time between `OUT_OF_TOUCH` before a stamp and the stamp, the latest
   * first; what was first said later stands for the time before it. Empty for what is not known.
   */
  inForce<K extends Judged>(kind: K, id: string, stamp: Stamp): readonly Omit<BodyOf<K>, 'id'>[] {
    const versions = this.#versions.get(`${kind} ${id}`) ?? [];
    // As most things are, and sales ask for all that they name.
    if (versions.length < 2) return versions.map(({ is }) => is as Omit<BodyOf<K>, 'id'>);
    const since = (clockOf(stamp).millis - OUT_OF_TOUCH).toString(16).padStart(12, '0');
    const stood = versions.filter((each, at) => {
      const next = versions[at + 1];
      return each.stamp <= stamp && (next === undefined || next.stamp >= since);
    });
    const found = stood.length === 0 ? versions.slice(0, 1) : stood;
    return found.map(({ is }) => is as Omit<BodyOf<K>, 'id'>).reverse();
  }
}

export const isJudged = (kind: Kind): kind is Judged =>
  kind === 'business.set' ||
  kind === 'business.points' ||
  kind === 'business.invoicing' ||
  kind === 'business.reminders' ||
  kind === 'reward.set' ||
  kind === 'tax.set' ||
  kind === 'way.set' ||
  kind === 'item.set' ||
  kind === 'event.set' ||
  kind === 'customer.set' ||
  kind === 'place.set';
