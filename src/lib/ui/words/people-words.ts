/** Sentences about people, their rights and their PINs. */
import type { PayRefusal } from '../../core/people/set-pay';
import type { Fault } from '../forms/faults.svelte';
import type { Act } from '../../core/books/tables';
import type { PinRefusal } from '../../core/people/pin';
import type { Right, Role } from '../../core/people/rights';
import type { PersonRefusal } from '../../core/people/set-person';

export const roleWords: Readonly<Record<Role, string>> = {
  owner: 'owner: everything',
  lead: 'lead: runs the stall',
  helper: 'helper: sells',
};

export const rightWords: Readonly<Record<Right, string>> = {
  'price.change': 'change a price at the counter',
  'discount.over': 'give a larger discount than everybody may',
  refund: 'give money back for a sale',
  'refund.unlinked': 'give money back without a sale',
  'sale.void': 'void a sale',
  'cash.out': 'take cash out of the drawer',
  'cash.expected': 'see what should be in the drawer before counting it',
  'owe.over': 'let customers owe more than was agreed',
  'voucher.set': 'block, extend and replace vouchers, and move credit and points',
  invoice: 'make invoices beside sales, and credit them',
  'card.carry': 'take cards beyond the limit while there is no network',
  'stock.move': 'move stock: load, unload, receive, write off',
  'order.approve': 'approve orders to suppliers and stores',
  'count.accept': 'accept what was counted as what is there',
  'event.plan': 'plan events',
  'event.settle': 'settle events: reports, payouts, closing',
  'set-up': 'change goods, prices and people',
};

export const actWords: Readonly<Record<Act, string>> = {
  'price.set': 'Goods or price set',
  'person.set': 'Person set up',
  'set-up': 'Set-up changed',
  'lock.set': 'Lock set',
  'event.taxes': 'Taxes of an event set',
  'event.ways': 'Ways to pay at an event set',
  'event.costs': 'Fee and costs of an event set',
  'event.prices': 'Prices at an event set',
  'event.back': 'Event went back',
  'discount.given': 'Discount',
  'price.changed': 'Another price at the counter',
  'drawer.opened': 'Drawer opened',
  'drawer.counted': 'Drawer counted',
  'drawer.late': 'Late cash called a difference',
  'cash.moved': 'Cash moved',
  'cash.set': 'How drawers are counted set',
  'money.came': 'Money came to the bank',
  'money.undone': 'Money at the bank taken back',
  'handed.in': 'Cheques or tokens handed in',
  'ledger.handed': 'Ledger handed over',
  'tips.shared': 'Tips shared out',
  'paid.out': 'Somebody paid',
  'event.settled': 'Event settled',
  'voucher.set': 'Voucher blocked or extended',
  'invoice.made': 'Invoice made',
  'invoice.credited': 'Invoice credited',
  'charge.set': 'Standing charge set up',
  'held.moved': 'Moved between accounts',
  'points.moved': 'Points given or taken',
  'voucher.lapsed': 'Voucher ran out',
  'order.off': 'Order called off',
  'order.paid': 'Order paid where it was made',
  'sale.voided': 'Sale voided',
  'void.undone': 'Void taken back',
  'return.made': 'Goods taken back',
  'refund.made': 'Given back without a sale',
  'sale.corrected': 'Sale put right',
  'hold.decided': 'Held card taken or released',
  'payment.reversed': 'Part of a payment given back',
  'customer.erased': 'Customer forgotten',
  'customer.joined': 'Two records of a customer joined',
  'customer.parted': 'Records of a customer taken apart',
  'card.kept': 'Card put on file',
  'card.removed': 'Card taken off file',
  'count.accepted': 'Count of stock accepted',
  'looseEnd.settled': 'Loose end settled',
};

export const payWords = ({ code, typed }: PayRefusal): string =>
  code === 'pay/wage'
    ? `“${typed}” is no amount; type what an hour is paid, such as 12.50.`
    : `“${typed}” is no percentage from 0 to 100, such as 7.5.`;

export function pinWords(refusal: PinRefusal): string {
  switch (refusal.code) {
    case 'pin/not-digits':
      return 'A PIN is four to eight figures.';
    case 'pin/too-short':
      return 'Whoever may do more than sell needs a PIN of at least six figures.';
    case 'pin/too-easy':
      return 'That one is guessed first; take figures that do not repeat or count up or down.';
    case 'pin/taken':
      return 'Somebody else has this PIN; take another one.';
  }
}

/** What is wrong with a person's set-up, and in which field. */
export function personFault(refusal: PersonRefusal): Fault {
  const says = personRefusalWords(refusal);
  if (refusal.code.startsWith('pin/')) return { field: 'pin', says };
  if (refusal.code.startsWith('person/name') || refusal.code === 'person/no-name')
    return { field: 'name', says };
  return { field: refusal.code === 'person/discount-wrong' ? 'discountUpTo' : 'role', says };
}

function personRefusalWords(refusal: PersonRefusal): string {
  switch (refusal.code) {
    case 'person/no-name':
      return 'Give the person a name.';
    case 'person/name-taken':
      return `There is a ${refusal.name} already; add a letter, so that sales say who it was.`;
    case 'person/discount-wrong':
      return `“${refusal.typed}” is not a percentage; type figures from 0 to 100, such as 5.`;
    case 'person/last-owner':
      return 'Somebody must stay owner; make another person owner first.';
    case 'pin/not-digits':
    case 'pin/too-easy':
    case 'pin/too-short':
    case 'pin/taken':
      return pinWords(refusal);
  }
}

/** What to say after a PIN that did not fit. @param wait Milliseconds to the next try. */
export function wrongPinWords(code: 'pin/wrong' | 'pin/wait', wait: number): string {
  const until = wait === 0 ? 'Try again.' : `Try again in ${waitWords(wait)}.`;
  return code === 'pin/wrong' ? `That is not the PIN. ${until}` : `Too many wrong ones. ${until}`;
}

/** @example waitWords(20_000) // => '20 seconds' */
export function waitWords(wait: number): string {
  const seconds = Math.ceil(wait / 1000);
  if (seconds < 90) return seconds === 1 ? 'a second' : `${String(seconds)} seconds`;
  return `${String(Math.ceil(seconds / 60))} minutes`;
}
