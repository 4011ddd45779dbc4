/** A believable day's sales at an event: busy before noon, a lull, a last rush. */
import { likelyCash } from '../src/lib/core/payment/cash-handed';
import type { Row } from '../src/lib/core/books/tables';
import { ringUp } from '../src/lib/core/sale/ring-up';
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
  readonly handed: number;
}

export interface Day {
  /** Milliseconds since 1970 at which trading begins. */
  readonly opens: number;
  readonly hours: number;
  readonly sales: number;
}

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
    const due = priceSlip(slip, demo.business, demo.taxes).dueInCash;
    const notes = likelyCash(due, demo.business.currency);
    const isExact = notes.length === 0 || chance.next() < 0.35;
    const handed = isExact ? due : chance.weighted(notes, (note) => 1 / note);
    return [{ at, device: chance.between(0, demo.devices.length - 1), slip, handed }];
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
  const { slip, handed } = sale;
  const command = { newId, slip, handed, pricing: demo.business, taxes: demo.taxes, now: sale.at };
  const rung = ringUp({ ...command, ...at });
  if (!rung.ok) throw new Error(`the demo's own sale was refused: ${rung.refusal.code}`);
  return rung.drafts;
}
