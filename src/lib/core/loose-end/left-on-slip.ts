/** What a device put on a slip that another one, out of touch, rang up or threw away: it was sold by nobody. */
import type { KeptLine, Row } from '../books/tables';

type Slip = Pick<Row<'slips'>, 'id' | 'name' | 'state' | 'known' | 'at' | 'by'>;
type Line = Pick<Row<'slipLines'>, 'id' | 'slip' | 'line' | 'setStamp'>;

export interface LeftOnSlip {
  readonly looseEnd: string;
  readonly slip: Slip;
  readonly lines: readonly KeptLine[];
}

/** Slips that are gone with lines on them that whoever ended them did not know; the latest first. */
export function leftOnSlip(
  slips: readonly Slip[],
  lines: readonly Line[],
  settlements: readonly Pick<Row<'settlements'>, 'looseEnd'>[],
): readonly LeftOnSlip[] {
  const settled = new Set(settlements.map(({ looseEnd }) => looseEnd));
  return slips
    .flatMap((slip): LeftOnSlip[] => {
      const { id, state, known } = slip;
      const looseEnd = `left:${id}`;
      // Of slips from before it was written down nobody can tell.
      if (state !== 'gone' || known === null || settled.has(looseEnd)) return [];
      const stamps = new Map(known.map((each) => [each.id, each.stamp]));
      const left = lines.flatMap((row) =>
        row.slip === id && row.line !== null && stamps.get(row.id) !== row.setStamp ? row.line : [],
      );
      return left.length === 0 ? [] : [{ looseEnd, slip, lines: left }];
    })
    .sort((a, b) => (a.slip.at < b.slip.at ? 1 : -1));
}
