/** Card payments by what is still to be done about them: looked up, not read through. */
import { isOpenCard } from '../../core/payment/card-state';
import type { Row } from '../../core/books/tables';
import type { DeviceDatabase } from '../database';

type CardPayment = Row<'cardPayments'>;

/** Of which something is still to come or to be done: asked for, carried, held, or given back. */
export async function openCards({ books }: DeviceDatabase): Promise<CardPayment[]> {
  const [open, reversed, untaken] = await Promise.all([
    books.cardPayments.where('state').anyOf('', 'authorised').toArray(),
    books.cardPayments.where('reversedStamp').above('').toArray(),
    // Charged, and no part of anything.
    books.cardPayments.where('takenState').equals('').toArray(),
  ]);
  return once([...open, ...reversed, ...untaken.filter(isOpenCard)]);
}

/** Those, and all that came to something else than was asked for, with the reason why. */
export async function unsettledCards(db: DeviceDatabase): Promise<CardPayment[]> {
  const { cardPayments } = db.books;
  const [open, ended, short] = await Promise.all([
    openCards(db),
    cardPayments
      .where('state')
      .anyOf('declined', 'cancelled', 'reversed', 'released', 'expired')
      .toArray(),
    cardPayments.where('reason').above('').toArray(),
  ]);
  return once([...open, ...ended, ...short]);
}

const once = (rows: readonly CardPayment[]): CardPayment[] => [
  ...new Map(rows.map((row) => [row.id, row])).values(),
];
