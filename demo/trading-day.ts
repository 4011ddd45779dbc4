/** A believable day's sales at an event: busy before noon, a lull, a last rush. */
import { likelyCash } from '../src/lib/core/payment/cash-handed';
import type { Row } from '../src/lib/core/books/tables';
import { draft } from '../src/lib/core/daybook/kinds';
import { offeredTips } from '../src/lib/core/payment/tip';
import { ringUp } from '../src/lib/core/sale/ring-up';
import { takePart, type TakePart } from '../src/lib/core/sale/take-part';
import { emptySlip, putItem, type OpenSlip } from '../src/lib/core/slip/open-slip';
import { priceSlip } from '../src/lib/core/slip/price-slip';
import type { Draft } from '../src/lib/core/daybook/chain';
import type { DemoBusiness } from './business';
import type { Chance } from './chance';
import type { DemoItem } from './goods';

/** How busy each hour is, from the first to the last. */
const SHAPE = [4, 9, 14, 12, 8, 10, 6, 3];

export interface DaySale {
  /** Milliseconds since 1970. */
  readonly at: number;
  /** Which of the business's devices rang it up. */
  readonly device: number;
  readonly slip: OpenSlip;
  /** What was handed over in cash; null where a card was held to the reader. */
  readonly handed: number | null;
  /** Minor units on top, by card. */
  readonly tip: number;
}

export interface Day {
  /** Milliseconds since 1970 at which trading begins. */
  readonly opens: number;
  readonly hours: number;
  readonly sales: number;
}

/** Of all sales, how many are paid by card, and how many of those give a tip where one is asked for. */
const BY_CARD = 0.45;
const TIPS = 0.4;

/** The sales of a day, in order of time. Nothing is sold beyond what was taken along. */
export function salesOfDay(
  demo: DemoBusiness,
  { opens, hours, sales }: Day,
  chance: Chance,
  newId: () => string,
): DaySale[] {
  const left = new Map(demo.items.map(({ body, load }) => [body.id, load]));
  const shape = SHAPE.slice(0, hours);
  const times = Array.from({ length: sales }, () => {
    const hour = chance.weighted([...shape.keys()], (at) => shape[at]!);
    return opens + hour * 3_600_000 + chance.between(0, 3_599_999);
  }).sort((a, b) => a - b);
  return times.flatMap((at): DaySale[] => {
    const slip = someSlip(demo, left, chance, newId);
    if (slip.lines.length === 0) return [];
    const device = chance.between(0, demo.devices.length - 1);
    const quote = priceSlip(slip, demo.business, demo.taxes);
    if (quote.cash.total > 0 && chance.next() < BY_CARD) {
      const { tips } = demo.business;
      const offered = tips === null ? [] : offeredTips(quote.cash, tips);
      const isGiven = offered.length > 0 && chance.next() < TIPS;
      const tip = isGiven ? chance.weighted(offered, () => 1).amount : 0;
      return [{ at, device, slip, handed: null, tip }];
    }
    const due = quote.dueInCash;
    const notes = likelyCash(due, demo.business.currency);
    const isExact = notes.length === 0 || chance.next() < 0.35;
    const handed = isExact ? due : chance.weighted(notes, (note) => 1 / note);
    return [{ at, device, slip, handed, tip: 0 }];
  });
}

function someSlip(
  demo: DemoBusiness,
  left: Map<string, number>,
  chance: Chance,
  newId: () => string,
): OpenSlip {
  let slip = emptySlip(newId());
  const lines = chance.weighted([1, 2, 3, 4, 5], (n) => 6 - n);
  for (let n = 0; n < lines; n += 1) {
    const item = chance.weighted(demo.items, ({ pull }) => pull);
    const wanted = someQuantity(item, chance);
    const there = item.body.isStocked ? (left.get(item.body.id) ?? 0) : wanted;
    if (there < wanted) continue;
    const put = putItem(slip, item.body, wanted, `${slip.id}-${String(n)}`);
    if (!put.ok) continue;
    left.set(item.body.id, there - wanted);
    slip = put.slip;
  }
  return slip;
}

function someQuantity({ body }: DemoItem, chance: Chance): number {
  if (body.unit === 'kg') return chance.between(120, 650);
  if (body.unit === 'h') return chance.between(1, 5) * 250;
  if (body.unit !== '') return chance.between(5, 40) * 1000;
  return chance.weighted([1, 2, 3, 6], (n) => 1 / (n * n)) * 1000;
}

/** The entries of one sale. @throws {Error} If the demo's own sale cannot be rung up. */
export function draftsOf(
  sale: DaySale,
  demo: DemoBusiness,
  at: {
    readonly event: Pick<Row<'events'>, 'id' | 'timeZone'>;
    readonly drawer: string;
    readonly deviceNumber: number;
    readonly number: number;
  },
  newId: () => string,
): readonly Draft[] {
  const { slip, handed, tip } = sale;
  const command = { newId, slip, pricing: demo.business, taxes: demo.taxes, now: sale.at, ...at };
  if (handed === null) return byCard(demo, { ...command, tip });
  const rung = ringUp({ ...command, handed });
  if (!rung.ok) throw new Error(`the demo's own sale was refused: ${rung.refusal.code}`);
  return rung.drafts;
}

/** As the reader and the acquirer would have it: asked for, approved, taken. */
function byCard(
  demo: DemoBusiness,
  command: Omit<TakePart, 'way' | 'amount' | 'tip'> & { readonly tip: number },
): readonly Draft[] {
  const body = demo.ways.find(({ method }) => method === 'card');
  if (body === undefined) throw new Error('the demo takes no cards');
  const { newId, slip, event } = command;
  const payment = newId();
  const last = payment.replace(/\D/g, '').slice(-10).padStart(10, '4');
  const card = {
    scheme: Number(last.at(-1)) < 6 ? 'Visa' : 'Mastercard',
    last4: last.slice(0, 4),
    entry: 'tap',
    state: 'captured',
    approval: last.slice(4),
    acquirer: payment,
    sealed: '',
    expires: '',
    voice: '',
    isOverLimit: false,
    isSigned: false,
  } as const;
  const way = { ...body, setStamp: 'demo' };
  const taken = takePart({ ...command, way, amount: null, id: payment, card });
  if (!taken.ok) throw new Error(`the demo's own card was refused: ${taken.refusal.code}`);
  const { charge, surcharge, tip } = taken.part;
  const asked = { payment, slip: slip.id, way: way.id, amount: charge + surcharge + tip };
  return [draft('payment.asked', newId(), event.id, asked), ...taken.drafts];
}

/** The same sale, its card taken with no network, and declined once there was one. */
export function carriedAndDeclined(
  drafts: readonly Draft[],
  newId: () => string,
): readonly Draft[] {
  return drafts.flatMap((each) => {
    const card = each.body['card'] as object | null | undefined;
    if (each.kind !== 'payment.taken' || card === null || card === undefined) return [each];
    const carried = { state: 'deferred', approval: '', acquirer: '', sealed: 'c2VhbGVk' };
    const said = { state: 'declined', amount: 0, approval: '', acquirer: '' } as const;
    const reason = 'not enough on the account';
    return [
      { ...each, body: { ...each.body, card: { ...card, ...carried } } },
      draft('payment.result', newId(), each.event, { payment: each.id, ...said, reason }),
    ];
  });
}
