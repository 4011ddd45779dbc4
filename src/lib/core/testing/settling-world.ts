/** An event from its first sale to the bank, for the tests of settling: what happens is written as entries. */
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Draft } from '../daybook/chain';
import type { Entry } from '../daybook/entry';
import { draft, type BodyOf, type KnownEntry } from '../daybook/kinds';
import { readEntry } from '../daybook/read-entry';
import { foldSums } from '../journal/sums';
import { journalOf } from '../journal';
import { takingsOfPart } from '../payment/part-sums';
import { standingVoids } from '../loose-end/voided-twice';
import { takeReport, type CardLine } from '../settle/take-report';
import { linesBack } from '../sale/return-figures';
import { makersGoods } from '../settle/makers-share';
import { standing } from '../settle/standing';
import type { SettlingDevice, SettlingRows } from '../settle/rows';
import { settlingOf, type Settling } from '../settle/settling';
import { CASH_WAY } from '../payment/ways';
import { takePart } from '../sale/take-part';
import { emptySlip, putItem } from '../slip/open-slip';
import { DeviceWriter } from './arbitrary-daybook';
import {
  CARD_WAY,
  deviceId,
  EVENT,
  eventBody,
  idOf,
  item,
  itemId,
  pricing,
  tax,
  TAX,
} from './made-up-business';

export const NOON = Date.UTC(2026, 10, 22, 12);
const LATER = NOON + 3 * 86_400_000;
export const MAKER = idOf(21, 1);
/** A card at the reader, without surcharge. */
const READER = { ...CARD_WAY, method: 'card', surchargeRate: '0' } as const;

export class SettlingWorld {
  readonly books = new Books();
  readonly writer = new DeviceWriter(1);
  readonly entries: Entry[] = [];
  readonly known: KnownEntry[] = [];
  readonly drawer: string;
  /** Devices as the server knows them, beside the one that writes. */
  readonly others: SettlingDevice[] = [];
  readonly kept: SettlingRows['kept'][number][] = [];
  readonly soldTwice: SettlingRows['soldTwice'][number][] = [];
  readonly uncollected: SettlingRows['uncollected'][number][] = [];
  /** What the acquirer charged, by payment. */
  readonly charged = new Map<string, { readonly amount: number; readonly at: string }>();
  #sales = 0;
  #lines = 0;

  constructor() {
    const { setStamp: _stamp, ...way } = READER;
    this.write([
      draft('event.set', this.writer.newId(), EVENT, eventBody('Quay')),
      draft('way.set', this.writer.newId(), null, { ...way, side: 'card' }),
      ...[1, 2, 3].map((n) => {
        const { setStamp: _none, ...body } = this.#item(n);
        return draft('item.set', this.writer.newId(), null, {
          ...body,
          barcodes: [],
          taxes: [TAX],
        });
      }),
      draft('maker.set', this.writer.newId(), null, {
        ...{ id: MAKER, number: 1, name: 'Fern', commission: '30', email: '', isActive: true },
      }),
    ]);
    this.drawer = this.writer.newId();
    const counts = [{ value: 1, count: 5000 }];
    this.write([draft('drawer.opened', this.drawer, EVENT, { name: 'Tin', float: 5000, counts })]);
    this.move('base', EVENT, [20, 20, 20]);
  }

  /** The third is a maker’s. */
  #item(n: number) {
    return { ...item(n, n * 105), isStocked: true, maker: n === 3 ? MAKER : null };
  }

  write(drafts: readonly Draft[], now = NOON): readonly Entry[] {
    const entries = this.writer.append(drafts, now, idOf(7, 1));
    for (const entry of entries) {
      const read = readEntry(entry);
      if (!read.ok) throw new Error(JSON.stringify(read));
      this.entries.push(entry);
      this.known.push(read.entry);
      this.books.apply(changesOf(read.entry));
    }
    return entries;
  }

  /** Things of the first, second and third item from one place to another. */
  move(from: string, to: string, things: readonly number[]): void {
    const goods = things.flatMap((quantity, n) =>
      quantity === 0 ? [] : { item: itemId(n + 1), quantity: quantity * 1000 },
    );
    const body = { reason: 'moved', from, to, goods, note: '' } as const;
    this.write([draft('stock.moved', this.writer.newId(), EVENT, body)]);
  }

  /** @returns The drafts of a sale of one thing, paid by cash or a card at the reader. */
  sale(n: number, by: 'cash' | 'card', tip = 0, now = NOON): readonly Draft[] {
    const { newId } = this.writer;
    const put = putItem(emptySlip(newId()), this.#item(n), 1000, 'line');
    if (!put.ok) throw new Error(put.refusal.code);
    const payment = newId();
    const isCard = by === 'card';
    const card = {
      scheme: 'Visa',
      last4: String(4000 + this.#sales),
      entry: 'tap',
      state: 'captured',
      approval: '123456',
      acquirer: payment,
      sealed: '',
      expires: '',
      voice: '',
      isOverLimit: false,
      isSigned: false,
    } as const;
    const taken = takePart({
      newId,
      slip: put.slip,
      pricing,
      taxes: [tax],
      event: { id: EVENT, timeZone: 'Europe/London' },
      drawer: this.drawer,
      deviceNumber: 1,
      number: (this.#sales += 1),
      now,
      way: isCard ? READER : CASH_WAY,
      amount: null,
      tip,
      ...(isCard ? { id: payment, card } : {}),
    });
    if (!taken.ok) throw new Error(taken.refusal.code);
    const { charge, surcharge, tip: given } = taken.part;
    const amount = charge + surcharge + given;
    if (!isCard) return taken.drafts;
    this.charged.set(payment, { amount, at: new Date(now).toISOString() });
    const asked = { payment, slip: put.slip.id, way: READER.id, amount };
    return [draft('payment.asked', newId(), EVENT, asked), ...taken.drafts];
  }

  sell(n: number, by: 'cash' | 'card', tip = 0): void {
    this.write(this.sale(n, by, tip));
  }

  /** A line of the report about a card. */
  line(payment: string, more: Partial<CardLine> = {}): CardLine {
    const { amount, at } = this.charged.get(payment)!;
    this.#lines += 1;
    const last4 = this.books.row('cardPayments', payment)?.last4 ?? '';
    return {
      ...{ id: `line-${String(this.#lines)}`, sort: 'payment', reference: payment, amount },
      ...{ fee: 5, scheme: 'Visa', last4, at, payout: 'PO-1', payoutDay: '2026-11-23' },
      ...more,
    };
  }

  report(lines: readonly CardLine[]): void {
    this.write(takeReport(this.writer.newId, 'acquirer', '2026-11-22', lines), LATER);
  }

  came(account: string, amount: number, fees: number, what: string): void {
    const from = [{ account, amount: amount + fees }];
    const body = { day: '2026-11-24', amount, fees, from, payments: [], what };
    this.write([draft('money.came', this.writer.newId(), EVENT, body)], LATER);
  }

  /** What should be in the drawer is, or more or less; the float stays, the rest is bagged. */
  count(off = 0, bag: BodyOf<'drawer.counted'>['bag'] = null): string {
    const sums = this.books.row('drawerSums', this.drawer);
    const expected = 5000 + (sums?.handed ?? 0) - (sums?.change ?? 0);
    const counted = expected + off;
    const body = {
      ...{ drawer: this.drawer, number: 1, expected, counted, difference: off },
      ...{ counts: [{ value: 1, count: counted }], reason: off === 0 ? '' : 'so' },
      ...{ stays: 0, bag, first: null },
    };
    return this.write([draft('drawer.counted', this.writer.newId(), EVENT, body)], NOON + 1)[0]!.id;
  }

  rows(): SettlingRows {
    const { books } = this;
    const at = <T extends { readonly event: string | null }>(all: readonly T[]): readonly T[] =>
      all.filter(({ event }) => event === EVENT);
    const off = new Set(
      standingVoids(books.rows('voids'), books.rows('voidsUndone')).map(({ sale }) => sale),
    );
    const lines = at(books.rows('saleLines')).filter(({ sale }) => !off.has(sale));
    const head = this.entries.at(-1)!;
    const own = {
      ...{ id: deviceId(1), number: 1, name: 'Till', seq: head.seq, hash: head.hash },
      ...{ seenAt: LATER, headSaid: head.seq, isShutOut: false, hasWritten: true },
    };
    const undone = new Set(books.rows('moneyUndone').map(({ money }) => money));
    return {
      event: books.row('events', EVENT)!,
      totals: books.row('eventTotals', EVENT),
      eventItems: at(books.rows('eventItems')),
      hours: at(books.rows('eventHours')),
      taxes: at(books.rows('eventTaxes')),
      tips: at(books.rows('eventTips')),
      accounts: at(books.rows('eventAccounts')),
      drawers: at(books.rows('drawers')),
      drawerSums: books.rows('drawerSums'),
      drawerReads: at(books.rows('drawerReads')),
      cashMoves: at(books.rows('cashMoves')),
      cards: at(books.rows('cardPayments')),
      refunds: books.rows('cardRefunds'),
      lines: books.rows('cardLines'),
      joins: books.rows('cardJoins'),
      came: standing(at(books.rows('moneyCame')), undone),
      handedIn: at(books.rows('handedIn')),
      tipShares: at(books.rows('tipShares')),
      paidOut: standing(at(books.rows('paidOut')), undone),
      makerMails: at(books.rows('makerMails')),
      settled: at(books.rows('settledEvents')),
      settlements: books.rows('settlements'),
      ways: books.rows('ways'),
      items: books.rows('items'),
      makers: books.rows('makers'),
      staffPay: books.rows('staffPay'),
      sellers: books
        .rows('sales')
        .flatMap(({ id, by, total, tax }) =>
          off.has(id) || by === null ? [] : { seller: by, net: total - tax },
        ),
      hands: books.rows('looseEndHands'),
      makerLines: [
        ...lines.flatMap(makersGoods),
        ...linesBack(at(books.rows('returns')), books.rows('saleLines')).flatMap(makersGoods),
      ],
      unlisted: [],
      movements: books.rows('movements').filter(({ from, to }) => [from, to].includes(EVENT)),
      counted: books.rows('countsAccepted').filter(({ place }) => place === EVENT),
      waiting: books
        .rows('slips')
        .filter(({ event, state }) => event === EVENT && state !== 'gone')
        .map((slip) => ({ slip, items: [] })),
      uncollected: this.uncollected,
      owing: this.#owing(off),
      kept: this.kept,
      soldTwice: this.soldTwice,
      devices: [own, ...this.others],
      before: [],
      now: LATER,
    };
  }

  #owing(off: ReadonlySet<string>): SettlingRows['owing'] {
    const owing = new Map<string, number>();
    const add = (slip: string, amount: number) => owing.set(slip, (owing.get(slip) ?? 0) + amount);
    for (const { id, slip, total, uplift } of this.books.rows('sales'))
      if (!off.has(id)) add(slip, total + uplift);
    for (const part of this.books.rows('payments')) add(part.slip, -takingsOfPart(part));
    return [...owing].flatMap(([slip, amount]) => (amount === 0 ? [] : { slip, amount }));
  }

  settling(): Settling {
    return settlingOf(this.rows());
  }

  /** What its entries come to by the journal, by account; minor units. */
  balances(): ReadonlyMap<string, number> {
    const sums = foldSums(this.known.filter(({ event }) => event === EVENT).map(journalOf));
    return new Map(
      sums.flatMap(({ sum, key, fields }) =>
        sum === 'eventAccounts' ? [[String(key['account']), fields['amount'] ?? 0] as const] : [],
      ),
    );
  }
}

export { READER };
