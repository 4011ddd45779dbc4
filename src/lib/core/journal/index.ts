/**
 * The journal: what every entry moves. One pure function, the same everywhere, that reads nothing; all sums are
 * sums of it (sums.ts). The compiler asks for every kind.
 */
import { NOBODY } from '../books/names';
import type { EntryOf, Kind, KnownEntry } from '../daybook/kinds';
import { TIPS_OF_WRITER } from '../daybook/kinds/before-the-journal';
import { chargePaid } from './charge';
import { heldPostings, lapsedPostings } from './held';
import { cashMoved, drawerCounted, drawerLate, drawerOpened } from './drawer';
import { invoicePostings } from './invoice';
import { partPostings } from './payment';
import type { JournalEntry } from './journal-entry';
import type { Posting } from './posting';
import { orderPaid } from './order';
import { pointsMoved } from './points';
import { refundPostings } from './refund';
import { returnPostings } from './return';
import { figuresOfEntry, salePostings } from './sale';
import { moneyCame, paidOut, tipsShared } from './settling';
import { countAccepted, listPacked, stockMoved } from './stock';
import { postingsOf } from './take-back';

/** Most kinds set something up, and move nothing. */
const nothing = (): Posting[] => [];

const postingsByKind: { readonly [K in Kind]: (entry: EntryOf<K>) => readonly Posting[] } = {
  'business.set': nothing,
  'business.lock': nothing,
  'business.cash': nothing,
  'business.points': nothing,
  'business.invoicing': nothing,
  'business.reminders': nothing,
  'reward.set': nothing,
  'tax.set': nothing,
  'category.set': nothing,
  'way.set': nothing,
  'item.set': nothing,
  'item.supply': nothing,
  'supplier.set': nothing,
  'place.set': nothing,
  'maker.set': nothing,
  'maker.mailed': nothing,
  'photo.set': nothing,
  'table.set': nothing,
  'staff.set': nothing,
  'staff.pay': nothing,
  'pin.set': nothing,
  'device.set': nothing,
  'customer.set': nothing,
  'customer.consent': nothing,
  'customer.card': nothing,
  'customer.erased': nothing,
  'customer.joined': nothing,
  'event.set': nothing,
  'event.taxes': nothing,
  'event.ways': nothing,
  'event.costs': nothing,
  'event.prices': nothing,
  'event.people': nothing,
  'event.bring': nothing,
  'event.ticked': nothing,
  'event.stage': nothing,
  'event.back': nothing,
  'drawer.opened': drawerOpened,
  'drawer.counted': drawerCounted,
  'drawer.late': drawerLate,
  'cash.moved': cashMoved,
  'cards.reported': nothing,
  'cards.joined': nothing,
  'money.came': moneyCame,
  'money.undone': ({ body }) => postingsOf([body.takes]),
  'handed.in': nothing,
  'bank.set': nothing,
  'bank.stated': nothing,
  'bank.joined': nothing,
  'ledger.chart': nothing,
  'ledger.handed': nothing,
  'tips.shared': tipsShared,
  'paid.out': paidOut,
  'event.settled': nothing,
  'stock.moved': stockMoved,
  'list.set': nothing,
  'list.line': nothing,
  'list.stage': nothing,
  'list.packed': listPacked,
  'list.mailed': nothing,
  'count.set': nothing,
  'count.noted': nothing,
  'count.accepted': countAccepted,
  'count.ended': nothing,
  'slip.set': nothing,
  'slip.line': nothing,
  'slip.taken': nothing,
  'slip.gone': nothing,
  'sale.rung': ({ body }) => salePostings(figuresOfEntry(body)),
  'sale.voided': ({ body }) => postingsOf(body.takes),
  'void.undone': ({ body }) => postingsOf(body.takes),
  'return.made': ({ body }) => returnPostings(body),
  'sale.corrected': ({ body }) => body.moves,
  'refund.made': refundPostings,
  // Asked for, and what the acquirer says of it: a part is what was taken.
  'payment.asked': nothing,
  'payment.taken': ({ body, by }) => partPostings({ ...body, by }),
  'payment.result': nothing,
  'refund.result': nothing,
  'payment.reversed': ({ body, by }) => withWriter(postingsOf([body.takes]), by),
  'hold.decided': nothing,
  'voucher.set': nothing,
  'voucher.lapsed': lapsedPostings,
  'held.moved': heldPostings,
  'points.moved': pointsMoved,
  // What was agreed moves nothing; sales hand it over.
  'order.set': nothing,
  'order.terms': nothing,
  'order.stage': nothing,
  'order.paid': orderPaid,
  'invoice.made': invoicePostings,
  'invoice.credited': ({ body }) => (body.of.is === 'own' ? body.of.takes.postings : []),
  'invoice.numbered': nothing,
  'invoice.asked': nothing,
  'reminder.asked': nothing,
  // What is charged each time the invoices of it say.
  'charge.set': nothing,
  'charge.paid': chargePaid,
  'charge.failed': nothing,
  'charge.again': nothing,
  'receipt.asked': nothing,
  'looseEnd.settled': nothing,
  'looseEnd.handed': nothing,
};

/** An entry is judged by what it moves, and its sums are made of it: it is worked out once. */
const worked = new WeakMap<KnownEntry, JournalEntry>();

export function journalOf(entry: KnownEntry): JournalEntry {
  const known = worked.get(entry);
  if (known !== undefined) return known;
  const postings = postingsByKind[entry.kind] as (entry: KnownEntry) => readonly Posting[];
  const journal = { ...whenOf(entry), postings: postings(entry) };
  worked.set(entry, journal);
  return journal;
}

function whenOf({ id, kind, event, at, body }: KnownEntry): Omit<JournalEntry, 'postings'> {
  const { day, hour } = body as { readonly day?: unknown; readonly hour?: unknown };
  return {
    entry: id,
    kind,
    event,
    day: typeof day === 'string' ? day : at.slice(0, 10),
    hour: typeof hour === 'number' ? hour : null,
  };
}

const withWriter = (postings: readonly Posting[], by: string | null): readonly Posting[] =>
  postings.map((posting) =>
    posting.seller === TIPS_OF_WRITER
      ? { ...posting, account: `tips:${by ?? NOBODY}`, seller: by ?? NOBODY }
      : posting,
  );
