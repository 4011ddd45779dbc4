/** A year of a demo business beside today's event: markets of several kinds, and the stock between them. */
import { BASE, onTheWay, SUPPLIERS } from '../src/lib/core/books/names';
import type { Draft } from '../src/lib/core/daybook/chain';
import { draft, type BodyOf } from '../src/lib/core/daybook/kinds';
import { goodsGone, pack } from '../src/lib/core/stock/do-list';
import { costOf } from '../src/lib/core/sale/cost';
import type { LineNow } from '../src/lib/core/stock/list-state';
import type { DemoBusiness, DemoMarket, DemoStock } from './business';
import { newId, type DemoDevice } from './demo-device';
import { recordIdOf } from './ids';

const DAY = 86_400_000;

const idOfEvent = (demo: DemoBusiness, market: DemoMarket, date: string): string =>
  recordIdOf(demo.id, 'event', `${market.name} ${date}`);
const dateOf = (at: number): string => new Date(at).toISOString().slice(0, 10);

function eventOf(demo: DemoBusiness, market: DemoMarket, at: number): BodyOf<'event.set'> {
  const { name, short, organiser, place, pitch, opens, closes, stripe } = market;
  const dates = Array.from({ length: market.days }, (_, day) => dateOf(at + day * DAY));
  return {
    ...{ name, short, organiser, place, pitch, stripe },
    id: idOfEvent(demo, market, dates[0]!),
    series: recordIdOf(demo.id, 'series', name),
    cloth: '#fffaf0',
    days: dates.map((date) => ({ date, opens, closes })),
    timeZone: demo.business.timeZone,
    notes: '',
  };
}

/** Editions that are behind us, each with some sales. */
export const pastMarkets = (demo: DemoBusiness, now: number) =>
  demo.markets.flatMap((market, at) =>
    market.editions
      .filter((offset) => offset < 0)
      .map((offset) => ({
        daysAgo: -offset,
        sales: 7 + ((at * 3 - offset) % 6),
        event: eventOf(demo, market, now + offset * DAY),
      })),
  );

/** Its markets and all that is going on with its stock, written by its people on two devices. */
export async function seedSeason(
  desk: DemoDevice,
  phone: DemoDevice,
  demo: DemoBusiness,
  {
    now,
    atBase,
  }: { readonly now: number; readonly atBase: () => Promise<ReadonlyMap<string, number>> },
): Promise<void> {
  const [owner = null, second = owner, third = second] = demo.staff.map(({ id }) => id);
  for (const market of demo.markets)
    for (const offset of market.editions) {
      if (offset < 0) continue;
      const event = eventOf(demo, market, now + offset * DAY);
      desk.write([draft('event.set', newId(), event.id, event)], now - 20 * DAY, owner);
    }
  const goods = new Goods(demo);
  desk.write(goods.setUp(), now - 19 * DAY, owner);
  goods.order(desk, owner, second, now);
  goods.transfer(desk, owner, now);
  goods.gone(desk, third, now);
  const next = demo.markets
    .flatMap((market) => market.editions.map((offset) => ({ market, offset })))
    .filter(({ offset }) => offset > 0)
    .sort((a, b) => a.offset - b.offset)[0];
  await desk.send();
  if (next !== undefined) {
    const event = idOfEvent(demo, next.market, dateOf(now + next.offset * DAY));
    goods.loadList(desk, phone, event, { owner, second, now });
  }
  await desk.send();
  await phone.send();
  goods.count(desk, phone, { owner, third, now }, await atBase());
  await desk.send();
  await phone.send();
}

interface People {
  readonly owner: string | null;
  readonly second?: string | null;
  readonly third?: string | null;
  readonly now: number;
}

class Goods {
  readonly #by = new Map<string, BodyOf<'item.set'>>();
  readonly #stock: DemoStock;
  constructor(readonly demo: DemoBusiness) {
    this.#stock = demo.stock;
    for (const { body } of demo.items)
      if (body.choices.length === 0 && body.isStocked && !this.#by.has(body.code))
        this.#by.set(body.code, body);
  }
  #item(code: string): BodyOf<'item.set'> {
    const item = this.#by.get(code);
    if (item === undefined) throw new Error(`the demo has no ${code}`);
    return item;
  }
  #id(...name: string[]): string {
    return recordIdOf(this.demo.id, ...name);
  }
  #costOf = (code: string, percent: number): number =>
    Math.round(this.#item(code).price * percent) * 10;

  setUp(): readonly Draft[] {
    const { van, stores, areas, suppliers, carried, levels } = this.#stock;
    const place = (
      id: string,
      name: string,
      sort: BodyOf<'place.set'>['sort'],
      position: number,
      more: Partial<BodyOf<'place.set'>> = {},
    ): Draft =>
      draft('place.set', newId(), null, {
        ...{ id, name, sort, position, within: null, code: '', isActive: true },
        ...{ mostWeight: null, mostCrates: null },
        ...more,
      });
    const limits = { mostWeight: van.kilograms * 1000, mostCrates: van.crates * 1000 };
    const supply = new Map<string, BodyOf<'item.supply'>>();
    const of = (code: string): BodyOf<'item.supply'> =>
      supply.get(code) ?? {
        ...{ item: this.#item(code).id, suppliers: [], pars: [], weight: null, perCrate: null },
      };
    for (const { name, sells, percent } of suppliers)
      for (const [code, pack] of sells) {
        const before = of(code);
        const sold = {
          supplier: this.#id('supplier', name),
          code: `${name.slice(0, 2).toUpperCase()}-${code}`,
          pack: pack * 1000,
          price: this.#costOf(code, percent),
        };
        supply.set(code, { ...before, suppliers: [...before.suppliers, sold] });
      }
    for (const [code, weight, perCrate] of carried)
      supply.set(code, { ...of(code), weight, perCrate: perCrate * 1000 });
    for (const [code, , par] of levels)
      supply.set(code, { ...of(code), pars: [{ place: BASE, par: par * 1000 }] });
    return [
      place(BASE, 'Nursery', 'base', 0, { code: 'PLACE-BASE' }),
      place(this.#id('place', van.name), van.name, 'van', 1, { code: 'PLACE-VAN', ...limits }),
      ...stores.map((name, at) =>
        place(this.#id('place', name), name, 'store', at + 2, { code: `PLACE-S${String(at + 1)}` }),
      ),
      ...areas.map((name, at) =>
        place(this.#id('place', name), name, 'area', at + 9, {
          ...{ within: BASE, code: `PLACE-A${String(at + 1)}` },
        }),
      ),
      ...suppliers.map(({ name, email, phone, days }) =>
        draft('supplier.set', newId(), null, {
          ...{ id: this.#id('supplier', name), name, email, phone, days },
          ...{ note: '', isActive: true },
        }),
      ),
      ...levels.map(([code, level]) =>
        draft('item.set', newId(), null, {
          ...this.#item(code),
          reorder: [{ place: BASE, level: level * 1000 }],
        }),
      ),
      ...[...supply.values()].map((body) => draft('item.supply', newId(), null, body)),
    ];
  }

  #list(
    body: Omit<BodyOf<'list.set'>, 'list' | 'deviceNumber' | 'note' | 'van' | 'day'> & {
      readonly van?: string | null;
      readonly day?: string | null;
    },
    device: DemoDevice,
    event: string | null,
    lines: readonly (readonly [code: string, wanted: number, price?: number])[],
  ): { readonly id: string; readonly drafts: readonly Draft[] } {
    const id = newId();
    const head = { van: null, day: null, note: '', ...body, list: id, deviceNumber: device.number };
    const stage = { list: id, to: 'approved', why: '' } as const;
    return {
      id,
      drafts: [
        draft('list.set', newId(), event, head),
        ...lines.map(([code, wanted, price]) =>
          draft('list.line', newId(), event, {
            ...{ list: id, item: this.#item(code).id, wanted: wanted * 1000 },
            ...{ price: price ?? null, note: '' },
          }),
        ),
        draft('list.stage', newId(), event, stage),
      ],
    };
  }

  /** Ordered, and come in part: one thing short, and dearer than was agreed. */
  order(desk: DemoDevice, owner: string | null, second: string | null, now: number): void {
    const [supplier] = this.#stock.suppliers;
    if (supplier === undefined) return;
    const id = this.#id('supplier', supplier.name);
    const codes = supplier.sells.slice(0, 4);
    const order = this.#list(
      {
        ...{ use: 'order', number: 1, name: 'Order', from: SUPPLIERS, to: BASE, supplier: id },
        day: dateOf(now - DAY),
      },
      desk,
      null,
      codes.map(([code, pack]) => [code, pack * 2, this.#costOf(code, supplier.percent)]),
    );
    desk.write(order.drafts, now - 6 * DAY, owner);
    const came = codes.slice(0, 3).map(([code, pack], at) => {
      const quantity = (at === 0 ? pack * 2 - 2 : pack * 2) * 1000;
      const cost = this.#costOf(code, supplier.percent) + (at === 1 ? 10_000 : 0);
      return { item: this.#item(code).id, quantity, amount: costOf({ quantity, cost }) ?? 0 };
    });
    const move = {
      reason: 'delivered' as const,
      ...{ from: SUPPLIERS, to: BASE, goods: came, supplier: id, note: 'note 4471' },
      list: { id: order.id, does: 'move' as const },
    };
    desk.write([draft('stock.moved', newId(), null, move)], now - DAY, second);
  }

  /** Sent to another store, and not there yet. */
  transfer(desk: DemoDevice, owner: string | null, now: number): void {
    const [store] = this.#stock.stores;
    const codes = this.#stock.carried.slice(0, 3).map(([code]) => code);
    if (store === undefined) return;
    const to = this.#id('place', store);
    const list = this.#list(
      {
        ...{ use: 'transfer', number: 1, name: `To ${store}`, from: BASE, to, supplier: null },
      },
      desk,
      null,
      codes.map((code) => [code, 12]),
    );
    const goods = codes.map((code) => ({ item: this.#item(code).id, quantity: 12_000 }));
    const body = { list: list.id, goods };
    const sent = {
      reason: 'sent' as const,
      ...{ from: BASE, to: onTheWay(list.id), goods, note: '' },
      list: { id: list.id, does: 'send' as const },
    };
    desk.write(
      [
        ...list.drafts,
        draft('list.packed', newId(), null, body),
        draft('stock.moved', newId(), null, sent),
      ],
      now - 4 * 3_600_000,
      owner,
    );
  }

  gone(desk: DemoDevice, by: string | null, now: number): void {
    const whys = ['broken', 'sampled', 'given', 'out of date', 'used'] as const;
    whys.forEach((why, at) => {
      const code = this.#stock.carried[at]?.[0];
      if (code === undefined) return;
      const item = this.#item(code);
      const drafts = goodsGone({
        ...{ newId, event: null, place: BASE, why, note: '' },
        goods: [{ item: item.id, quantity: (at + 1) * 1000 }],
        costs: new Map([[item.id, item]]),
      });
      desk.write(drafts, now - (at + 2) * DAY, by);
    });
  }

  /** What is taken to the next market: two people are packing it. */
  loadList(
    desk: DemoDevice,
    phone: DemoDevice,
    event: string,
    { owner, second = null, now }: People,
  ): void {
    const van = this.#id('place', this.#stock.van.name);
    const codes = this.#stock.carried.map(([code]) => code);
    const wanted = codes.map((code, at) => [code, [48, 24, 12, 30, 20][at % 5]!] as const);
    const list = this.#list(
      {
        ...{ use: 'load', number: 1, name: 'Load list', from: BASE, to: event, supplier: null },
        van,
      },
      desk,
      event,
      wanted,
    );
    desk.write(list.drafts, now - 2 * 3_600_000, owner);
    const row = { id: list.id, event, stage: 'approved' } as Parameters<typeof pack>[1];
    const lines: readonly LineNow[] = wanted.map(([code, much]) => ({
      ...{ item: this.#item(code).id, wanted: much * 1000, price: null, note: '' },
      ...{ packed: 0, sent: 0, received: 0 },
    }));
    const packs = [
      [desk, owner, 0, 48],
      [phone, second, 1, 16],
      [desk, owner, 2, 5],
      [phone, second, 4, 18],
    ] as const;
    for (const [device, by, at, much] of packs) {
      const item = lines[at]?.item;
      if (item === undefined) continue;
      const packed = pack(newId, row, lines, [{ item, quantity: much * 1000 }]);
      if (packed.ok) device.write(packed.drafts, now - 3_600_000 + at * 60_000, by);
    }
  }

  /** A count of a shelf that is half done, by two people. */
  count(
    desk: DemoDevice,
    phone: DemoDevice,
    { owner, third = null, now }: People,
    there: ReadonlyMap<string, number>,
  ): void {
    const count = newId();
    const codes = this.#stock.carried.slice(0, 4).map(([code]) => code);
    const body = {
      ...{ count, deviceNumber: desk.number, number: 1, name: 'Count of the nursery' },
      ...{ place: BASE, category: '', isBlind: false, note: '' },
    };
    desk.write([draft('count.set', newId(), null, body)], now - 50 * 60_000, owner);
    const note = (code: string, off: number): Draft => {
      const { id } = this.#item(code);
      const goods = [{ item: id, quantity: Math.max(0, (there.get(id) ?? 0) + off * 1000) }];
      return draft('count.noted', newId(), null, { count, goods });
    };
    desk.write([note(codes[0]!, -3), note(codes[1]!, 0)], now - 45 * 60_000, owner);
    phone.write([note(codes[2]!, 1)], now - 40 * 60_000, third);
  }
}
