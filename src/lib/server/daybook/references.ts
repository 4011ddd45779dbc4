/** What entries speak of: ids of records and rows that the judge wants to see. */
import { NO_EVENT } from '../../core/books/names';
import { bagAt, drawerAt } from '../../core/drawer/cash-places';
import type { BodyOf, KnownEntry } from '../../core/daybook/kinds';
import { refundIds } from '../../core/judging/given-back';
import type { Judged } from '../../core/judging/history';
import { heldParts } from '../../core/held/held-account';
import { journalOf } from '../../core/journal';
import { EXCHANGE } from '../../core/payment/methods';
import { isPointsOf, POINTS } from '../../core/points/promotion-methods';
import { returnNumber } from '../../core/sale/sale-number';

export interface References {
  readonly setUp: Readonly<Record<Judged, Set<string>>>;
  readonly sales: Set<string>;
  readonly lists: Set<string>;
  readonly counts: Set<string>;
  /** Lists that goods are moved for. */
  readonly moved: Set<string>;
  readonly voided: Set<string>;
  readonly payments: Set<string>;
  readonly slipsOfReversed: Set<string>;
  readonly drawers: Set<string>;
  /** Events whose accounts it is about. */
  readonly accountsOf: Set<string>;
  /** What came or was paid, and what was joined to it. */
  readonly money: Set<string>;
  /** Events where something is handed in. */
  readonly handedInAt: Set<string>;
  readonly bankAccounts: Set<string>;
  readonly bankLines: Set<string>;
  readonly cards: Set<string>;
  /** Money that goes back to cards, and the payments that it is of. */
  readonly refunds: Set<string>;
  readonly refundsOf: Set<string>;
  /** As people see them. */
  readonly returnNumbers: Set<string>;
  /** Slips that goods which came back pay for. */
  readonly exchanged: Set<string>;
  /** Days on which money was given back without a sale, and numbers on the receipts of those. */
  readonly refundDays: Set<string>;
  readonly saleNumbers: Set<string>;
  /** Accounts that somebody holds and it moves something on, and numbers of vouchers among them. */
  readonly held: Set<string>;
  readonly vouchers: Set<string>;
  /** Customers whose points it moves. */
  readonly points: Set<string>;
  /** Orders of customers: agreed, handed over, paid for. */
  readonly orders: Set<string>;
  /** Invoices that it is about, those of them that it credits, and what they may be of: sales and orders. */
  readonly invoices: Set<string>;
  readonly credited: Set<string>;
  readonly invoicesOf: Set<string>;
  /** Standing charges that it is about. */
  readonly charges: Set<string>;
  /** Numbers that it says were given. */
  readonly invoiceNumbers: (BodyOf<'invoice.numbered'> & { readonly entry: string })[];
  readonly devices: Set<string>;
  /** Entries that are settled as loose ends. */
  readonly settled: Set<string>;
  asksAboutCarried: boolean;
  asksAboutOwnPrices: boolean;
}

export function referencesOf(entries: readonly KnownEntry[]): References {
  const found: References = {
    setUp: {
      'business.set': new Set(),
      'business.points': new Set(),
      'business.invoicing': new Set(),
      'business.reminders': new Set(),
      'tax.set': new Set(),
      'way.set': new Set(),
      'item.set': new Set(),
      'event.set': new Set(),
      'customer.set': new Set(),
      'place.set': new Set(),
      'reward.set': new Set(),
    },
    lists: new Set(),
    counts: new Set(),
    moved: new Set(),
    sales: new Set(),
    voided: new Set(),
    payments: new Set(),
    slipsOfReversed: new Set(),
    drawers: new Set(),
    accountsOf: new Set(),
    money: new Set(),
    handedInAt: new Set(),
    bankAccounts: new Set(),
    bankLines: new Set(),
    cards: new Set(),
    refunds: new Set(),
    refundsOf: new Set(),
    returnNumbers: new Set(),
    exchanged: new Set(),
    refundDays: new Set(),
    saleNumbers: new Set(),
    held: new Set(),
    vouchers: new Set(),
    points: new Set(),
    orders: new Set(),
    invoices: new Set(),
    credited: new Set(),
    invoicesOf: new Set(),
    charges: new Set(),
    invoiceNumbers: [],
    devices: new Set(),
    settled: new Set(),
    asksAboutCarried: false,
    asksAboutOwnPrices: false,
  };
  for (const entry of entries) {
    note(entry, found);
    noteHeld(entry, found);
  }
  return found;
}

function noteHeld(entry: KnownEntry, { held, vouchers, orders, points, setUp }: References): void {
  if (entry.kind === 'voucher.set') vouchers.add(entry.body.number);
  for (const { account, item } of journalOf(entry).postings) {
    if (isPointsOf(account)) {
      const customer = account.slice('points:'.length);
      points.add(customer);
      setUp['customer.set'].add(customer);
      if (item !== undefined && item !== POINTS) setUp['reward.set'].add(item);
    }
    const parts = heldParts(account);
    if (parts === null) continue;
    held.add(account);
    if (parts.head === 'voucher') vouchers.add(parts.id);
    else if (parts.head === 'deposit') orders.add(parts.id);
    else setUp['customer.set'].add(parts.id);
  }
}

function note(entry: KnownEntry, found: References): void {
  const { setUp } = found;
  switch (entry.kind) {
    case 'sale.rung': {
      const { lines, service, customer, payments } = entry.body;
      if (entry.event !== null) setUp['event.set'].add(entry.event);
      if (customer !== undefined) setUp['customer.set'].add(customer);
      for (const { item, tax, ordered, pays, kept } of lines) {
        if (kept !== undefined) setUp['tax.set'].add(kept.id);
        if (pays !== undefined) {
          found.sales.add(pays);
          found.invoices.add(pays);
        }
        if (item !== null) setUp['item.set'].add(item);
        if (ordered !== undefined) found.orders.add(ordered.order);
        for (const id of Object.keys(tax)) setUp['tax.set'].add(id);
      }
      for (const id of Object.keys(service?.tax ?? {})) setUp['tax.set'].add(id);
      for (const id of payments) found.payments.add(id);
      return;
    }
    case 'sale.voided':
    case 'void.undone':
      found.sales.add(entry.body.sale);
      found.voided.add(entry.body.sale);
      for (const { of, postings } of entry.body.takes) {
        found.payments.add(of);
        for (const { drawer } of postings) if (drawer !== undefined) found.drawers.add(drawer);
      }
      return;
    case 'refund.made': {
      const { lines, money, saleNumber, number, deviceNumber, day } = entry.body;
      if (entry.event !== null) setUp['event.set'].add(entry.event);
      for (const { item, tax } of lines) {
        if (item !== null) setUp['item.set'].add(item);
        for (const id of Object.keys(tax)) setUp['tax.set'].add(id);
      }
      if (money.way !== 'cash') setUp['way.set'].add(money.way);
      if (money.drawer !== null) found.drawers.add(money.drawer);
      for (const refund of refundIds(entry)) {
        found.refunds.add(refund);
        found.cards.add(refund);
      }
      found.returnNumbers.add(returnNumber(deviceNumber, number));
      found.refundDays.add(day);
      if (saleNumber !== '') found.saleNumbers.add(saleNumber);
      return;
    }
    case 'sale.corrected': {
      const { sale, fix } = entry.body;
      found.sales.add(sale);
      found.voided.add(sale);
      if (fix.is === 'way') {
        setUp['way.set'].add(fix.way);
        if (fix.drawer !== null) found.drawers.add(fix.drawer);
      }
      if (fix.is === 'event') {
        setUp['event.set'].add(fix.to);
        if (fix.cash !== null) found.drawers.add(fix.cash);
      }
      if (fix.is === 'item') setUp['item.set'].add(fix.item);
      if (fix.is === 'customer' && fix.customer !== null) setUp['customer.set'].add(fix.customer);
      return;
    }
    case 'return.made':
      if (entry.event !== null) setUp['event.set'].add(entry.event);
      found.returnNumbers.add(returnNumber(entry.body.deviceNumber, entry.body.number));
      found.sales.add(entry.body.sale);
      found.voided.add(entry.body.sale);
      for (const { drawer, card, exchange, way } of entry.body.money) {
        if (way !== 'cash' && exchange === undefined) setUp['way.set'].add(way);
        if (exchange !== undefined) found.exchanged.add(exchange);
        if (drawer !== null) found.drawers.add(drawer);
        if (card !== null) found.refundsOf.add(card.payment);
      }
      for (const refund of refundIds(entry)) {
        found.refunds.add(refund);
        found.cards.add(refund);
      }
      return;
    case 'payment.taken': {
      const { way, drawer, card, side, charge, clears } = entry.body;
      if (way === EXCHANGE) found.exchanged.add(entry.body.slip);
      else setUp['way.set'].add(way);
      if (drawer !== null) found.drawers.add(drawer);
      if (card !== null) found.cards.add(entry.id);
      if (card?.state === 'deferred') found.asksAboutCarried = true;
      if (side === 'card' && charge < clears) found.asksAboutOwnPrices = true;
      return;
    }
    case 'payment.reversed':
      found.payments.add(entry.body.payment);
      found.slipsOfReversed.add(entry.body.slip);
      return;
    case 'payment.asked':
      found.payments.add(entry.body.payment);
      found.cards.add(entry.body.payment);
      return;
    case 'refund.result':
      found.refunds.add(entry.body.refund);
      return;
    case 'payment.result':
    case 'hold.decided':
      found.cards.add(entry.body.payment);
      return;
    case 'event.stage':
    case 'event.back':
    case 'event.taxes':
    case 'event.ways':
    case 'event.costs':
    case 'event.prices':
    case 'event.people':
    case 'event.bring':
    case 'event.ticked':
      setUp['event.set'].add(entry.body.event);
      return;
    case 'drawer.opened':
      if (entry.event !== null) setUp['event.set'].add(entry.event);
      return;
    case 'money.came':
    case 'tips.shared':
    case 'paid.out':
      found.accountsOf.add(entry.event ?? NO_EVENT);
      return;
    case 'money.undone':
      found.money.add(entry.body.takes.of);
      return;
    case 'handed.in':
      if (entry.event !== null) found.handedInAt.add(entry.event);
      setUp['way.set'].add(entry.body.way);
      return;
    case 'bank.stated':
      found.bankAccounts.add(entry.body.account);
      return;
    case 'bank.joined':
      found.bankLines.add(entry.body.line);
      if (entry.body.money !== null) found.money.add(entry.body.money);
      return;
    case 'ledger.handed':
    case 'maker.mailed':
      setUp['event.set'].add(entry.body.event);
      return;
    case 'event.settled':
      setUp['event.set'].add(entry.body.event);
      found.accountsOf.add(entry.body.event);
      return;
    case 'drawer.counted':
    case 'drawer.late':
      found.drawers.add(entry.body.drawer);
      return;
    case 'cash.moved':
      for (const place of [entry.body.from, entry.body.to]) {
        const drawer = drawerAt(place);
        if (drawer !== null) found.drawers.add(drawer);
        if (bagAt(place) !== null && entry.event !== null) found.accountsOf.add(entry.event);
      }
      return;
    case 'stock.moved':
      for (const place of [entry.body.from, entry.body.to]) {
        if (place.length !== 36) continue;
        setUp['event.set'].add(place);
        setUp['place.set'].add(place);
      }
      if (entry.body.list !== undefined) {
        found.lists.add(entry.body.list.id);
        found.moved.add(entry.body.list.id);
      }
      for (const { item, amount = 0 } of entry.body.goods)
        if (amount !== 0) setUp['item.set'].add(item);
      return;
    case 'list.set':
    case 'list.line':
    case 'list.stage':
    case 'list.packed':
    case 'list.mailed':
      found.lists.add(entry.body.list);
      return;
    case 'count.accepted':
      for (const { item } of entry.body.goods) setUp['item.set'].add(item);
      found.counts.add(entry.body.count);
      return;
    case 'count.noted':
    case 'count.ended':
      found.counts.add(entry.body.count);
      return;
    case 'receipt.asked':
      found.sales.add(entry.body.sale);
      return;
    case 'looseEnd.settled': {
      const [sort, id = ''] = entry.body.looseEnd.split(':');
      if (sort === 'entry') found.settled.add(id);
      return;
    }
    case 'device.set':
      found.devices.add(entry.body.id);
      return;
    case 'customer.joined':
      setUp['customer.set'].add(entry.body.customer);
      if (entry.body.into !== null) setUp['customer.set'].add(entry.body.into);
      return;
    // These speak of nothing else.
    case 'order.set':
      found.orders.add(entry.body.id);
      setUp['customer.set'].add(entry.body.customer);
      if (entry.event !== null) setUp['event.set'].add(entry.event);
      for (const { item } of entry.body.lines) if (item !== null) setUp['item.set'].add(item);
      return;
    case 'order.terms':
      found.orders.add(entry.body.order);
      if (entry.body.collectAt !== null) setUp['event.set'].add(entry.body.collectAt);
      return;
    case 'order.stage':
      found.orders.add(entry.body.order);
      return;
    case 'order.paid':
      found.orders.add(entry.body.order);
      setUp['way.set'].add(entry.body.way);
      return;
    case 'invoice.made': {
      const { customer, of, taxes } = entry.body;
      setUp['customer.set'].add(customer);
      for (const { id } of taxes) setUp['tax.set'].add(id);
      if (of.is === 'order') found.orders.add(of.order);
      if (of.is === 'sale') {
        found.sales.add(of.sale);
        found.voided.add(of.sale);
      }
      if (of.is === 'sale' || of.is === 'order')
        found.invoicesOf.add(of.is === 'sale' ? of.sale : of.order);
      return;
    }
    case 'invoice.credited':
      found.invoices.add(entry.body.invoice);
      found.credited.add(entry.body.invoice);
      return;
    case 'charge.set': {
      const { id, customer, way, lines } = entry.body;
      found.charges.add(id);
      setUp['customer.set'].add(customer);
      if (way !== null) setUp['way.set'].add(way);
      for (const { taxes } of lines) for (const tax of taxes) setUp['tax.set'].add(tax);
      return;
    }
    case 'charge.again':
      found.invoices.add(entry.body.invoice);
      found.charges.add(entry.body.charge);
      return;
    case 'invoice.asked':
    case 'reminder.asked':
      found.invoices.add(entry.body.invoice);
      return;
    case 'invoice.numbered':
      found.invoices.add(entry.body.invoice);
      found.invoiceNumbers.push({ ...entry.body, entry: entry.id });
      return;
    case 'charge.paid':
    case 'charge.failed':
    case 'voucher.set':
    case 'voucher.lapsed':
    case 'held.moved':
    case 'bank.set':
    case 'ledger.chart':
    case 'looseEnd.handed':
    case 'staff.pay':
    case 'business.set':
    case 'business.cash':
    case 'business.points':
    case 'business.invoicing':
    case 'business.reminders':
    case 'reward.set':
    case 'points.moved':
    case 'business.lock':
    case 'cards.joined':
    case 'cards.reported':
    case 'category.set':
    case 'count.set':
    case 'customer.card':
    case 'customer.consent':
    case 'customer.erased':
    case 'customer.set':
    case 'event.set':
    case 'item.set':
    case 'item.supply':
    case 'maker.set':
    case 'photo.set':
    case 'pin.set':
    case 'place.set':
    case 'slip.gone':
    case 'slip.line':
    case 'slip.set':
    case 'slip.taken':
    case 'staff.set':
    case 'supplier.set':
    case 'table.set':
    case 'tax.set':
    case 'way.set':
      return;
  }
}
