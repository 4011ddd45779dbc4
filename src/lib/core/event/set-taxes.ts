/** Taxes that an event charges in the place of others: a command. */
import type { Row, TaxSwap } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';

/**
 * Sets what the event charges instead; a tax that stands in its own place is no swap.
 */
export function setEventTaxes(
  newId: () => string,
  { id: event }: Pick<Row<'events'>, 'id'>,
  swaps: readonly TaxSwap[],
): { readonly ok: true; readonly drafts: readonly Draft[] } {
  const real = swaps.filter(
    ({ from, to }, at) => from !== to && swaps.findIndex((each) => each.from === from) === at,
  );
  return { ok: true, drafts: [draft('event.taxes', newId(), event, { event, swaps: real })] };
}
