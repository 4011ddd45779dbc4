/** The small things of a market day that are put right before the drawer is counted. */
import type { BodyOf } from '../src/lib/core/daybook/kinds';
import { localTime } from '../src/lib/core/event/local-time';
import { correctSale } from '../src/lib/core/sale/correct-sale';
import { bringBackOn } from '../src/lib/core/sale/exchange';
import { makeRefund } from '../src/lib/core/sale/make-refund';
import { makeReturn } from '../src/lib/core/sale/make-return';
import { ringUpExchange } from '../src/lib/core/sale/ring-up-exchange';
import type { SaleDocument } from '../src/lib/core/sale/sale-document';
import { voidSale } from '../src/lib/core/sale/void-sale';
import { emptySlip, putItem } from '../src/lib/core/slip/open-slip';
import type { Draft } from '../src/lib/core/daybook/chain';
import { saleDocument } from '../src/lib/server/books/find-sales';
import { BookReader } from '../src/lib/server/books/read-books';
import type { DemoBusiness } from './business';
import { newId, type DemoDevice } from './demo-device';
import { recordIdOf } from './ids';

export interface PuttingRight {
  readonly desk: DemoDevice;
  readonly demo: DemoBusiness;
  readonly owner: string | null;
  readonly event: Pick<BodyOf<'event.set'>, 'id' | 'timeZone'>;
  readonly drawer: string;
  /** Sales that were paid in cash; the latest are put right. */
  readonly sales: readonly string[];
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly next: (of: 'sale' | 'back') => number;
}

/** What it did to the drawer, in minor units, and to the goods, in thousandths. */
export interface PutRight {
  readonly gave: number;
  readonly goods: readonly { readonly item: string; readonly quantity: number }[];
}

type Did = PutRight & { readonly drafts: readonly Draft[] };
const NOTHING: Did = { gave: 0, goods: [], drafts: [] };

/** A void, something off a wilted plant, the customer of a sale, an exchange, a refund of the spring. */
export async function putRight(day: PuttingRight): Promise<PutRight> {
  const { desk, owner, at, sales } = day;
  const books = new BookReader(desk.database);
  const acts = [voided, somethingOff, ofCustomer, exchanged];
  let [gave, goods]: [number, PutRight['goods']] = [0, []];
  const keep = (did: Did): void => {
    desk.write(did.drafts, at, owner);
    gave += did.gave;
    goods = [...goods, ...did.goods];
  };
  for (const [n, act] of acts.entries()) {
    const id = sales.at(-1 - n);
    const found =
      id === undefined ? null : await saleDocument(desk.database, books, desk.business, id);
    if (found !== null) keep(act(found, day));
  }
  keep(refunded(day));
  return { gave, goods };
}

function voided(found: SaleDocument, { event, drawer }: PuttingRight): Did {
  const { sale, lines, payments } = found;
  const outcome = voidSale({
    ...{ newId, sale, lines, payments, reason: 'Rung up twice', voids: [], returns: [] },
    ...{ event: event.id, openDrawers: [drawer] },
  });
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return {
    drafts: outcome.drafts,
    gave: payments.reduce(
      (all, part) => all + part.charge + part.surcharge + part.tip - part.change,
      0,
    ),
    goods: lines.flatMap(({ item, isStocked, quantity }) =>
      item !== null && isStocked ? [{ item, quantity }] : [],
    ),
  };
}

function somethingOff(found: SaleDocument, day: PuttingRight): Did {
  const { sale, lines, payments } = found;
  const { desk, demo, drawer, event, at } = day;
  const [line] = lines.filter(({ total }) => total >= 100);
  if (line === undefined) return NOTHING;
  const outcome = makeReturn({
    ...{ newId, sale, lines, payments, before: [], voids: [], undone: [], refunds: [], card: null },
    ...{ isOff: true, chosen: [{ line: line.line, typed: '10 %', to: 'stock' }] },
    ...{ reason: 'A bit wilted', way: 'cash', drawer },
    ...{ cashStep: demo.business.cashStep, currency: demo.business.currency },
    ...{ deviceNumber: desk.number, number: day.next('back') },
    ...{ event: event.id, place: event.id, ...localTime(at, event.timeZone) },
  });
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  const { money } = outcome.drafts[0]!.body as BodyOf<'return.made'>;
  return { drafts: outcome.drafts, gave: money[0]?.amount ?? 0, goods: [] };
}

function ofCustomer(found: SaleDocument, { demo }: PuttingRight): Did {
  const [customer] = demo.customers;
  if (customer === undefined) return NOTHING;
  const outcome = correctSale({
    ...{ ...found, newId, reason: 'It was on her list' },
    fix: { is: 'customer', customer: recordIdOf(demo.id, 'customer', customer.who.name) },
  });
  return { ...NOTHING, drafts: outcome.ok ? outcome.drafts : [] };
}

/** One for another of the same: nothing is to pay, and as much is there as before. */
function exchanged(found: SaleDocument, day: PuttingRight): Did {
  const { sale, lines, payments } = found;
  const { desk, demo, event, at } = day;
  const line = lines.find(
    ({ unit, quantity, isStocked, extras, price, total, item }) =>
      unit === '' &&
      quantity === 1000 &&
      isStocked &&
      extras.length === 0 &&
      total === price &&
      demo.items.some(({ body }) => body.id === item && body.price === price),
  );
  const item = demo.items.find(({ body }) => body.id === line?.item);
  if (line === undefined || item === undefined) return NOTHING;
  const put = putItem(emptySlip(newId()), { ...item.body, maker: item.body.maker }, 1000, newId());
  if (!put.ok) throw new Error(put.refusal.code);
  const brought = bringBackOn({
    ...{ sale, lines, payments, before: [], slip: put.slip, isVoid: false },
    chosen: [{ line: line.line, typed: '1', to: 'stock' }],
    ...{ reason: 'Rather one with more buds', currency: demo.business.currency },
  });
  if (!brought.ok) throw new Error(brought.refusal.code);
  const rung = ringUpExchange({
    ...{ newId, slip: brought.slip, pricing: demo.business, taxes: demo.taxes, event, now: at },
    ...{ deviceNumber: desk.number, number: day.next('sale'), returnNumber: day.next('back') },
    ...{ rest: null, sold: [] },
  });
  if (!rung.ok) throw new Error(rung.refusal.code);
  return { ...NOTHING, drafts: rung.drafts };
}

function refunded(day: PuttingRight): Did {
  const { desk, demo, drawer, event, at } = day;
  const made = makeRefund({
    ...{ newId, pricing: demo.business, taxes: demo.taxes, now: at, before: 0, most: null },
    lines: [{ item: undefined, quantity: '1', each: '3', to: 'stock' }],
    ...{ event: { id: event.id, swaps: [] }, timeZone: event.timeZone, saleNumber: '' },
    ...{
      reason: 'A pot of the spring that cracked, no receipt',
      way: 'cash',
      drawer,
      reference: '',
    },
    ...{ deviceNumber: desk.number, number: day.next('back') },
  });
  if (!made.ok) throw new Error(made.refusal.code);
  return { drafts: made.drafts, gave: made.amount, goods: [] };
}
