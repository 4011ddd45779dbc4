/** A daybook as text, one entry as JSON on each line, checked and worked out. */
import { chainFault, EMPTY_CHAIN, headAfter, type ChainHead } from '../daybook/chain';
import { entrySchema } from '../daybook/entry';
import { firstIssue, readEntry } from '../daybook/read-entry';
import { Books } from './books';
import { changesOf } from './changes';

/** Something wrong with one line; the lines after it are read all the same. */
export interface ReplayFault {
  /** From 1. */
  readonly line: number;
  readonly code: string;
  readonly message: string;
}

export interface Replay {
  readonly books: Books;
  readonly entries: number;
  readonly faults: readonly ReplayFault[];
}

/**
 * Reads a daybook, verifies each device's chain, and works out the books. Entries of several
 * devices may be mixed in any way as long as each device's stand in their own order.
 */
export function replay(ndjson: string): Replay {
  const books = new Books();
  const faults: ReplayFault[] = [];
  const heads = new Map<string, ChainHead>();
  let entries = 0;
  for (const [at, text] of ndjson.split('\n').entries()) {
    if (text.trim() === '') continue;
    const line = at + 1;
    const fault = (code: string, message: string): void =>
      void faults.push({ line, code, message });
    const parsed = entrySchema.safeParse(jsonOrNull(text));
    if (!parsed.success) {
      const { where, why } = firstIssue(parsed.error);
      fault('line/not-an-entry', `${where}: ${why}`);
      continue;
    }
    const entry = parsed.data;
    const broken = chainFault(entry, heads.get(entry.device) ?? EMPTY_CHAIN);
    if (broken !== null) fault(broken.code, `entry ${entry.seq} of device ${entry.device}`);
    heads.set(entry.device, headAfter(entry));
    const read = readEntry(entry);
    if (read.ok) books.apply(changesOf(read.entry));
    else fault(read.fault.code, `entry ${entry.seq} of device ${entry.device}`);
    entries += 1;
  }
  return { books, entries, faults };
}

function jsonOrNull(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
