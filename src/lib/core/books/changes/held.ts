/** Accounts that somebody holds: each time something moved on one, and what is said of vouchers. */
import type { EntryOf, KnownEntry } from '../../daybook/kinds';
import { heldParts, type HeldAccount } from '../../held/held-account';
import type { KeptTax } from '../../held/one-purpose';
import { isPointsOf, POINTS } from '../../points/promotion-methods';
import type { Account } from '../../journal/accounts';
import type { JournalEntry } from '../../journal/journal-entry';
import { minus, type Posting } from '../../journal/posting';
import { saleNumber } from '../../sale/sale-number';
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

export const voucherLapsed = (entry: EntryOf<'voucher.lapsed'>): Change[] => [
  act(entry, { what: 'voucher.lapsed', about: entry.body.number, amount: entry.body.amount }),
];

/** A voucher that is made by it is one like those that were sold. */
export const heldMoved = (entry: EntryOf<'held.moved'>): Change[] => {
  const { to, amount, until, kept, reason } = entry.body;
  return [
    act(entry, { what: 'held.moved', about: reason.slice(0, 120), amount }),
    ...voucherMade(entry, 0, { account: to, value: amount, until, kept }),
  ];
};

/** Each line of a sale that is a voucher. */
export const vouchersSold = (entry: EntryOf<'sale.rung'>): Change[] =>
  entry.body.lines.flatMap(({ account, total, until = '', kept }, at) =>
    account === undefined ? [] : voucherMade(entry, at, { account, value: total, until, kept }),
  );

interface Voucher {
  readonly account: HeldAccount;
  readonly value: number;
  readonly until: string;
  readonly kept: KeptTax | undefined;
}

function voucherMade(
  entry: EntryOf<'sale.rung'> | EntryOf<'held.moved'>,
  at: number,
  { account, value, until, kept }: Voucher,
): Change[] {
  const { head, id: number } = heldParts(account) ?? {};
  if (head !== 'voucher' || number === undefined) return [];
  const sold = entry.kind === 'sale.rung' ? entry.body : null;
  return [
    put('vouchers', {
      ...ofNoEvent(entry, at),
      ...{ number, value, until, kept: kept ?? null },
      sale: sold === null ? null : entry.id,
      saleNumber: sold === null ? '' : saleNumber(sold.deviceNumber, sold.number),
      customer: sold?.customer ?? null,
    }),
  ];
}

export const heldMoves = (entry: KnownEntry, { postings }: JournalEntry): Change[] =>
  asOne(entry, postings).flatMap(({ account, amount = 0, line }, at) =>
    amount === 0 || heldParts(account) === null
      ? []
      : put('heldMoves', {
          ...ofNoEvent(entry, at),
          ...{ account, amount, kind: entry.kind, ...docOf(entry) },
          pays: paidBy(entry, line),
        }),
  );

/** An invoice is one thing that is owed, however many lines it has. */
function asOne({ kind }: KnownEntry, postings: readonly Posting[]): readonly Posting[] {
  if (kind !== 'invoice.made' && kind !== 'invoice.credited') return postings;
  const moved = new Map<Account, number>();
  for (const { account, amount = 0 } of postings)
    if (heldParts(account) !== null) moved.set(account, (moved.get(account) ?? 0) + amount);
  return [...moved].map(([account, amount]) => ({ account, amount }));
}

/**
 * Points of customers, together: what an entry brings line by line is one move. Whole points; given ones are below
 * nothing, like all that is owed to somebody.
 */
export const pointMoves = (entry: KnownEntry, { postings }: JournalEntry): Change[] => {
  const moved = new Map<string, number>();
  for (const { account, item, quantity = 0 } of postings)
    if (item === POINTS && isPointsOf(account))
      moved.set(account, (moved.get(account) ?? 0) + quantity);
  return [...moved].flatMap(([account, amount], at) =>
    amount === 0
      ? []
      : put('heldMoves', {
          ...{ ...ofNoEvent(entry, at), id: `${entry.id}:p${String(at)}` },
          ...{ account, amount: minus(amount), kind: entry.kind, ...docOf(entry), pays: null },
        }),
  );
};

/** The debt that a line of a sale pays, or that a card was charged for. */
function paidBy(entry: KnownEntry, line: number | undefined): string | null {
  if (entry.kind === 'charge.paid') return entry.body.invoice;
  if (entry.kind !== 'sale.rung' || line === undefined) return null;
  return entry.body.lines[line]?.pays ?? null;
}

/** It holds at any event, and is let go of by its age alone. */
const ofNoEvent = (entry: KnownEntry, at: number) => ({
  ...saidBy(entry),
  ...{ id: `${entry.id}:${String(at)}`, device: entry.device, event: null },
});

/** The document that tells of it: a sale, an invoice, its slip where it may not be rung up yet, or the entry itself. */
function docOf(entry: KnownEntry): {
  readonly doc: string;
  readonly docIs: 'sale' | 'slip' | 'invoice' | 'own';
} {
  const { kind, body } = entry;
  if (kind === 'sale.rung') return { doc: entry.id, docIs: 'sale' };
  if (
    kind === 'sale.voided' ||
    kind === 'void.undone' ||
    kind === 'sale.corrected' ||
    kind === 'return.made'
  )
    return { doc: body.sale, docIs: 'sale' };
  if (kind === 'payment.taken' || kind === 'payment.reversed')
    return { doc: body.slip, docIs: 'slip' };
  if (kind === 'invoice.made') return { doc: entry.id, docIs: 'invoice' };
  if (kind === 'invoice.credited' || kind === 'charge.paid')
    return { doc: body.invoice, docIs: 'invoice' };
  return { doc: entry.id, docIs: 'own' };
}
