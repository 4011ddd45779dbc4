/** Setting up what belongs to an event apart from where and when it is: commands. */
import type { FEE_KINDS, COST_PER } from '../daybook/kinds/event-groups';
import type { Duty, Row, ThingToBring } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { isTime } from './event-days';
import { readAmount } from '../money/amount-text';
import { readQuantity, withPoint } from '../money/typed';
import { rateOf } from '../money/units';

export type GroupRefusal = { readonly field: string } & (
  | { readonly code: 'event/amount-wrong'; readonly typed: string }
  | { readonly code: 'event/percent-wrong'; readonly typed: string }
  | { readonly code: 'event/most-below-least' }
  | { readonly code: 'event/cost-unnamed' }
  | { readonly code: 'event/duty-hours' }
  | { readonly code: 'event/no-person' }
  | { readonly code: 'event/item-twice' }
);
export type GroupOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: GroupRefusal };
const refuse = (refusal: GroupRefusal): GroupOutcome => ({ ok: false, refusal });
type Event = Pick<Row<'events'>, 'id'>;

const percentIn = (typed: string): string | null => {
  const text = withPoint(typed.trim().replace(/%$/, '').trim()) || '0';
  try {
    rateOf(text);
    return text;
  } catch {
    return null;
  }
};

export interface TypedCosts {
  readonly kind: (typeof FEE_KINDS)[number];
  readonly fixed: string;
  readonly percent: string;
  readonly of: 'gross' | 'net';
  /** Empty where none was agreed. */
  readonly least: string;
  readonly most: string;
  readonly costs: readonly {
    readonly what: string;
    readonly each: string;
    readonly per: (typeof COST_PER)[number];
    readonly many: string;
  }[];
}

export function setCosts(
  newId: () => string,
  { id: event }: Event,
  typed: TypedCosts,
  currency: string,
): GroupOutcome {
  const amountIn = (text: string): number | null => {
    if (text.trim() === '') return 0;
    const read = readAmount(text, currency);
    return read.ok && read.amount >= 0 ? read.amount : null;
  };
  const fixed = amountIn(typed.fixed);
  if (fixed === null)
    return refuse({ code: 'event/amount-wrong', field: 'fixed', typed: typed.fixed });
  const percent = percentIn(typed.percent);
  if (percent === null)
    return refuse({ code: 'event/percent-wrong', field: 'percent', typed: typed.percent });
  const bounds: { least?: number; most?: number } = {};
  if (typed.kind !== 'none')
    for (const bound of ['least', 'most'] as const) {
      if (typed[bound].trim() === '') continue;
      const agreed = amountIn(typed[bound]);
      if (agreed === null)
        return refuse({ code: 'event/amount-wrong', field: bound, typed: typed[bound] });
      bounds[bound] = agreed;
    }
  const { least = 0, most = least } = bounds;
  if (most < least) return refuse({ code: 'event/most-below-least', field: 'most' });
  const costs: BodyOf<'event.costs'>['costs'][number][] = [];
  for (const [at, cost] of typed.costs.entries()) {
    const isEmpty = cost.what.trim() === '' && cost.each.trim() === '';
    if (isEmpty) continue;
    const what = cost.what.trim().slice(0, 80);
    if (what === '') return refuse({ code: 'event/cost-unnamed', field: `what ${String(at)}` });
    const each = amountIn(cost.each);
    const field = `each ${String(at)}`;
    if (each === null) return refuse({ code: 'event/amount-wrong', field, typed: cost.each });
    const many = cost.per === 'once' ? 1000 : readQuantity(cost.many);
    if (many === null || many < 0)
      return refuse({
        code: 'event/amount-wrong',
        field: `many ${String(at)}`,
        typed: cost.many,
      });
    costs.push({ what, each, per: cost.per, many });
  }
  const fee = { kind: typed.kind, fixed, percent, of: typed.of, ...bounds };
  return { ok: true, drafts: [draft('event.costs', newId(), event, { event, fee, costs })] };
}

export interface TypedPrices {
  readonly single: readonly { readonly item: string; readonly price: string }[];
  readonly over: readonly {
    readonly category: string;
    /** Below nothing takes off. */
    readonly percent: string;
    readonly step: string;
  }[];
}

export function setPrices(
  newId: () => string,
  { id: event }: Event,
  typed: TypedPrices,
  currency: string,
): GroupOutcome {
  const single: { item: string; price: number }[] = [];
  for (const [at, each] of typed.single.entries()) {
    const field = `price ${String(at)}`;
    if (each.item === '') continue;
    const read = readAmount(each.price, currency);
    if (!read.ok || read.amount < 0)
      return refuse({ code: 'event/amount-wrong', field, typed: each.price });
    if (single.some(({ item }) => item === each.item))
      return refuse({ code: 'event/item-twice', field });
    single.push({ item: each.item, price: read.amount });
  }
  const over: BodyOf<'event.prices'>['over'][number][] = [];
  for (const [at, each] of typed.over.entries()) {
    const text = each.percent.trim().replace('−', '-').replace(/^\+/, '');
    const isOff = text.startsWith('-');
    const percent = percentIn(isOff ? text.slice(1) : text);
    if (percent === null || (isOff && rateOf(percent) > 100 * 10_000))
      return refuse({
        code: 'event/percent-wrong',
        field: `percent ${String(at)}`,
        typed: each.percent,
      });
    const step =
      each.step.trim() === '' ? { ok: true as const, amount: 1 } : readAmount(each.step, currency);
    if (!step.ok || step.amount < 1)
      return refuse({ code: 'event/amount-wrong', field: `step ${String(at)}`, typed: each.step });
    if (rateOf(percent) === 0 && step.amount === 1) continue;
    over.push({ category: each.category, percent, isOff, step: step.amount });
  }
  return { ok: true, drafts: [draft('event.prices', newId(), event, { event, single, over })] };
}

export function setPeople(
  newId: () => string,
  { id: event }: Event,
  duty: readonly Duty[],
  devices: readonly string[],
): GroupOutcome {
  for (const [at, { person, from, until }] of duty.entries()) {
    if (person === '') return refuse({ code: 'event/no-person', field: `person ${String(at)}` });
    // Past midnight is meant where it ends before it begins; at the hour it begins it is no time at all.
    if (!isTime(from) || !isTime(until) || from === until)
      return refuse({ code: 'event/duty-hours', field: `from ${String(at)}` });
  }
  const body = { event, duty: [...duty], devices: [...devices] };
  return { ok: true, drafts: [draft('event.people', newId(), event, body)] };
}

/** Adds something to bring; what is there already is not added again. */
export function addThing(
  newId: () => string,
  { id: event }: Event,
  things: readonly ThingToBring[],
  name: string,
): readonly Draft[] {
  const said = name.trim().slice(0, 80);
  const isThere = things.some((each) => each.name.toLowerCase() === said.toLowerCase());
  if (said === '' || isThere) return [];
  const all = [...things, { id: newId(), name: said }];
  return [draft('event.bring', newId(), event, { event, things: all })];
}

export const removeThing = (
  newId: () => string,
  { id: event }: Event,
  things: readonly ThingToBring[],
  thing: string,
): readonly Draft[] => [
  draft('event.bring', newId(), event, {
    event,
    things: things.filter(({ id }) => id !== thing),
  }),
];

export const tickThing = (
  newId: () => string,
  { id: event }: Event,
  thing: string,
  isDone: boolean,
): readonly Draft[] => [draft('event.ticked', newId(), event, { event, thing, isDone })];
