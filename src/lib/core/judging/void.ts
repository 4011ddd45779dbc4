/** A sale that is voided: there is one, it is voided once, in its shift, by exactly what it had brought. */
import type { Row } from '../books/tables';
import type { EntryOf } from '../daybook/kinds';
import { standingVoids } from '../loose-end/voided-twice';
import { postingsOf, takingsIn } from '../journal/take-back';
import { EXCHANGE } from '../payment/methods';
import { asCorrected, type Correctable } from '../sale/corrections';
import { undoBody, voidBody } from '../sale/void-sale';
import type { Evidence } from './evidence';
import { takesBack } from './take-back';
import type { Doubt } from './verdict';

export function judgeVoid(entry: EntryOf<'sale.voided'>, { books }: Evidence): Doubt | null {
  const { id, body } = entry;
  const sale = books.row('sales', body.sale);
  if (sale === undefined) return { code: 'void/unknown', found: body.number };
  if (books.where('voids', 'sale', sale.id).some((each) => each.id !== id))
    return { code: 'void/again', found: sale.number };
  if (books.where('returns', 'sale', sale.id).length > 0)
    return { code: 'void/returned', found: sale.number };
  const now = asItStands(sale, books);
  const { payments } = now;
  if (payments.some(({ way }) => way === EXCHANGE))
    return { code: 'void/exchanged', found: sale.number };
  const wanted = voidBody({ ...now, reason: body.reason });
  const isSplit = now.isMoved === true && payments.some(({ event }) => event !== now.sale.event);
  if (isSplit || entry.event !== now.sale.event || !takesBack(entry, wanted))
    return { code: 'void/figures', found: takingsIn(body.takes), wanted: takingsIn(wanted.takes) };
  const drawers = new Set(postingsOf(body.takes).map(({ drawer }) => drawer));
  return books.rows('drawerReads').some(({ drawer }) => drawers.has(drawer))
    ? { code: 'void/counted', found: sale.number }
    : null;
}

/** Of several voids of a sale one may stand: the others are taken back by exactly what they took off. */
export function judgeVoidUndone(entry: EntryOf<'void.undone'>, { books }: Evidence): Doubt | null {
  const { id, body } = entry;
  const sale = books.row('sales', body.sale);
  const undone = books.rows('voidsUndone').filter((each) => each.id !== id);
  const standing = standingVoids(books.rows('voids'), undone).filter(
    (each) => each.sale === body.sale,
  );
  const isTwice = standing.length > 1 && standing.some((each) => each.id === body.void);
  if (sale === undefined || !isTwice) return { code: 'void/not-twice', found: body.number };
  const now = asItStands(sale, books);
  const wanted = undoBody({ ...now, reason: body.reason, void: body.void });
  return entry.event === now.sale.event && takesBack(entry, wanted)
    ? null
    : { code: 'void/not-twice', found: takingsIn(body.takes), wanted: takingsIn(wanted.takes) };
}

/** Its rows with what was put right. */
const asItStands = (sale: Row<'sales'>, books: Evidence['books']): Correctable =>
  asCorrected(
    {
      sale,
      lines: books.where('saleLines', 'sale', sale.id),
      payments: sale.payments.flatMap((part) => books.row('payments', part) ?? []),
    },
    books.rows('corrections'),
  );
