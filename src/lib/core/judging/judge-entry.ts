/**
 * The judge: whether an entry that can be read may stand as it is. Pure; the server gathers the evidence
 * in the transaction that appends it. Rights are asked first, then what the books say.
 */
import { judgeCorrection } from './correction';
import { judgeRefundMade } from './refund';
import { FURTHEST_AHEAD } from '../daybook/clock';
import type { EntryOf, Kind, KnownEntry } from '../daybook/kinds';
import { journalOf } from '../journal';
import { amountOf, type Posting } from '../journal/posting';
import { isBarred } from '../people/judge';
import { judgeHandedIn, judgeJoined, judgeStated, judgeUndone } from './bank';
import { judgeDevice } from './device';
import { judgeCashMoved, judgeDrawerOpened, judgeLate, judgeRead } from './drawer';
import { judgePointsMoved } from './points';
import type { Evidence } from './evidence';
import { isOfServer, judgeAgain, judgeCharge } from './charge';
import { judgeAsked, judgeHold, judgeResult } from './card';
import { judgeCustomerJoined } from './customer';
import {
  judgeCredit,
  judgeInvoice,
  judgeInvoiceAsked,
  judgeNumbered,
  judgeReminder,
} from './invoice';
import { refundAgain } from './given-back';
import { judgePayment } from './payment';
import { judgeOrder, judgeOrderPaid, judgeOrderStage, judgeTerms } from './order';
import { judgeHeldMoved, judgeLapsed, judgeVoucher, overspent } from './held';
import { judgeOfEvent, judgeReceipt, judgeSettlement, judgeStage } from './other';
import { judgeReversal } from './reversal';
import { judgeRefund, judgeReturn } from './return';
import { judgeSale } from './sale';
import { judgeMoneyCame, judgePaidOut, judgeSettled, judgeTipsShared } from './settling';
import {
  judgeAccepted,
  judgeCount,
  judgeList,
  judgeListStage,
  judgeMailed,
  judgePacked,
  judgeStock,
} from './stock';
import { EFFECT_OF, type Doubt, type Effect, type Verdict } from './verdict';
import { judgeVoid, judgeVoidUndone } from './void';

type Judges = {
  readonly [K in Kind]?: (entry: EntryOf<K>, evidence: Evidence) => Verdict | null;
};

const judges: Judges = {
  'device.set': judgeDevice,
  'customer.joined': judgeCustomerJoined,
  'sale.rung': judgeSale,
  'sale.voided': judgeVoid,
  'void.undone': judgeVoidUndone,
  'sale.corrected': judgeCorrection,
  'refund.made': judgeRefundMade,
  'return.made': judgeReturn,
  'refund.result': judgeRefund,
  'payment.asked': judgeAsked,
  'payment.taken': judgePayment,
  'payment.result': judgeResult,
  'payment.reversed': judgeReversal,
  'hold.decided': judgeHold,
  'event.stage': judgeStage,
  'event.back': judgeOfEvent,
  'event.taxes': judgeOfEvent,
  'event.ways': judgeOfEvent,
  'event.costs': judgeOfEvent,
  'event.prices': judgeOfEvent,
  'event.people': judgeOfEvent,
  'event.bring': judgeOfEvent,
  'event.ticked': judgeOfEvent,
  'drawer.opened': judgeDrawerOpened,
  'drawer.counted': judgeRead,
  'drawer.late': judgeLate,
  'money.came': judgeMoneyCame,
  'money.undone': judgeUndone,
  'handed.in': judgeHandedIn,
  'bank.stated': judgeStated,
  'bank.joined': judgeJoined,
  'ledger.handed': judgeOfEvent,
  'maker.mailed': judgeOfEvent,
  'tips.shared': judgeTipsShared,
  'paid.out': judgePaidOut,
  'event.settled': judgeSettled,
  'cash.moved': judgeCashMoved,
  'stock.moved': judgeStock,
  'list.set': judgeList,
  'list.line': judgeList,
  'list.stage': judgeListStage,
  'list.packed': judgePacked,
  'list.mailed': judgeMailed,
  'count.noted': judgeCount,
  'count.accepted': judgeAccepted,
  'count.ended': judgeCount,
  'voucher.set': judgeVoucher,
  'voucher.lapsed': judgeLapsed,
  'held.moved': judgeHeldMoved,
  'points.moved': judgePointsMoved,
  'order.set': judgeOrder,
  'order.terms': judgeTerms,
  'order.stage': judgeOrderStage,
  'order.paid': judgeOrderPaid,
  'charge.set': judgeCharge,
  'charge.again': judgeAgain,
  'invoice.made': judgeInvoice,
  'invoice.credited': judgeCredit,
  'invoice.numbered': judgeNumbered,
  'invoice.asked': judgeInvoiceAsked,
  'reminder.asked': judgeReminder,
  'receipt.asked': judgeReceipt,
  'looseEnd.settled': judgeSettlement,
};

/** Goods or money have changed hands: it must be known by whom, and when. */
const FACTS: ReadonlySet<Kind> = new Set([
  'sale.rung',
  'sale.voided',
  'return.made',
  'sale.corrected',
  'refund.made',
  'payment.taken',
  'payment.reversed',
  'drawer.opened',
  'drawer.counted',
  'cash.moved',
  'paid.out',
  'stock.moved',
  'held.moved',
  'order.paid',
]);

/** @returns The first thing that is wrong with it, or null. An entry that is right is not yet taken. */
export function judgeEntry(entry: KnownEntry, evidence: Evidence): Verdict | null {
  if (isOfServer(entry) && !evidence.isServer) return { code: 'server/only', found: entry.kind };
  const again = refundAgain(entry, evidence);
  if (again !== null) return again;
  const breach = evidence.isServer ? null : evidence.people.judge(entry);
  if (breach !== null) return breach;
  // The business is being founded.
  if (evidence.people.isEmpty) return null;
  const judge = judges[entry.kind] as
    | ((entry: KnownEntry, evidence: Evidence) => Verdict | null)
    | undefined;
  if (!FACTS.has(entry.kind)) return judge?.(entry, evidence) ?? null;
  return whoAndWhen(entry, evidence) ?? judge?.(entry, evidence) ?? byJournal(entry, evidence);
}

/** Its figures add up, and take no more from anybody's account than there is. */
function byJournal(entry: KnownEntry, evidence: Evidence): Doubt | null {
  const { postings } = journalOf(entry);
  return addsUp(postings) ?? overspent(postings, evidence);
}

function addsUp(postings: readonly Posting[]): Doubt | null {
  const open = amountOf(postings.filter(({ account }) => account === 'unexplained'));
  return open === 0 ? null : { code: 'journal/unexplained', found: open };
}

/** What becomes of an entry with this verdict. */
export const effectOf = (entry: KnownEntry, verdict: Verdict): Effect => {
  if (verdict.code === 'right/missing') return isBarred(entry) ? 'barred' : 'doubted';
  // Nothing has happened by it: of two that moved a sale the second would have it sold twice.
  if (entry.kind === 'sale.corrected' && entry.body.fix.is === 'event') return 'barred';
  return EFFECT_OF[verdict.code];
};

function whoAndWhen({ by, at, stamp }: KnownEntry, { people, arrival }: Evidence): Doubt | null {
  const person = by === null ? undefined : people.at(by, stamp);
  if (person?.isActive !== true) return { code: 'by/unknown', found: by ?? 'nobody' };
  return Date.parse(at) > arrival + FURTHEST_AHEAD ? { code: 'clock/ahead', found: at } : null;
}
