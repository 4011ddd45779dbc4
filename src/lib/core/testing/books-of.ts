/** What entries come to, for tests: all of them have to be such as this version reads. */
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Entry } from '../daybook/entry';
import type { KnownEntry } from '../daybook/kinds';
import { readEntry } from '../daybook/read-entry';

/** @throws {Error} If one of them cannot be read. */
export const knownEntries = (entries: readonly Entry[]): KnownEntry[] =>
  entries.map((entry) => {
    const read = readEntry(entry);
    if (!read.ok) throw new Error(JSON.stringify(read));
    return read.entry;
  });

/** Their rows. @throws {Error} If one of them cannot be read. */
export function booksOf(entries: readonly Entry[]): Books {
  const books = new Books();
  for (const entry of knownEntries(entries)) books.apply(changesOf(entry));
  return books;
}
