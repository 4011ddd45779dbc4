/** Standing charges that a card on file did not pay: somebody asks for the money otherwise, or tries again. */
import type { Row } from '../books/tables';

export interface ChargeEnd {
  readonly looseEnd: string;
  readonly failed: Row<'chargeCards'>;
  /** Minor units of the invoice that are still to be paid. */
  readonly left: number;
}

/**
 * By the invoice, the last time that it failed: over once it is paid or credited, or is to be tried again.
 * @param left What of each invoice is still to be paid, minor units.
 */
export function chargeEnds(
  cards: readonly Row<'chargeCards'>[],
  left: ReadonlyMap<string, number>,
  settlements: readonly Pick<Row<'settlements'>, 'looseEnd'>[],
): readonly ChargeEnd[] {
  const settled = new Set(settlements.map(({ looseEnd }) => looseEnd));
  return openFailures(cards).flatMap((failed): ChargeEnd[] => {
    const open = left.get(failed.invoice) ?? 0;
    const looseEnd = `charge:${failed.id}`;
    return open <= 0 || settled.has(looseEnd) ? [] : [{ looseEnd, failed, left: open }];
  });
}

/** Of each invoice the last failure, where nobody has had it tried again since: clocks do not matter. */
export function openFailures(cards: readonly Row<'chargeCards'>[]): readonly Row<'chargeCards'>[] {
  const byInvoice = new Map<string, { last: Row<'chargeCards'>; failed: number }>();
  const again = new Map<string, number>();
  for (const each of cards) {
    const { invoice, is, at } = each;
    if (is === 'again') again.set(invoice, (again.get(invoice) ?? 0) + 1);
    if (is !== 'failed') continue;
    const before = byInvoice.get(invoice);
    byInvoice.set(invoice, {
      last: before === undefined || at > before.last.at ? each : before.last,
      failed: (before?.failed ?? 0) + 1,
    });
  }
  return [...byInvoice].flatMap(([invoice, { last, failed }]) =>
    failed > (again.get(invoice) ?? 0) ? [last] : [],
  );
}
