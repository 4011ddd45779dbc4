/** What a return and a refund without a sale have in common: a number of the till's, and where goods are put. */
import { BASE } from '../books/tables';
import type { EntryOf, KnownEntry } from '../daybook/kinds';
import { returnNumber } from '../sale/sale-number';
import type { Evidence } from './evidence';
import { dayDoubt } from './sale';
import type { Doubt } from './verdict';

type Entry = EntryOf<'return.made' | 'refund.made'>;

/**
 * Money goes to a card under an id that nothing else goes by: else it would take the other's place. Whatever else is
 * wrong with an entry, this is looked at first, since all but what is barred counts.
 */
export function refundAgain(entry: KnownEntry, { books }: Evidence): Doubt | null {
  const ids = refundIds(entry);
  const again = ids.find((id, at) => {
    const row = books.row('cardRefunds', id);
    const isOther = row !== undefined && row.askedStamp !== '' && row.return !== entry.id;
    return isOther || ids.indexOf(id) !== at || books.row('cardPayments', id) !== undefined;
  });
  return again === undefined ? null : { code: 'refund/again', found: again };
}

/** Under which ids an entry sends money to cards. */
export function refundIds(entry: KnownEntry): readonly string[] {
  if (entry.kind === 'refund.made') {
    const { card } = entry.body.money;
    return card === undefined ? [] : [card.refund];
  }
  if (entry.kind !== 'return.made') return [];
  return entry.body.money.flatMap(({ card }) => card?.refund ?? []);
}

/** Goods are put where the event is that trades, or at the base where none does. */
export function whereFault(entry: Entry, evidence: Evidence): Doubt | null {
  const { event, body } = entry;
  if (event !== null) return dayDoubt(entry, evidence);
  return body.place === BASE ? null : { code: 'sale/event', found: body.place };
}

/** The till's own number, and nothing else that it gave back has it already. */
export function numberFault(
  { id, device: writer, body }: Entry,
  { books, device }: Evidence,
): Doubt | null {
  if (body.deviceNumber !== device.number)
    return { code: 'device/number', found: body.deviceNumber, wanted: device.number };
  const number = returnNumber(body.deviceNumber, body.number);
  const isTaken = [...books.rows('returns'), ...books.rows('refunds')].some(
    (each) => each.number === number && each.device === writer && each.id !== id,
  );
  return isTaken ? { code: 'return/number', found: number } : null;
}
