/** Everything beside sales that this device keeps and Find looks through. */
import { listNumber } from '../core/stock/list-state';
import { countNumber } from '../core/stock/count';
import { readNumber } from '../core/sale/sale-number';
import { fittingDocuments, type FoundDocument } from '../core/find/documents';
import type { DeviceDatabase } from './database';

/** What the kinds and their ways are called. */
export interface DocumentWords {
  readonly list: (use: string) => string;
  readonly place: (place: string) => string;
  readonly person: (id: string | null) => string;
}

/** Those that fit what was typed. @param currency ISO 4217. */
export async function findDocuments(
  { books }: DeviceDatabase,
  typed: string,
  currency: string,
  words: DocumentWords,
): Promise<readonly FoundDocument[]> {
  if (typed.trim().length < 2) return [];
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
  ] = await Promise.all([
    books.returns.toArray(),
    books.refunds.toArray(),
    books.drawerReads.toArray(),
    books.drawers.toArray(),
    books.devices.toArray(),
    books.cashMoves.toArray(),
    books.movements.orderBy('id').reverse().limit(2000).toArray(),
    books.lists.toArray(),
    books.counts.toArray(),
    books.events.toArray(),
    books.customers.toArray(),
    books.items.toArray(),
    books.suppliers.toArray(),
  ]);
  const nameOf = new Map(
    items.map(({ id, name, detail }) => [id, detail === '' ? name : `${name}, ${detail}`]),
  );
  const drawerOf = new Map(drawers.map(({ id, name }) => [id, name]));
  const numberOf = new Map(devices.map(({ id, number }) => [id, number]));
  const eventOf = new Map(events.map(({ id, name }) => [id, name]));
  const supplierOf = new Map(suppliers.map(({ id, name }) => [id, name]));
  const all: FoundDocument[] = [
    ...returns.map((row): FoundDocument => ({
      ...{ kind: 'return', id: row.id, href: `/sales/${row.sale}`, number: row.number, at: row.at },
      ...{ title: `of ${row.saleNumber}`, amount: 0 - row.total },
      about: [row.reason, words.person(row.by)],
    })),
    ...refunds.map((row): FoundDocument => ({
      ...{ kind: 'return', id: row.id, href: `/documents/${row.id}`, number: row.number },
      ...{ title: row.lines.map(({ name }) => name).join(', '), at: row.at, amount: 0 - row.total },
      about: [
        row.saleNumber === '' ? 'without a sale' : `of ${row.saleNumber}`,
        row.reason,
        words.person(row.by),
      ],
    })),
    ...reads.map((row): FoundDocument => ({
      ...{
        kind: 'read',
        id: row.id,
        href: `/documents/${row.id}`,
        at: row.at,
        amount: row.counted,
      },
      number: readNumber(numberOf.get(row.device) ?? 0, row.number),
      title: drawerOf.get(row.drawer) ?? 'Drawer',
      about: [
        eventOf.get(row.event ?? '') ?? '',
        row.reason,
        row.bag?.number ?? '',
        words.person(row.by),
      ],
    })),
    ...moves.map((row): FoundDocument => ({
      ...{ kind: 'cash', id: row.id, href: `/documents/${row.id}`, number: row.bag, at: row.at },
      ...{ title: row.what === '' ? 'Cash moved' : row.what, amount: row.amount },
      about: [eventOf.get(row.event ?? '') ?? '', words.person(row.by)],
    })),
    ...goods.map((row): FoundDocument => ({
      ...{
        kind: 'goods',
        id: row.id,
        href: `/documents/${row.id}`,
        number: '',
        at: row.at,
        amount: null,
      },
      title: nameOf.get(row.item) ?? 'goods',
      about: [`${words.place(row.from)} → ${words.place(row.to)}`, row.note, words.person(row.by)],
    })),
    ...lists.map((row): FoundDocument => ({
      ...{
        kind: 'list',
        id: row.id,
        href: `/stock/lists/${row.id}`,
        number: listNumber(row),
        amount: null,
      },
      ...{ title: row.name === '' ? words.list(row.use) : row.name, at: row.day ?? '' },
      about: [
        words.list(row.use),
        supplierOf.get(row.supplier ?? '') ?? '',
        eventOf.get(row.event ?? '') ?? '',
        row.note,
      ],
    })),
    ...counts.map((row): FoundDocument => ({
      ...{
        kind: 'count',
        id: row.id,
        href: `/stock/counts/${row.id}`,
        number: countNumber(row),
        amount: null,
      },
      ...{ title: row.name === '' ? 'Count' : row.name, at: row.at },
      about: [words.place(row.place), row.category, row.note],
    })),
    ...events.map((row): FoundDocument => ({
      ...{ kind: 'event', id: row.id, href: `/events/${row.id}`, number: '', amount: null },
      ...{ title: row.name, at: row.days[0]?.date ?? '' },
      about: [row.organiser, row.place, row.pitch],
    })),
    ...customers.map((row): FoundDocument => ({
      ...{
        kind: 'customer',
        id: row.id,
        href: `/customers/${row.id}`,
        number: '',
        at: '',
        amount: null,
      },
      ...{ title: row.name, about: [row.company, row.email, row.phone] },
    })),
    ...items.map((row): FoundDocument => ({
      ...{ kind: 'item', id: row.id, href: `/stock/items/${row.id}`, number: row.code, at: '' },
      ...{ title: nameOf.get(row.id) ?? row.name, amount: row.price, about: row.barcodes },
    })),
    ...suppliers.map((row): FoundDocument => ({
      ...{ kind: 'supplier', id: row.id, href: `/stock/suppliers/${row.id}`, number: '', at: '' },
      ...{ title: row.name, amount: null, about: [row.email, row.phone] },
    })),
  ];
  return fittingDocuments(
    all.filter(({ title }) => title !== ''),
    typed,
    currency,
  );
}
