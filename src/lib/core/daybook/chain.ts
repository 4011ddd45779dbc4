/**
 * The hash chain: each entry carries the hash of the one before it by the same device, so that
 * nothing can be changed, dropped or put between without it showing.
 */
import { clockOf, stampOf, tick, CLOCK_AT_REST, type Clock } from './clock';
import { digestOf, type Sha256 } from './digest';
import { GENESIS, type Entry } from './entry';

/** Where a device's chain stands: its last entry, in what the next one needs. */
export interface ChainHead {
  readonly seq: number;
  readonly hash: string;
  readonly clock: Clock;
}

export const EMPTY_CHAIN: ChainHead = { seq: 0, hash: GENESIS, clock: CLOCK_AT_REST };

/** What happened, before it has a place in a chain. */
export interface Draft {
  readonly id: string;
  readonly kind: string;
  readonly v: number;
  readonly event: string | null;
  readonly body: Readonly<Record<string, unknown>>;
  readonly private?: Readonly<NonNullable<Entry['private']>>;
}

/** Who writes, and when: milliseconds since 1970 by the device's clock. */
export interface Writer {
  readonly business: string;
  readonly device: string;
  readonly by: string | null;
  /** Who lent a right for this; see `Entry`. */
  readonly lentBy?: string | undefined;
  readonly now: number;
}

/** Gives a draft its place in the device's chain. */
export function chainEntry(draft: Draft, head: ChainHead, writer: Writer): Entry {
  const clock = tick(head.clock, writer.now);
  const apart = draft.private === undefined ? undefined : asJson(draft.private);
  const unsigned = {
    id: draft.id,
    business: writer.business,
    device: writer.device,
    seq: head.seq + 1,
    at: new Date(writer.now).toISOString(),
    stamp: stampOf(clock, writer.device),
    by: writer.by,
    ...(writer.lentBy === undefined ? {} : { lentBy: writer.lentBy }),
    event: draft.event,
    kind: draft.kind,
    v: draft.v,
    body: asJson({ ...draft.body }),
    digest: apart === undefined ? null : digestOf(apart),
    prev: head.hash,
  };
  const hash = hashOf(unsigned);
  return { ...unsigned, hash, ...(apart === undefined ? {} : { private: apart }) };
}

/**
 * Only what JSON and UTF-8 can hold goes in, or the hash would not survive being sent: half a character, left
 * where a text was cut, becomes U+FFFD.
 */
function asJson<T>(value: T): T {
  const text = JSON.stringify(value);
  // Only halves are written so; then each text is looked at.
  const isWhole = !/\\ud[89a-f]/.test(text);
  return JSON.parse(isWhole ? text : JSON.stringify(value, wellFormed)) as T;
}

const wellFormed = (_key: string, value: unknown): unknown =>
  typeof value === 'string' ? value.replace(/\p{Surrogate}/gu, '\uFFFD') : value;

/** An entry without what is personal in it; its hash and its place in the chain stay good. */
export function withoutPrivate({ private: _gone, ...rest }: Entry): Entry {
  return rest;
}

export function headAfter(entry: Entry): ChainHead {
  return { seq: entry.seq, hash: entry.hash, clock: clockOf(entry.stamp) };
}

/** SHA-256 over the canonical JSON (RFC 8785) of what the device wrote, without its hash and private part. */
export function hashOf(entry: Omit<Entry, 'hash' | 'private'> | Entry, sha256?: Sha256): string {
  const { hash: _hash, private: _apart, held: _held, late: _late, ...signed } = entry as Entry;
  return digestOf(signed, sha256);
}

/** Why an entry cannot follow what is there. */
export type ChainFault =
  | { readonly code: 'chain/gap'; readonly seq: number; readonly wanted: number }
  | { readonly code: 'chain/broken'; readonly seq: number }
  | { readonly code: 'chain/hash-wrong'; readonly seq: number }
  | { readonly code: 'chain/stamp-back'; readonly seq: number }
  | { readonly code: 'chain/private-wrong'; readonly seq: number };

/** Whether `entry` is the next one after `head`; null when it is. */
export const chainFault = (entry: Entry, head: ChainHead): ChainFault | null =>
  linkFault(entry, head) ?? contentFault(entry);

/** Whether it says of itself that it is the next one after `head`; what it holds may still be wrong. */
export function linkFault(entry: Entry, head: ChainHead): ChainFault | null {
  const { seq } = entry;
  if (seq !== head.seq + 1) return { code: 'chain/gap', seq, wanted: head.seq + 1 };
  if (entry.prev !== head.hash) return { code: 'chain/broken', seq };
  const { millis, counter } = clockOf(entry.stamp);
  const { clock } = head;
  const isLater = millis > clock.millis || (millis === clock.millis && counter > clock.counter);
  return isLater && entry.stamp.endsWith(entry.device) ? null : { code: 'chain/stamp-back', seq };
}

/** Whether it holds what its hashes say. */
export function contentFault(entry: Entry, sha256?: Sha256): ChainFault | null {
  const { seq } = entry;
  if (hashOf(entry, sha256) !== entry.hash) return { code: 'chain/hash-wrong', seq };
  if (entry.private !== undefined && digestOf(entry.private, sha256) !== entry.digest) {
    return { code: 'chain/private-wrong', seq };
  }
  return null;
}
