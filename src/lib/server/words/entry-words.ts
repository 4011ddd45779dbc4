/** Sentences for refusals of the daybook: the fact, the place, the remedy. */
import type { BodyFault } from '../../core/daybook/read-entry';
import type { KnownEntry } from '../../core/daybook/kinds';
import type { Doubt, DoubtCode, Verdict } from '../../core/judging/verdict';
import type { Right } from '../../core/people/rights';
import type { PushRefusal } from '../../core/daybook/sync-messages';

const sentences: Readonly<Record<PushRefusal['code'], string>> = {
  'chain/gap': 'There is a gap before it; send the entries from the last one the server has.',
  'chain/broken': 'It does not follow the entry before it; this device’s daybook has been changed.',
  'chain/hash-wrong': 'Its hash is not that of what it says; it was changed after it was written.',
  'chain/stamp-back': 'Its stamp is not later than that of the entry before it.',
  'chain/private-wrong': 'Its private part is not the one that its digest was made of.',
  'chain/forked':
    'The server has another entry under this number; a copy of this device is writing as well.',
  'entry/other-business':
    'It belongs to another business than the one this device is enrolled with.',
  'entry/other-device': 'It was written by another device; each device sends its own entries.',
  'entry/too-large': 'It is larger than an entry may be.',
  'entry/id-taken': 'Its id stands for another entry already; ids must be new for every entry.',
};

export const refusalMessage = (code: PushRefusal['code'], seq: number): string =>
  `Entry ${String(seq)} was not taken. ${sentences[code]} Nothing that was sent before is lost.`;

export function faultMessage(fault: BodyFault): string {
  switch (fault.code) {
    case 'kind/unknown':
      return `"${fault.kind}" is not a kind of entry that this version knows; it is kept until one does.`;
    case 'kind/newer':
      return (
        `"${fault.kind}" version ${String(fault.v)} is newer than version ${String(fault.known)}, ` +
        'which this one knows; it is kept until a newer version reads it.'
      );
    case 'body/wrong':
      return `${fault.kind}: ${fault.where}: ${fault.why}. It is kept as it was received.`;
  }
}

const deeds: Readonly<Record<Right, string>> = {
  'price.change': 'change a price',
  'discount.over': 'give so large a discount',
  refund: 'give money back',
  'refund.unlinked': 'give money back without a sale',
  'sale.void': 'void a sale',
  'cash.out': 'take cash out',
  'cash.expected': 'see what should be in the drawer',
  'card.carry': 'take cards beyond the limit with no network',
  'owe.over': 'let a customer owe more than was agreed',
  'voucher.set': 'block and replace vouchers, and move credit and points',
  invoice: 'make and credit invoices',
  'stock.move': 'move stock',
  'order.approve': 'approve orders',
  'count.accept': 'accept what was counted',
  'event.plan': 'plan events',
  'event.settle': 'settle events',
  'set-up': 'change the set-up',
};

/** What is wrong with an entry, and what became of it. */
export function verdictMessage(
  entry: KnownEntry,
  verdict: Verdict,
  state: 'doubted' | 'barred',
): string {
  const what =
    verdict.code === 'right/missing'
      ? `whoever wrote it was not allowed to ${deeds[verdict.right]} then`
      : doubtWords(verdict);
  return state === 'barred'
    ? `${entry.kind}: ${what}. It is kept and changes nothing; somebody with the right can do it again.`
    : `${entry.kind}: ${what}. It has happened, so it counts; an owner should look at it.`;
}

const doubts: Readonly<Record<DoubtCode, string>> = {
  'by/unknown': 'nobody who worked here then wrote it',
  'clock/ahead': 'the device’s clock was ahead of ours when it arrived',
  'device/number': 'it bears the number of another till',
  'device/not-its-own':
    'a device names itself; its number, event and drawer are not its own to set',
  'sale/number': 'its number does not follow the device’s last sale',
  'sale/event': 'it names no event that there is as its place',
  'journal/unexplained': 'its figures do not add up',
  'sale/day': 'its day and hour are not those of the event at that time',
  'sale/line-price': 'a line is priced below what it was set up at, without saying so',
  'sale/line-extra': 'a line has an extra below its price',
  'sale/line-sum': 'a line does not come to its price times its quantity',
  'sale/line-cost': 'a line has another cost than its item',
  'sale/line-stock': 'a line moves stock otherwise than its item does',
  'sale/line-maker': 'a line is of another maker than its item',
  'sale/standing': 'a line has a standing discount that nobody was granted',
  'sale/service': 'its service charge is below nothing',
  'sale/uplift': 'what cards paid above the cash price is not what it says',
  'sale/tax': 'its taxes are not those of its lines',
  'sale/payments': 'the parts it names do not pay it',
  'sale/paid-in': 'what is paid in is on an account that is not known, or twice on one',
  'sale/points': 'it brings more points than its goods do',
  'sale/promotions': 'points, a reward or a voucher paid for more than they count for',
  'sale/lowered': 'points, rewards and vouchers lower its taxes by another amount',
  'sale/voucher-again': 'a voucher of that number had been sold before',
  'sale/kept': 'the tax that goes with the voucher is another',
  'payment/account': 'it was paid from another account than that of its customer, voucher or order',
  'invoice/unknown': 'there is no such invoice, sale or order',
  'invoice/voided': 'the sale had been voided',
  'invoice/again': 'it had been put in writing already, by somebody else perhaps',
  'invoice/customer': 'it is somebody else’s, or of nobody that is known',
  'invoice/day': 'it bears another day than that on which it was written',
  'invoice/vendor': 'it is headed otherwise than invoices are here',
  'invoice/tax': 'it has a tax that there was not',
  'invoice/figures':
    'its figures are not those of the books: something came back, or was paid, that was not known there',
  'invoice/credit-more': 'more would be credited than is left of the invoice',
  'invoice/credit-what': 'nothing of the kind came back or was voided',
  'invoice/number':
    'another invoice has that number, this one has another, or the server never gave it',
  'server/only': 'only the server says what it made and what cards on file paid for it',
  'charge/customer': 'it is of another customer than before, or of nobody that is known',
  'charge/way': 'the way to pay that it names takes no cards',
  'charge/tax': 'it has a tax that there is not',
  'charge/past': 'it would have begun more than a year ago',
  'charge/unknown': 'that invoice is of no standing charge',
  'charge/again': 'no card failed for it, or it is being tried again already',
  'reminder/words': 'reminders are worded otherwise here',
  'reminder/early': 'it is too early to be reminded of it',
  'reminder/again': 'that reminder was sent already',
  'payment/voucher': 'the voucher was blocked, or out of date',
  'payment/purpose': 'the voucher is for other goods',
  'payment/points': 'the points that were taken are worth another amount',
  'payment/points-over': 'the points had run out',
  'payment/reward': 'there is no such reward, it was not on then, or it is worth less',
  'points/overspent':
    'more points were taken than there were: they may have been spent on two devices',
  'points/unknown': 'there is no such customer or reward',
  'points/less': 'more points would be taken than there are',
  'payment/over-limit': 'the customer owes more than was agreed, without saying so',
  'held/overspent': 'more was taken than was left: it may have been spent on two devices',
  'return/account': 'it went on an account that had not paid that much, or that there is not',
  'voucher/unknown': 'there is no such voucher',
  'voucher/not-over': 'the voucher can still be spent, or something else is left on it',
  'sale/order': 'it hands over something of an order that is not known, or has no such line',
  'sale/order-price': 'what was agreed of the order is another price',
  'sale/order-off': 'the order that it hands over had been called off',
  'sale/order-more':
    'more was handed over of the order than was left: it may have been done on two devices',
  'customer/unknown': 'there is no such customer',
  'customer/forgotten': 'one of them had been forgotten: nobody is one with them',
  'customer/circle': 'the other is joined to that one already',
  'order/unknown': 'there is no such order',
  'order/customer': 'there is no such customer',
  'order/event': 'there is no such event',
  'order/line': 'a line is not priced as its goods are set up',
  'order/again': 'of that order something else had been agreed already',
  'order/way': 'that is no way by which others take money',
  'order/paid-again': 'the same was said of that order already',
  'order/paid-more': 'more would have been paid for the order than it comes to',
  'payment/way': 'it was taken in a way that was not set up so',
  'payment/drawer': 'it went into a drawer that was never opened',
  'payment/rounding': 'it was rounded by more than the cash step',
  'payment/change': 'change was given where that way gives none',
  'payment/surcharge': 'its surcharge is not that of the way',
  'payment/charge': 'the card was charged less than it cleared',
  'card/not-asked': 'this device never asked for that card',
  'card/other-amount': 'the card was asked for another amount',
  'card/carried': 'it was carried beyond the limits, without saying so',
  'card/other-device': 'that reference is of another payment already',
  'card/unknown': 'no such card was asked for',
  'card/not-so': 'the acquirer has it otherwise',
  'hold/unknown': 'no such amount is held',
  'reversal/unknown': 'the part was never taken',
  'reversal/figures': 'the part was of other figures',
  'reversal/again': 'the part had been given back already',
  'reversal/rung': 'the sale that it paid stands',
  'void/unknown': 'there is no such sale',
  'void/figures': 'the sale had brought something else',
  'void/not-twice': 'the sale was not voided twice, or that void was taken back already',
  'void/again': 'the sale had been voided already',
  'void/returned': 'goods of the sale had come back already',
  'refund/goods': 'it is of goods that nobody has set up',
  'refund/limit': 'that is more than one person may give back on a day without a sale',
  'refund/no-sale': 'there is no sale of the number that was on the receipt',
  'refund/more': 'that is more than what is left of the sale whose number was on the receipt',
  'correct/unknown': 'there is no such sale',
  'correct/voided': 'the sale was void by then',
  'correct/figures':
    'it moves other amounts than that mistake does, or the sale was put right elsewhere before',
  'correct/not-so':
    'what it says cannot have been: a card was charged, or it was so already, or what it names is not there',
  'void/exchanged': 'goods that came back had paid for some of the sale',
  'return/exchange':
    'it says that it paid more for another slip than that slip was paid by goods that came back',
  'sale/exchange': 'goods that came back paid for some of it, and no return says that they did',
  'return/unknown': 'there is no such sale',
  'return/voided': 'the sale had been voided',
  'return/more': 'more of a line came back than was left of it',
  'return/figures': 'the sale had brought something else',
  'return/money': 'what was given back is not what it comes to',
  'return/way': 'it was given back by a way that did not pay for the sale',
  'return/number': 'another return of this till has that number',
  'return/card': 'more would go back to the card than it had paid',
  'refund/again': 'something else goes by the id that it asks for money under',
  'refund/unknown': 'no such amount goes back to a card',
  'refund/not-so': 'the acquirer did not say so',
  'return/drawer': 'the cash came out of no drawer that there is',
  'void/counted': 'the cash of its shift had been counted',
  'drawer/event': 'it was opened at no event that there is',
  'stage/event': 'it is of no event that there is',
  'read/drawer': 'there is no such drawer',
  'read/number': 'its number does not follow the device’s last final read',
  'read/expected': 'something else should have been in the drawer',
  'read/again': 'the drawer had been counted already',
  'stage/not-settled-so': 'an event is settled by what it came to, not by its stage alone',
  'tips/not-so': 'more tips would be shared than were taken',
  'paid/more': 'more was paid than was owed',
  'money/more': 'more would have come than was still to come',
  'money/unknown': 'no such money came or was paid',
  'money/figures': 'what came or was paid was of other figures',
  'money/again': 'it had been taken back already',
  'bank/account': 'there is no such bank account',
  'bank/line': 'there is no such line of a statement',
  'bank/more': 'more would be joined to it than it is',
  'handed/way': 'there is no such way to pay',
  'handed/again': 'that was handed in already',
  'settled/heads': 'a device had sent something that was not known there',
  'settled/balances': 'the event’s accounts stand otherwise',
  'cash/drawer': 'it went from or into a drawer that was never opened',
  'cash/bag': 'there is no such bag, or it holds another amount',
  'drawer/not-late': 'that is not what came after the drawer was counted',
  'stock/place': 'goods do not go from or to such a place',
  'stock/list-twice':
    'more left for its list than was packed, or arrived than was sent: it may have been done on two devices',
  'stock/list': 'it is for a list of goods that is not known here',
  'stock/amount': 'the goods that are gone did not cost that much',
  'list/unknown': 'there is no such list of goods',
  'list/no-order': 'only an order to a supplier is mailed to one',
  'list/draft-mailed': 'nobody has approved that order yet',
  'count/unknown': 'there is no such count of stock',
  'count/place': 'what is accepted was counted at another place',
  'count/figures': 'the difference is not worth that, by what the goods cost',
  'receipt/unknown-sale': 'there is no sale that it could be the receipt of',
  'looseEnd/own': 'nobody but an owner settles what is held against themselves',
};

function doubtWords({ code, found, wanted }: Doubt): string {
  const figures = [
    ...(found === undefined ? [] : [`it says ${String(found)}`]),
    ...(wanted === undefined ? [] : [`the books say ${String(wanted)}`]),
  ];
  return figures.length === 0 ? doubts[code] : `${doubts[code]} (${figures.join(', ')})`;
}
