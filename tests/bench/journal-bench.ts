/** The journal of 100,000 entries folded into the sums, against a bare loop that adds the same numbers. */
import { readEntry } from '../../src/lib/core/daybook/read-entry';
import { journalOf } from '../../src/lib/core/journal';
import type { JournalEntry } from '../../src/lib/core/journal/journal-entry';
import { foldSums, sumsOf } from '../../src/lib/core/journal/sums';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { median, type Figure } from './figures';

const ENTRIES = 100_000;
const ROUNDS = 7;
const NOW = Date.UTC(2026, 10, 22, 9);

export function journalFigures(): Figure[] {
  const journal = someEntries();
  // The numbers that all sums add, and which row each is added to, as they come.
  const numbers: { readonly row: string; readonly by: number }[] = journal.flatMap((entry) =>
    entry.postings.flatMap((posting) =>
      sumsOf({ ...entry, postings: [posting] }).flatMap(({ sum, key, fields }) =>
        Object.entries(fields).map(([field, by]) => ({
          row: `${sum} ${Object.values(key).join(' ')} ${field}`,
          by,
        })),
      ),
    ),
  );
  const timed = (work: () => unknown): number => {
    const began = performance.now();
    work();
    return performance.now() - began;
  };
  const bare = (): ReadonlyMap<string, number> => {
    const rows = new Map<string, number>();
    for (const { row, by } of numbers) rows.set(row, (rows.get(row) ?? 0) + by);
    return rows;
  };
  const [folded, added]: [number[], number[]] = [[], []];
  for (let round = 0; round <= ROUNDS; round += 1) {
    const [fold, add] = [timed(() => foldSums(journal)), timed(bare)];
    if (round === 0) continue;
    folded.push(fold);
    added.push(add);
  }
  const ms = (value: number): string => `${value.toFixed(0)} ms`;
  return [
    {
      what: 'the journal of 100,000 entries folded into the sums',
      is: ms(median(folded)),
      against: `${ms(median(added))} to add the same numbers`,
      ratio: median(folded) / median(added),
      target: { most: 4 },
    },
  ];
}

/** Sales of one to four lines and what paid them. */
function someEntries(): readonly JournalEntry[] {
  const writer = new DeviceWriter(1);
  const pattern: JournalEntry[] = [];
  for (let n = 0; n < 200; n += 1) {
    const goods = Array.from({ length: 1 + (n % 4) }, (_, at) => [1 + ((n + at) % 4), 1 + (n % 3)]);
    for (const entry of writer.append(writer.sale(goods as [number, number][], 0, NOW), NOW)) {
      const read = readEntry(entry);
      if (read.ok) pattern.push(journalOf(read.entry));
    }
  }
  return Array.from({ length: ENTRIES }, (_, n) => pattern[n % pattern.length]!);
}
