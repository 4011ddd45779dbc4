/** How what was rung up is put right again, drawn for the property tests: it comes back, is exchanged, corrected or voided. */
import type { Books } from '../books/books';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import type { Fix } from '../daybook/kinds/sale-corrected';
import { takeBack } from '../journal/take-back';
import { CASH_WAY } from '../payment/ways';
import { correctSale } from '../sale/correct-sale';
import { applied, type Correctable } from '../sale/corrections';
import { bringBackOn } from '../sale/exchange';
import { makeRefund } from '../sale/make-refund';
import { makeReturn } from '../sale/make-return';
import { takePart } from '../sale/take-part';
import { voidSale } from '../sale/void-sale';
import { keepSlip } from '../set-aside/kept-slips';
import { emptySlip, putItem } from '../slip/open-slip';
import { CARD_WAY, DRAWER, EVENT, item, personId, pricing, tax } from './made-up-business';

/** The device that writes it. */
export interface Writer {
  readonly number: number;
  readonly newId: () => string;
  /** The rows that these drafts make. */
  readonly booksOf: (drafts: readonly Draft[], by: string | null) => Books;
  /** The next number of its sales, and of its returns and refunds. */
  readonly nextSale: () => number;
  readonly nextReturn: () => number;
}

/** What takes the goods of the sale among these drafts back, or a tenth off their price, for cash. */
export function cameBack(
  writer: Writer,
  drafts: readonly Draft[],
  by: string | null,
  how: 'stock' | 'broken' | 'off',
): readonly Draft[] {
  const books = writer.booksOf(drafts, by);
  const [sale] = books.rows('sales');
  if (sale === undefined) throw new Error('no sale to take back');
  const outcome = makeReturn({
    newId: writer.newId,
    sale,
    lines: books.rows('saleLines'),
    payments: books.rows('payments'),
    ...{ before: [], voids: [], undone: [], card: null, refunds: [] },
    isOff: how === 'off',
    chosen: [{ line: 0, typed: how === 'off' ? '10%' : '1', to: how === 'off' ? 'stock' : how }],
    ...{ reason: 'it wilted', way: 'cash', drawer: DRAWER, cashStep: 1 },
    currency: 'GBP',
    deviceNumber: writer.number,
    number: writer.nextReturn(),
    ...{ event: EVENT, place: EVENT, day: sale.day, hour: sale.hour },
  });
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome.drafts;
}

/** Something is brought back of which nobody has the sale, and an amount given back beside it; for some onto a card. */
export function refunded(writer: Writer, goods: number, now: number): readonly Draft[] {
  const isOnto = goods === 3;
  const card = { scheme: 'Visa', last4: '4471', entry: 'tap', sealed: 'opaque' } as const;
  const made = makeRefund({
    ...{ newId: writer.newId, pricing, taxes: [tax], event: { id: EVENT, swaps: [] }, now },
    lines: [
      {
        item: item(goods, 105),
        quantity: '2',
        each: '1.05',
        to: goods % 2 === 0 ? 'stock' : 'broken',
      },
      { item: undefined, quantity: '', each: '0.99', to: 'stock' },
    ],
    ...{ saleNumber: '', reason: 'from the spring', reference: '' },
    ...(isOnto ? { way: CARD_WAY.id, drawer: null } : { way: 'cash', drawer: DRAWER }),
    card: isOnto ? { ...card, refund: writer.newId() } : null,
    ...{ timeZone: 'Europe/London', deviceNumber: writer.number, number: writer.nextReturn() },
    ...{ before: 0, most: null },
  });
  if (!made.ok) throw new Error(made.refusal.code);
  return made.drafts;
}

/** Of the sale among these drafts the item, the change and who sold it were booked wrongly. */
export function corrected(
  writer: Writer,
  drafts: readonly Draft[],
  by: string | null,
): readonly Draft[] {
  const books = writer.booksOf(drafts, by);
  const [sale] = books.rows('sales');
  const cash = books.rows('payments').find(({ drawer }) => drawer !== null);
  if (sale === undefined || cash === undefined) throw new Error('no sale to put right');
  const [line] = books.rows('saleLines');
  const { id, name, detail, unit, cost, isStocked, maker } = item(3, 105);
  let now: Correctable = {
    sale,
    lines: books.rows('saleLines'),
    payments: books.rows('payments'),
  };
  const fixes: readonly Fix[] = [
    { is: 'change', part: cash.id, change: cash.change + 5 },
    { is: 'seller', seller: personId(2) },
    ...(line?.item === id
      ? []
      : [{ is: 'item' as const, line: 0, item: id, name, detail, unit, cost, isStocked, maker }]),
  ];
  return fixes.flatMap((fix) => {
    const made = correctSale({
      ...{ ...now, newId: writer.newId, fix, reason: 'the wrong one' },
      ...{ voids: [], undone: [], returns: [] },
    });
    if (!made.ok) throw new Error(made.refusal.code);
    now = applied(now, fix);
    return made.drafts;
  });
}

/** The goods of the sale among these drafts pay for others, as far as they go. */
export function exchanged(
  writer: Writer,
  drafts: readonly Draft[],
  by: string | null,
  now: number,
): readonly Draft[] {
  const books = writer.booksOf(drafts, by);
  const [sale] = books.rows('sales');
  if (sale === undefined) throw new Error('no sale to exchange');
  const put = putItem(emptySlip(writer.newId()), item(2, 250), 1000, writer.newId());
  if (!put.ok) throw new Error(put.refusal.code);
  const slip = bringBackOn({
    ...{ sale, lines: books.rows('saleLines'), payments: books.rows('payments'), before: [] },
    ...{ slip: put.slip, isVoid: false, reason: 'too small', currency: 'GBP' },
    chosen: [{ line: 0, typed: '1', to: 'stock' }],
  });
  if (!slip.ok) throw new Error(slip.refusal.code);
  const kept = keepSlip({
    ...{ newId: writer.newId, event: EVENT, slip: slip.slip, sort: 'aside', name: 'Ada' },
    known: [],
  });
  if (!kept.ok) throw new Error(kept.refusal.code);
  const rung = takePart({
    ...{ newId: writer.newId, pricing, taxes: [tax], drawer: DRAWER, way: CASH_WAY, amount: null },
    ...{ event: { id: EVENT, timeZone: 'Europe/London' }, now, slip: slip.slip },
    ...{ deviceNumber: writer.number, number: writer.nextSale() },
    returnNumber: writer.nextReturn(),
  });
  if (!rung.ok) throw new Error(rung.refusal.code);
  return [...kept.drafts, ...rung.drafts];
}

/** What voids the sale among these drafts, worked out from the rows they make. */
export function voided(
  writer: Writer,
  drafts: readonly Draft[],
  by: string | null,
  isTwice: boolean,
): readonly Draft[] {
  const books = writer.booksOf(drafts, by);
  const [sale] = books.rows('sales');
  if (sale === undefined) throw new Error('no sale to void');
  const outcome = voidSale({
    newId: writer.newId,
    sale,
    lines: books.rows('saleLines'),
    payments: books.rows('payments'),
    reason: 'wrong customer',
    ...{ voids: [], returns: [] },
    event: EVENT,
    openDrawers: [DRAWER],
  });
  const [first] = outcome.ok ? outcome.drafts : [];
  if (first === undefined) throw new Error('it was not voided');
  if (!isTwice) return [first];
  // As two devices out of touch do it, and somebody puts it right.
  const second = { ...first, id: writer.newId() };
  const said = first.body as BodyOf<'sale.voided'>;
  const takes = said.takes.map(({ of, postings }) => takeBack(of, postings));
  const body = { ...said, takes, void: second.id };
  return [first, second, draft('void.undone', writer.newId(), EVENT, body)];
}
