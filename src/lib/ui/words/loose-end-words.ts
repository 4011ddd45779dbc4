/** Sentences about what does not tie up yet. */
import type { KeptEntry, SettleRefusal } from '../../core/loose-end/kept-entry';
import type { LostLetter } from '../../core/loose-end/lost-letter';
import type { Settlement } from '../../core/daybook/kinds/loose-end-settled';

/** What became of an entry, as the head of its card. */
export const stateWords: Readonly<Record<KeptEntry['state'], string>> = {
  doubted: 'It counts, and somebody must look at it',
  barred: 'It was left out, since it was not allowed',
  unread: 'It is kept, but could not be understood',
  unfit: 'It is kept, but what it does could not be worked out',
};

/** What the button says. */
export const settleWords: Readonly<Record<Settlement, string>> = {
  accepted: 'Leave it as it is',
  'done over': 'Do it after all',
  'left out': 'Leave it out',
};

/** What was done, in the record. */
export const settledWords: Readonly<Record<Settlement, string>> = {
  accepted: 'left as it is',
  'done over': 'done after all',
  'left out': 'left out',
};

const kindWords: Readonly<Record<string, string>> = {
  'business.set': 'The business set up',
  'tax.set': 'A tax set',
  'item.set': 'Goods or a price set',
  'table.set': 'A table arranged',
  'staff.set': 'A person set up',
  'device.set': 'A device named',
  'customer.set': 'A customer saved',
  'customer.erased': 'A customer forgotten',
  'customer.joined': 'Two records of a customer joined',
  'customer.card': 'A customer’s card on file',
  'event.set': 'An event set up',
  'event.taxes': 'The taxes of an event',
  'event.ways': 'The ways to pay of an event',
  'event.costs': 'The fee and costs of an event',
  'event.prices': 'The prices at an event',
  'event.people': 'Who is on duty at an event',
  'event.bring': 'What is brought to an event',
  'event.ticked': 'Something brought to an event',
  'event.stage': 'A stage of an event',
  'event.back': 'An event taken back to a stage',
  'business.lock': 'The lock',
  'business.cash': 'How drawers are counted',
  'business.points': 'How points are given',
  'reward.set': 'A reward set up',
  'category.set': 'A category set',
  'way.set': 'A way to pay set up',
  'maker.set': 'A maker set up',
  'maker.mailed': 'A statement mailed to a maker',
  'photo.set': 'A picture of goods',
  'staff.pay': 'What a person is paid',
  'pin.set': 'A PIN set',
  'payment.taken': 'A part of a payment',
  'payment.reversed': 'A part given back',
  'payment.asked': 'A card asked for',
  'payment.result': 'What became of a card',
  'hold.decided': 'A held card taken or released',
  'voucher.set': 'A voucher blocked or extended',
  'business.invoicing': 'How invoices are headed',
  'invoice.made': 'An invoice',
  'invoice.credited': 'A credit note',
  'invoice.numbered': 'A number of an invoice',
  'charge.set': 'A standing charge',
  'charge.paid': 'A card on file charged',
  'charge.failed': 'A card on file that was not charged',
  'charge.again': 'A card on file to be tried again',
  'invoice.asked': 'An invoice to be sent',
  'business.reminders': 'How customers are reminded',
  'reminder.asked': 'A reminder',
  'voucher.lapsed': 'A voucher that ran out',
  'held.moved': 'Something moved between accounts',
  'points.moved': 'Points given or taken',
  'order.set': 'An order of a customer',
  'order.terms': 'What was agreed of an order',
  'order.stage': 'How far an order is',
  'order.paid': 'What was paid for an order elsewhere',
  'sale.voided': 'A sale voided',
  'void.undone': 'A void taken back',
  'return.made': 'Goods that came back',
  'refund.made': 'Money given back without a sale',
  'sale.corrected': 'Something booked wrongly, put right',
  'refund.result': 'What became of money that goes back to a card',
  'drawer.opened': 'A drawer opened',
  'drawer.counted': 'A drawer counted',
  'drawer.late': 'Late cash of a drawer',
  'cash.moved': 'Cash moved',
  'cards.reported': 'A report of the acquirer',
  'cards.joined': 'A line of a report joined by hand',
  'money.came': 'Money that came to the bank',
  'money.undone': 'Money that came or was paid, taken back',
  'handed.in': 'Cheques or tokens handed in',
  'bank.set': 'A bank account set up',
  'bank.stated': 'A bank statement taken in',
  'bank.joined': 'A line of a statement joined',
  'ledger.chart': 'The accounts of the ledger',
  'ledger.handed': 'A ledger handed over',
  'tips.shared': 'Tips shared out',
  'paid.out': 'Somebody paid',
  'event.settled': 'An event settled',
  'stock.moved': 'Goods moved',
  'place.set': 'A place set up',
  'supplier.set': 'A supplier set up',
  'item.supply': 'How goods are bought',
  'list.set': 'A list of goods',
  'list.line': 'A line of a list of goods',
  'list.stage': 'A list of goods approved or ended',
  'list.packed': 'Goods packed',
  'list.mailed': 'An order mailed to its supplier',
  'count.set': 'A count of stock',
  'count.noted': 'Goods counted',
  'count.accepted': 'A count of stock accepted',
  'count.ended': 'A count of stock ended',
  'receipt.asked': 'A receipt to be sent',
  'sale.rung': 'A sale',
  'looseEnd.settled': 'A loose end settled',
  'looseEnd.handed': 'A loose end handed to somebody',
};

/** A kind in words; one that is not known here, by its own name. */
export const kindInWords = (kind: string): string => kindWords[kind] ?? `An entry “${kind}”`;

export function settleRefusalWords({ code }: SettleRefusal): string {
  switch (code) {
    case 'looseEnd/no-reason':
      return 'Say why, in a few words; whoever looks at the books later will want to know.';
    case 'looseEnd/settled':
      return 'Somebody has settled this already.';
    case 'looseEnd/not-so':
      return 'This cannot be settled that way.';
  }
}

/** A letter or message that nobody took: what it was, and where it is asked for again. */
export function lostLetterWords({ way, about }: LostLetter): {
  readonly title: string;
  readonly story: string;
  readonly href: string;
  readonly link: string;
} {
  const story =
    'For four days nobody took it: the address is wrong, or there was none. Look at it and ask again, or tell them otherwise.';
  switch (way) {
    case 'email':
    case 'text': {
      const title =
        way === 'text' ? 'A receipt was not sent to a telephone' : 'A receipt was not mailed';
      return { title, story, href: `/sales/${about}`, link: 'Open the sale' };
    }
    case 'invoice':
    case 'reminder': {
      const title = way === 'invoice' ? 'An invoice was not mailed' : 'A reminder was not mailed';
      return { title, story, href: `/invoices/${about}`, link: 'Open the invoice' };
    }
    case 'order':
      return {
        ...{ title: 'An order was not mailed to its supplier', story },
        ...{ href: `/stock/lists/${about}`, link: 'Open the order' },
      };
    case 'maker':
      return {
        ...{ title: 'A statement was not mailed to a maker', story },
        ...{ href: `/events/${about}/settle`, link: 'Open the event' },
      };
  }
}
