/** The acquirer's report of a day, as our books call things. */
import type { BodyOf } from '../../core/daybook/kinds';
import type { Acquirer } from './acquirer';
import { ofBusiness } from './card-route';

export interface CardReport {
  readonly source: string;
  readonly lines: BodyOf<'cards.reported'>['lines'];
}

/**
 * Lines about cards of this business alone: one acquirer may serve several, and calls what is theirs by their name.
 * @param day ISO date. @returns Null if nobody answers.
 */
export async function reportOf(
  acquirer: Acquirer,
  business: string,
  day: string,
): Promise<CardReport | null> {
  const said = await acquirer.report(day);
  if (said === null) return null;
  const ours = ofBusiness(business, '');
  return {
    source: said.source,
    lines: said.lines
      .filter(({ reference }) => reference.startsWith(ours))
      .map((line) => ({ ...line, reference: line.reference.slice(ours.length) })),
  };
}
