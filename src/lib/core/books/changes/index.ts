/** What each kind of entry does to the books. The compiler asks for every kind. */
import type { EntryOf, Kind, KnownEntry } from '../../daybook/kinds';
import { journalOf } from '../../journal';
import { sumsOf } from '../../journal/sums';
import { add, type Change } from '../change';
import { bankJoined, bankSet, bankStated, handedIn, moneyUndone } from './bank';
import { chargeAgain, chargeFailed, chargePaid, chargeSet } from './charge';
import { countAccepted, countEnded, countNoted, countSet } from './count';
import {
  customerCard,
  customerConsent,
  customerErased,
  customerJoined,
  customerSet,
} from './customer';
import { cashMoved, drawerCounted, drawerLate, drawerOpened } from './drawer';
import { listLine, listMailed, listPacked, listSet, listStage } from './list';
import { ledgerChart, ledgerHanded } from './ledger';
import { heldMoved, heldMoves, pointMoves, voucherLapsed, voucherSet } from './held';
import { businessPoints, pointsLastMoved, pointsMoved, rewardSet } from './points';
import {
  businessInvoicing,
  businessReminders,
  invoiceAsked,
  invoiceCredited,
  invoiceMade,
  invoiceNumbered,
  reminderAsked,
} from './invoice';
import { orderPaid, orderSet, orderStage, orderTerms } from './order';
import { looseEndHanded, looseEndSettled } from './loose-end';
import { holdDecided, paymentAsked, paymentResult, paymentReversed, paymentTaken } from './payment';
import { receiptAsked } from './receipt';
import { refundResult, returnMade } from './return';
import { refundMade } from './refund';
import { saleCorrected } from './correction';
import { saleRung, saleVoided, voidUndone } from './sale';
import {
  businessCash,
  businessLock,
  businessSet,
  categorySet,
  deviceSet,
  eventSet,
  eventBack,
  eventStage,
  eventBring,
  eventCosts,
  eventPeople,
  eventPrices,
  eventTaxes,
  eventTicked,
  eventWays,
  itemSet,
  makerSet,
  photoSet,
  pinSet,
  staffPay,
  staffSet,
  tableSet,
  taxSet,
  waySet,
} from './set-up';
import {
  cardsJoined,
  cardsReported,
  eventSettled,
  makerMailed,
  moneyCame,
  paidOut,
  tipsShared,
} from './settling';
import { slipGone, slipLine, slipSet, slipTaken } from './slip';
import { itemSupply, movesOf, placeSet, stockMoved, supplierSet } from './stock';

const changesByKind: { readonly [K in Kind]: (entry: EntryOf<K>) => Change[] } = {
  'business.set': businessSet,
  'business.lock': businessLock,
  'business.cash': businessCash,
  'business.points': businessPoints,
  'business.invoicing': businessInvoicing,
  'business.reminders': businessReminders,
  'reward.set': rewardSet,
  'tax.set': taxSet,
  'category.set': categorySet,
  'way.set': waySet,
  'item.set': itemSet,
  'item.supply': itemSupply,
  'supplier.set': supplierSet,
  'place.set': placeSet,
  'maker.set': makerSet,
  'maker.mailed': makerMailed,
  'photo.set': photoSet,
  'table.set': tableSet,
  'staff.set': staffSet,
  'staff.pay': staffPay,
  'pin.set': pinSet,
  'device.set': deviceSet,
  'customer.set': customerSet,
  'customer.consent': customerConsent,
  'customer.card': customerCard,
  'customer.erased': customerErased,
  'customer.joined': customerJoined,
  'event.set': eventSet,
  'event.taxes': eventTaxes,
  'event.ways': eventWays,
  'event.costs': eventCosts,
  'event.prices': eventPrices,
  'event.people': eventPeople,
  'event.bring': eventBring,
  'event.ticked': eventTicked,
  'event.stage': eventStage,
  'event.back': eventBack,
  'drawer.opened': drawerOpened,
  'drawer.counted': drawerCounted,
  'drawer.late': drawerLate,
  'cash.moved': cashMoved,
  'cards.reported': cardsReported,
  'cards.joined': cardsJoined,
  'money.came': moneyCame,
  'money.undone': moneyUndone,
  'handed.in': handedIn,
  'bank.set': bankSet,
  'bank.stated': bankStated,
  'bank.joined': bankJoined,
  'ledger.chart': ledgerChart,
  'ledger.handed': ledgerHanded,
  'tips.shared': tipsShared,
  'paid.out': paidOut,
  'event.settled': eventSettled,
  'stock.moved': stockMoved,
  'list.set': listSet,
  'list.line': listLine,
  'list.stage': listStage,
  'list.packed': listPacked,
  'list.mailed': listMailed,
  'count.set': countSet,
  'count.noted': countNoted,
  'count.accepted': countAccepted,
  'count.ended': countEnded,
  'slip.set': slipSet,
  'slip.line': slipLine,
  'slip.taken': slipTaken,
  'slip.gone': slipGone,
  'sale.rung': saleRung,
  'sale.voided': saleVoided,
  'void.undone': voidUndone,
  'sale.corrected': saleCorrected,
  'refund.made': refundMade,
  'return.made': returnMade,
  'refund.result': refundResult,
  'payment.asked': paymentAsked,
  'payment.taken': paymentTaken,
  'payment.result': paymentResult,
  'payment.reversed': paymentReversed,
  'hold.decided': holdDecided,
  'voucher.set': voucherSet,
  'voucher.lapsed': voucherLapsed,
  'held.moved': heldMoved,
  'points.moved': pointsMoved,
  'order.set': orderSet,
  'order.terms': orderTerms,
  'order.stage': orderStage,
  'order.paid': orderPaid,
  'charge.set': chargeSet,
  'charge.paid': chargePaid,
  'charge.failed': chargeFailed,
  'charge.again': chargeAgain,
  'invoice.made': invoiceMade,
  'invoice.credited': invoiceCredited,
  'invoice.numbered': invoiceNumbered,
  'invoice.asked': invoiceAsked,
  'reminder.asked': reminderAsked,
  'receipt.asked': receiptAsked,
  'looseEnd.settled': looseEndSettled,
  'looseEnd.handed': looseEndHanded,
};

/**
 * The changes of rows that an entry makes. Pure, without reading anything: the same on a device
 * and on the server, and in any order of entries.
 */
export function changesOf(entry: KnownEntry): Change[] {
  const change = changesByKind[entry.kind] as (entry: KnownEntry) => Change[];
  const journal = journalOf(entry);
  return [
    ...change(entry),
    ...movesOf(entry, journal),
    ...heldMoves(entry, journal),
    ...pointMoves(entry, journal),
    ...pointsLastMoved(entry, journal),
    ...sumsOf(journal).map(({ sum, key, fields }) => add(sum, key, fields)),
  ];
}
