/**
 * What others put on a slip while it was in hand here. Three versions of each line are compared: as it was when
 * the slip was taken up, as it is here, and as the list has it now.
 */
import type { KeptLine, Row } from '../books/tables';
import type { OpenLine, OpenSlip, TakenLine } from '../slip/open-slip';

export interface Joined {
  readonly slip: OpenSlip;
  /** Names of what others put on, changed or took off; empty if nothing did. */
  readonly names: readonly string[];
}

/** Lines as they are on the list, to be compared with later. */
export const asTaken = (rows: readonly Row<'slipLines'>[]): readonly TakenLine[] =>
  rows.map(({ id, setStamp: stamp, person, line }) => ({ id, stamp, person, line }));

/**
 * The slip with what others did to it since it was taken up. A line that both changed has what both added: what
 * was here, and the difference that others made.
 * @param rows All lines of the slip, as this device knows them now.
 */
export function joinLines(slip: OpenSlip, rows: readonly Row<'slipLines'>[]): Joined {
  // It was not taken up from the list, or by a version that did not note how it was there.
  if (slip.asTakenUp === undefined) return { slip, names: [] };
  const before = new Map(slip.asTakenUp.map((line) => [line.id, line]));
  const news = rows.filter(({ id, setStamp }) => before.get(id)?.stamp !== setStamp);
  const names: string[] = [];
  let lines: readonly OpenLine[] = slip.lines;
  for (const row of news) {
    const was = before.get(row.id);
    const here = lines.find(({ key }) => key === row.id);
    // The same again is no news to anybody.
    if (isSame(was?.line ?? null, row.line) && (was?.person ?? '') === row.person) continue;
    const next = joined(was, here, row);
    names.push((row.line ?? was?.line)?.name ?? '');
    if (next === null) lines = lines.filter(({ key }) => key !== row.id);
    else if (here === undefined) lines = [...lines, next];
    else lines = lines.map((line) => (line.key === row.id ? next : line));
  }
  return { slip: { ...slip, lines, asTakenUp: asTaken(rows) }, names };
}

/** The line as both have it, or null if it is off. */
function joined(
  was: TakenLine | undefined,
  here: OpenLine | undefined,
  { id, person, line: there }: Row<'slipLines'>,
): OpenLine | null {
  const theirs =
    there === null ? null : { ...there, key: id, ...(person === '' ? {} : { person }) };
  const mine = here ?? null;
  const base = was?.line ?? null;
  // Nobody touched it here: it is as they have it.
  if (base === null ? mine === null : isAsTaken(was, mine)) return theirs;
  const change = (theirs?.quantity ?? 0) - (base?.quantity ?? 0);
  const quantity = (mine?.quantity ?? 0) + change;
  const said = mine ?? theirs;
  return said === null || quantity <= 0 ? null : { ...said, quantity };
}

/** Whether the line here is as it was when the slip was taken up. */
function isAsTaken(was: TakenLine | undefined, here: OpenLine | null): boolean {
  if (was === undefined || here === null) return false;
  const { key: _key, person = '', ...line } = here;
  return person === was.person && isSame(was.line, line);
}

/** As JSON, in any order of fields; what is not said is not there. */
function isSame(a: KeptLine | null, b: KeptLine | null): boolean {
  return (
    JSON.stringify(a === null ? null : sorted(a)) === JSON.stringify(b === null ? null : sorted(b))
  );
}

export const sorted = (line: KeptLine): readonly (readonly [string, unknown])[] =>
  Object.entries(JSON.parse(JSON.stringify(line)) as KeptLine).sort(([a], [b]) => (a < b ? -1 : 1));
