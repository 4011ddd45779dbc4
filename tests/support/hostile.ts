/**
 * Entries as somebody with a tampered till writes them: honest ones with figures, ids and flags changed,
 * all of the shape that their kind's schema asks for, and sums made to fit again where the schema looks.
 */
import fc from 'fast-check';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { isKind, kinds } from '../../src/lib/core/daybook/kinds';
import {
  CARD_WAY,
  customerId,
  deviceId,
  DRAWER,
  EVENT,
  idOf,
  itemId,
  personId,
  TAX,
} from '../../src/lib/core/testing/made-up-business';

/** Where in a body something is changed, and to what; chosen anew for each leaf that there is. */
export interface Mutation {
  readonly at: number;
  readonly to: unknown;
}

const ids = [
  ...[1, 2, 3, 4].map(itemId),
  ...[1, 2, 3].map(personId),
  ...[1, 2].map(deviceId),
  ...[1, 2].map(customerId),
  EVENT,
  DRAWER,
  TAX,
  CARD_WAY.id,
  idOf(40, 1),
  idOf(40, 2),
  idOf(99, 1),
];
const numbers = [0, 1, -1, 2, 10, 105, -105, 210, 999, 1000, -1000, 5000, 99_999, 100_000_000];
const texts = ['cash', 'card', 'base', 'gone:sold', 'own', '', '0', '100', '20', '1998-01-01'];

export const mutation: fc.Arbitrary<Mutation> = fc.record({
  at: fc.nat({ max: 400 }),
  to: fc.oneof(
    { weight: 4, arbitrary: fc.constantFrom<unknown>(...numbers) },
    { weight: 2, arbitrary: fc.constantFrom<unknown>(...ids) },
    fc.constantFrom<unknown>(...texts, true, false, null),
    fc.constantFrom<unknown>('drop', 'twice'),
  ),
});

type Path = readonly (string | number)[];

/** Every place in a value that holds no list or record, and every element of a list. */
function leaves(value: unknown, path: Path = []): Path[] {
  if (Array.isArray(value))
    return value.flatMap((each, at) => [
      [...path, at],
      ...leaves(each, [...path, at]).filter((found) => found.length > path.length + 1),
    ]);
  if (typeof value !== 'object' || value === null) return [path];
  return Object.entries(value).flatMap(([key, each]) => leaves(each, [...path, key]));
}

function put(value: unknown, [first, ...rest]: Path, to: unknown): unknown {
  if (first === undefined) return to;
  if (Array.isArray(value)) {
    const list = value as readonly unknown[];
    if (rest.length === 0 && to === 'drop') return list.filter((_, at) => at !== first);
    if (rest.length === 0 && to === 'twice') return [...list, list[Number(first)]];
    return list.map((each, at) => (at === first ? put(each, rest, to) : each));
  }
  const record = value as Readonly<Record<string, unknown>>;
  if (rest.length === 0 && to === 'drop') {
    const { [String(first)]: _gone, ...others } = record;
    return others;
  }
  return { ...record, [first]: put(record[first], rest, to) };
}

interface Line {
  readonly gross: number;
  readonly discount: number;
  readonly net: number;
  readonly total: number;
}

/** Sums that the schema looks at, worked out from what stands there. */
function refit(kind: string, body: Record<string, unknown>): Record<string, unknown> {
  if (kind === 'sale.rung' && Array.isArray(body['lines'])) {
    const lines = (body['lines'] as (Line | null)[])
      .flatMap((line) => line ?? [])
      .map((line) => ({
        ...line,
        net: line.gross - line.discount,
        total: line.gross - line.discount,
      }));
    const service = body['service'] as { total: number } | undefined;
    const total = lines.reduce((all, line) => all + line.total, 0) + (service?.total ?? 0);
    return { ...body, lines, total };
  }
  if (kind === 'payment.taken' && body['side'] === 'cash') {
    const [charge, clears, rounding] = ['charge', 'clears', 'rounding'].map((each) =>
      Number(body[each]),
    );
    return { ...body, change: charge! - clears! - rounding! };
  }
  return body;
}

/** A draft with mutations; null where nothing of the shape comes of it. */
export function forged(
  each: Draft,
  mutations: readonly Mutation[],
  isRefitted: boolean,
): Draft | null {
  let body: unknown = each.body;
  for (const { at, to } of mutations) {
    const places = leaves(body);
    const place = places[at % places.length];
    if (place === undefined || place.length === 0) continue;
    body = put(body, place, to);
  }
  const fitted = isRefitted ? refit(each.kind, body as Record<string, unknown>) : body;
  if (!isKind(each.kind) || !kinds[each.kind].body.safeParse(fitted).success) return null;
  return { ...each, body: fitted as Draft['body'] };
}

/** A sale whose goods are called others, dearer or cheaper ones: each figure goes on fitting the others. */
export function calledOther(each: Draft, item: string): Draft {
  if (each.kind !== 'sale.rung') return each;
  const body = each.body as unknown as { readonly lines: readonly object[] };
  const lines = body.lines.map((line) => ({ ...line, item }));
  return { ...each, body: { ...body, lines } };
}
