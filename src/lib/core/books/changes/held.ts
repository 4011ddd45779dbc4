/** Accounts that somebody holds: each time something moved on one, and what is said of vouchers. */
import type { EntryOf, KnownEntry } from '../../daybook/kinds';
import { heldParts } from '../../held/held-account';
import type { JournalEntry } from '../../journal/journal-entry';
import { merge, put, type Change } from '../change';
import { act } from './acts';
import { saidBy } from './said-by';

export const voucherSet = (entry: EntryOf<'voucher.set'>): Change[] => {
  const { number, ...said } = entry.body;
  return [
    merge('voucherStates', number, 'set', entry.stamp, said),
    act(entry, {
      what: 'voucher.set',
      about: `${number}: ${said.reason}`.slice(0, 120),
      amount: 0,
    }),
  ];
};

/** A voucher that is made by it is one like those that were sold. */
export const heldMoved = (entry: EntryOf<'held.moved'>): Change[] => {
  const { id, body } = entry;
  const { to, amount, until, reason } = body;
  const made = heldParts(to);
  const said = { ...saidBy(entry), device: entry.device, event: null };
  return [
    act(entry, { what: 'held.moved', about: reason.slice(0, 120), amount }),
    ...(made?.head === 'voucher'
      ? [
          put('vouchers', {
            id: `${id}:0`,
            ...said,
            number: made.id,
            value: amount,
            until,
            sale: null,
            saleNumber: '',
            customer: null,
          }),
        ]
      : []),
  ];
};

export function heldMoves(entry: KnownEntry, { postings }: JournalEntry): Change[] {
  return postings.flatMap(({ account, amount = 0 }, at) => {
    if (amount === 0 || heldParts(account) === null) return [];
    const said = { ...saidBy(entry), device: entry.device, event: null };
    return put('heldMoves', {
      id: `${entry.id}:${String(at)}`,
      // Let go of by its age alone: it is of no event.
      ...said,
      account,
      amount,
      kind: entry.kind,
      ...docOf(entry),
    });
  });
}

/** The document that tells of it: a sale, its slip where it may not be rung up yet, or the entry itself. */
function docOf(entry: KnownEntry): {
  readonly doc: string;
  readonly docIs: 'sale' | 'slip' | 'own';
} {
  const { kind, body } = entry;
  if (kind === 'sale.rung') return { doc: entry.id, docIs: 'sale' };
  if (kind === 'sale.voided' || kind === 'void.undone' || kind === 'sale.corrected')
    return { doc: body.sale, docIs: 'sale' };
  if (kind === 'payment.taken' || kind === 'payment.reversed')
    return { doc: body.slip, docIs: 'slip' };
  return { doc: entry.id, docIs: 'own' };
}
