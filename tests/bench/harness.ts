/** Runs in Chromium at the application's own address: fills the device, and times its daybook. */
import { draft } from '../../src/lib/core/daybook/kinds';
import { ringUp } from '../../src/lib/core/sale/ring-up';
import { emptySlip, putItem } from '../../src/lib/core/slip/open-slip';
import { taxesInForce } from '../../src/lib/core/slip/price-slip';
import { todaysEvent } from '../../src/lib/core/event/todays-event';
import type { Row } from '../../src/lib/core/books/tables';
import { readItems } from '../../src/lib/core/formats/items-table';
import { takeItemsIn } from '../../src/lib/device/items-file/items-file';
import { DeviceDaybook } from '../../src/lib/device/daybook';
import { DeviceDatabase } from '../../src/lib/device/database';
import { newId } from '../../src/lib/device/new-id';
import { timeCardAsks, timeCarried } from './harness-cards';
import { fillList, fillPlaces } from './harness-stock';

const db = new DeviceDatabase();
const { books } = db;
const daybook = new DeviceDaybook(db);

async function today(): Promise<Row<'events'>> {
  const event = todaysEvent(await books.events.toArray(), Date.now());
  if (event === undefined) throw new Error('no event today');
  return event;
}

/** Replaces the goods by `items` of them, forty on each table, and adds `sales` past sales. */
async function fill(items: number, sales: number): Promise<void> {
  const event = await today();
  const pattern = (await books.items.toArray()).find(
    (item) =>
      item.variantOf === null &&
      item.choices.length === 0 &&
      item.extras.length === 0 &&
      item.unit === '' &&
      !item.isOpenPrice,
  );
  if (pattern === undefined) throw new Error('no goods');
  for (const table of [
    'items',
    'tables',
    'stock',
    'sales',
    'saleLines',
    'payments',
    'movements',
  ] as const) {
    await books[table].clear();
  }
  const made = Array.from({ length: items }, (_, n): Row<'items'> => ({
    ...pattern,
    id: newId(),
    name: `${['Aster', 'Basil', 'Crocus', 'Dahlia', 'Erica'][n % 5]!} ${String(n)}`,
    code: `C${String(n)}`,
    barcodes: [],
    price: 100 + (n % 900),
  }));
  await books.items.bulkPut(made);
  await books.stock.bulkPut(
    made.map(({ id }) => ({ place: event.id, item: id, quantity: 500_000 })),
  );
  const tables = Array.from(
    { length: Math.min(8, Math.ceil(items / 40)) },
    (_, n): Row<'tables'> => ({
      id: newId(),
      setStamp: 'x',
      name: `Table ${String(n + 1)}`,
      sort: n,
      goods: made.slice(n * 40, n * 40 + 40).map(({ id }) => ({ item: id, width: 1 })),
      event: null,
      size: 'middle',
      isActive: true,
    }),
  );
  await books.tables.bulkPut(tables);
  for (let from = 0; from < sales; from += 2000) {
    const batch = Array.from({ length: Math.min(2000, sales - from) }, (_, n) =>
      pastSale(event, made, from + n),
    );
    await books.sales.bulkPut(batch.map(({ sale }) => sale));
    await books.saleLines.bulkPut(batch.flatMap(({ lines }) => lines));
    await books.payments.bulkPut(batch.map(({ payment }) => payment));
  }
}

function pastSale(event: Row<'events'>, items: readonly Row<'items'>[], n: number, many = 3) {
  const [id, part, slip] = [newId(), newId(), newId()];
  const said = {
    event: event.id,
    device: event.id,
    by: null,
    at: new Date(Date.now() - 86_400_000).toISOString(),
  };
  const lines = Array.from({ length: many }, (_, line): Row<'saleLines'> => {
    const item = items[(n * 3 + line) % Math.max(1, items.length)];
    const price = item?.price ?? 100;
    return {
      sale: id,
      line,
      event: event.id,
      item: item?.id ?? null,
      name: item?.name ?? 'x',
      detail: '',
      unit: '',
      quantity: 1000,
      price,
      gross: price,
      discount: 0,
      net: price,
      tax: {},
      total: price,
      cost: null,
      extras: [],
      listPrice: null,
      reason: '',
      note: '',
      seller: null,
      maker: null,
      tag: '',
      standing: 0,
      isStocked: true,
      account: null,
      until: '',
      ordered: null,
      points: 0,
      toward: {},
      kept: null,
    };
  });
  const total = lines.reduce((all, line) => all + line.total, 0);
  const sale: Row<'sales'> = {
    id,
    ...said,
    slip,
    number: `D9-${String(n + 1)}`,
    day: '2026-01-01',
    hour: 10,
    units: 3,
    total,
    tax: 0,
    taxes: [],
    payments: [part],
    note: '',
    customer: null,
    standingName: '',
    service: 0,
    serviceTax: 0,
    uplift: 0,
    upliftTaxes: {},
    place: event.id,
    isUpliftWaived: false,
    paidIn: 0,
    earned: null,
  };
  const payment: Row<'payments'> = {
    id: part,
    ...said,
    slip,
    way: 'cash',
    wayName: 'Cash',
    method: 'cash',
    side: 'cash',
    drawer: event.id,
    clears: total,
    charge: total,
    surcharge: 0,
    tip: 0,
    change: 0,
    rounding: 0,
    reference: '',
    customer: null,
    share: null,
    card: null,
    held: null,
    promotion: null,
  };
  return { sale, lines, payment };
}

/** Two past sales, one of 3 lines and one of 300. @returns Their ids. */
async function longSale(): Promise<readonly string[]> {
  const event = await today();
  const items = await books.items.toArray();
  const made = [3, 300].map((many, n) => pastSale(event, items, 900_000 + n, many));
  await books.sales.bulkPut(made.map(({ sale }) => sale));
  await books.saleLines.bulkPut(made.flatMap(({ lines }) => lines));
  await books.payments.bulkPut(made.map(({ payment }) => payment));
  return made.map(({ sale }) => sale.id);
}

/** Puts a slip of so many lines on the counter. */
async function fillSlip(lines: number): Promise<void> {
  let slip = emptySlip(newId());
  for (const item of await books.items.reverse().limit(lines).toArray()) {
    const put = putItem(slip, item, 1000, newId());
    if (put.ok) slip = put.slip;
  }
  await db.write('slip', { ...slip, revision: 1 });
}

/** Milliseconds to read a file of so many new items and to take them in, all of it on disk. */
async function timeImport(items: number): Promise<number> {
  const lines = Array.from({ length: items }, (_, n) => ({
    name: `Imported ${String(n)} of ${newId()}`,
    price: '4.50',
    code: newId().slice(0, 36),
  }));
  const context = { business: newId(), currency: 'GBP', taxes: [], makers: [], categories: [] };
  const from = performance.now();
  const planned = readItems({ newId, lines, items: await books.items.toArray(), context });
  const signal = new AbortController().signal;
  await takeItemsIn(daybook, planned, undefined, () => undefined, signal);
  return performance.now() - from;
}

/** Milliseconds until a sale is on disk, and until the rows have followed. */
export interface SaleTimes {
  readonly durable: number;
  readonly applied: number;
}

/** Rings up a sale of three lines through the daybook. */
async function timeSale(): Promise<SaleTimes> {
  const event = await today();
  const taxes = taxesInForce(await books.taxes.toArray());
  const [business] = await books.businesses.toArray();
  const items = await books.items.limit(3).toArray();
  let slip = emptySlip(newId());
  for (const item of items) {
    const put = putItem(slip, item, 1000, newId());
    if (put.ok) slip = put.slip;
  }
  await db.write('slip', { ...slip, revision: 1 });
  const from = performance.now();
  const rung = await daybook.append(
    ({ saleNumber }) =>
      ringUp({
        newId,
        slip,
        pricing: business!,
        taxes,
        event,
        drawer: event.id,
        handed: 100_000,
        deviceNumber: 9,
        number: saleNumber,
        now: Date.now(),
      }),
    { settles: slip.id },
  );
  const durable = performance.now() - from;
  await daybook.settle();
  const applied = performance.now() - from;
  if (!rung.ok) throw new Error(JSON.stringify(rung.refusal));
  return { durable, applied };
}

let bare: Promise<IDBDatabase> | undefined;
/** One strict put of as many bytes as the entries of such a sale; milliseconds until it is durable. */
async function timeBarePut(): Promise<number> {
  bare ??= new Promise((resolve, reject) => {
    const opening = indexedDB.open('bare', 1);
    opening.onupgradeneeded = () =>
      opening.result.createObjectStore('puts', { autoIncrement: true });
    opening.onsuccess = () => resolve(opening.result);
    opening.onerror = () => reject(new Error('the bare database did not open'));
  });
  const database = await bare;
  const entries = (await db.entries.orderBy('upTo').last())?.entries ?? [];
  const from = performance.now();
  await new Promise<void>((resolve, reject) => {
    const transaction = database.transaction('puts', 'readwrite', { durability: 'strict' });
    transaction.objectStore('puts').put({ entries });
    transaction.oncomplete = () => resolve();
    transaction.onerror = () => reject(new Error('the bare put failed'));
  });
  return performance.now() - from;
}

/** Opens a drawer, so that the counter is as usable as it gets. */
async function openDrawer(): Promise<void> {
  const event = await today();
  const id = newId();
  await daybook.append(() => ({
    ok: true as const,
    drafts: [draft('drawer.opened', id, event.id, { name: 'Drawer', float: 0, counts: [] })],
  }));
  const choices = (await db.read('choices')) ?? { by: null, drawers: {} };
  await db.write('choices', { ...choices, drawers: { ...choices.drawers, [event.id]: id } });
}

export type WithHarness = Window & { readonly harness: Harness };
export interface Harness {
  fill(items: number, sales: number): Promise<void>;
  timeSale(): Promise<SaleTimes>;
  timeBarePut(): Promise<number>;
  openDrawer(): Promise<void>;
  fillSlip(lines: number): Promise<void>;
  longSale(): Promise<readonly string[]>;
  timeImport(items: number): Promise<number>;
  timeCarried(cards: number): Promise<number>;
  timeCardAsks(times: number): Promise<number[]>;
  fillPlaces(): Promise<void>;
  fillList(lines: number): Promise<string>;
}
const harness: Harness = {
  fill,
  fillSlip,
  longSale,
  openDrawer,
  timeBarePut,
  timeImport,
  timeSale,
  fillPlaces: async () => await fillPlaces(db, (await today()).id),
  fillList: async (lines) => await fillList(db, (await today()).id, lines),
  timeCarried: async (cards) => await timeCarried(daybook, (await today()).id, cards),
  timeCardAsks: async (times) => await timeCardAsks(daybook, times),
};
Object.assign(window, { harness });
