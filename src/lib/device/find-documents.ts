/** Everything beside sales that this device keeps and Find looks through. */
import { listNumber } from '../core/stock/list-state';
import { countNumber } from '../core/stock/count';
import { readNumber } from '../core/sale/sale-number';
import {
  cashToFind,
  documentOf,
  documentsToFind,
  goodsToFind,
  refundToFind,
  type DocumentToFind,
} from '../core/find/documents';
import { voucherText } from '../core/held/voucher-number';
import { isKnown } from '../core/event/todays-event';
import { totalOf } from '../core/order/agreed';
import { itemName } from '../core/goods/item-name';
import type { Row } from '../core/books/tables';
import { Joined, namesOf, people } from '../core/customer/joined';
import type { DeviceDatabase } from './database';

/** As many goods moved, and vouchers, as are looked through, the latest. */
const MOST_MOVED = 2000;

/** What the kinds and their ways are called. */
export interface DocumentWords {
  readonly list: (use: string) => string;
  readonly invoice: (row: Pick<Row<'invoices'>, 'sort' | 'sourceIs'>) => string;
  readonly place: (place: string) => string;
  readonly person: (id: string | null) => string;
}

/** Records that are joined to another, by the one that their people go by. */
function recordsBehind(
  customers: readonly Row<'customers'>[],
  joined: Joined,
): ReadonlyMap<string, readonly Row<'customers'>[]> {
  const behind = new Map<string, Row<'customers'>[]>();
  for (const row of customers) {
    const person = joined.of(row.id);
    if (person !== row.id) behind.set(person, [...(behind.get(person) ?? []), row]);
  }
  return behind;
}

/** All of them, to be found among. */
export async function readDocumentsToFind(
  { books }: DeviceDatabase,
  words: DocumentWords,
): Promise<readonly DocumentToFind[]> {
  const [
    returns,
    refunds,
    reads,
    drawers,
    devices,
    moves,
    goods,
    lists,
    counts,
    events,
    customers,
    items,
    suppliers,
    vouchers,
    orders,
    invoices,
    invoiceNumbers,
  ] = await Promise.all([
    books.returns.toArray(),
    books.refunds.toArray(),
    books.drawerReads.toArray(),
    books.drawers.toArray(),
    books.devices.toArray(),
    books.cashMoves.toArray(),
    books.movements.orderBy('id').reverse().limit(MOST_MOVED).toArray(),
    books.lists.toArray(),
    books.counts.toArray(),
    books.events.toArray(),
    books.customers.toArray(),
    books.items.toArray(),
    books.suppliers.toArray(),
    books.vouchers.orderBy('id').reverse().limit(MOST_MOVED).toArray(),
    books.orders.orderBy('id').reverse().limit(MOST_MOVED).toArray(),
    books.invoices.orderBy('id').reverse().limit(MOST_MOVED).toArray(),
    books.invoiceNumbers.orderBy('id').reverse().limit(MOST_MOVED).toArray(),
  ]);
  const nameOf = new Map(items.map((item) => [item.id, itemName(item)]));
  const drawerOf = new Map(drawers.map(({ id, name }) => [id, name]));
  const numberOf = new Map(devices.map(({ id, number }) => [id, number]));
  const eventOf = new Map(events.map(({ id, name }) => [id, name]));
  const supplierOf = new Map(suppliers.map(({ id, name }) => [id, name]));
  const nameOfCustomer = namesOf(customers);
  const joined = new Joined(customers);
  const othersOf = recordsBehind(customers, joined);
  const numberOfInvoice = new Map(invoiceNumbers.map(({ id, number }) => [id, number]));
  const atEvent = (event: string | null): string => eventOf.get(event ?? '') ?? '';
  const all = [
    ...returns.map((row) => ({
      ...documentOf('return', row, `/sales/${row.sale}`),
      ...{ number: row.number, title: `of ${row.saleNumber}`, amount: 0 - row.total },
      about: [row.reason, words.person(row.by)],
    })),
    ...refunds.map((row) => refundToFind(row, words.person(row.by))),
    ...reads.map((row) => ({
      ...documentOf('read', row),
      number: readNumber(numberOf.get(row.device) ?? 0, row.number),
      ...{ title: drawerOf.get(row.drawer) ?? 'Drawer', amount: row.counted },
      about: [atEvent(row.event), row.reason, row.bag?.number ?? '', words.person(row.by)],
    })),
    ...moves.map((row) => cashToFind(row, atEvent(row.event), words.person(row.by))),
    ...goods.map((row) =>
      goodsToFind(
        row,
        nameOf.get(row.item) ?? 'goods',
        [words.place(row.from), words.place(row.to)],
        words.person(row.by),
      ),
    ),
    ...lists.map((row) => ({
      ...documentOf('list', { id: row.id, at: row.day ?? '' }, `/stock/lists/${row.id}`),
      ...{ number: listNumber(row), title: row.name === '' ? words.list(row.use) : row.name },
      about: [
        words.list(row.use),
        supplierOf.get(row.supplier ?? '') ?? '',
        atEvent(row.event),
        row.note,
      ],
    })),
    ...counts.map((row) => ({
      ...documentOf('count', row, `/stock/counts/${row.id}`),
      ...{ number: countNumber(row), title: row.name === '' ? 'Count' : row.name },
      about: [words.place(row.place), row.category, row.note],
    })),
    ...events.map((row) => ({
      ...documentOf('event', { id: row.id, at: row.days[0]?.date ?? '' }, `/events/${row.id}`),
      ...{ title: row.name, about: [row.organiser, row.place, row.pitch] },
    })),
    ...people(customers).map((row) => ({
      ...documentOf('customer', row, `/customers/${row.id}`),
      title: row.name,
      about: [row, ...(othersOf.get(row.id) ?? [])].flatMap((each) => [
        ...(each === row ? [] : [each.name]),
        ...[each.company, each.email, each.phone],
      ]),
    })),
    ...vouchers.map((row) => ({
      ...documentOf('voucher', row, `/vouchers/${row.number}`),
      ...{ number: row.number, title: voucherText(row.number), amount: row.value },
      about: [row.saleNumber, words.person(row.by)],
    })),
    ...orders.filter(isKnown).map((row) => ({
      ...documentOf('order', row, `/orders/${row.id}`),
      ...{ number: row.number, title: row.lines.map(({ name }) => name).join(', ') },
      amount: totalOf(row.lines),
      about: [nameOfCustomer.get(row.customer) ?? '', row.source, row.note],
    })),
    ...invoices.map((row) => ({
      ...documentOf('invoice', row, `/invoices/${row.id}`),
      ...{ number: numberOfInvoice.get(row.id) ?? '', title: words.invoice(row) },
      amount: row.sort === 'credit' ? 0 - row.total : row.total,
      about: [
        nameOfCustomer.get(row.customer) ?? '',
        row.buyer?.company ?? '',
        row.buyer?.reference ?? '',
        row.sourceNumber,
        row.note,
      ],
    })),
    ...items.map((row) => ({
      ...documentOf('item', row, `/stock/items/${row.id}`),
      ...{ number: row.code, title: itemName(row), amount: row.price, about: row.barcodes },
    })),
    ...suppliers.map((row) => ({
      ...documentOf('supplier', row, `/stock/suppliers/${row.id}`),
      ...{ title: row.name, about: [row.email, row.phone] },
    })),
  ];
  // What was mentioned and never set up, or is forgotten, has no name.
  return documentsToFind(all.filter(({ title }) => title !== ''));
}
