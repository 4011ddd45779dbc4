/** Places of one's own: where goods are. Setting one up, their names, and which of them a code is of. */
import { BASE } from '../books/names';
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { readQuantity } from '../money/typed';

type Place = Row<'places'>;

export type PlaceRefusal = { readonly field: string } & (
  | { readonly code: 'place/no-name' }
  | { readonly code: 'place/name-taken'; readonly name: string }
  | { readonly code: 'place/within-itself' }
  | { readonly code: 'place/no-within' }
  | { readonly code: 'place/code-taken'; readonly code2: string }
  | { readonly code: 'place/limit-wrong'; readonly typed: string }
  | { readonly code: 'place/has-goods' }
);
export type PlaceOutcome =
  | { readonly ok: true; readonly id: string; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: PlaceRefusal };
const refuse = (refusal: PlaceRefusal): PlaceOutcome => ({ ok: false, refusal });

export interface TypedPlace {
  readonly name: string;
  readonly sort: Place['sort'];
  /** The place that an area is in; empty for all others. */
  readonly within: string;
  readonly code: string;
  /** Kilograms and crates, as typed; empty for no limit. */
  readonly mostWeight: string;
  readonly mostCrates: string;
  readonly isActive: boolean;
}

export interface SetPlace {
  readonly newId: () => string;
  /** Null for a new one. */
  readonly id: string | null;
  readonly typed: TypedPlace;
  readonly places: readonly Place[];
  /** Whether anything is there now: a place is put away empty. */
  readonly hasGoods: boolean;
}

export function setPlace(command: SetPlace): PlaceOutcome {
  const { newId, typed, hasGoods } = command;
  const places = allPlaces(command.places);
  const name = typed.name.trim().slice(0, 80);
  if (name === '') return refuse({ code: 'place/no-name', field: 'name' });
  const id = command.id ?? newId();
  const known = places.find((each) => each.id === id);
  const others = places.filter((each) => each.id !== id && each.isActive);
  const within = typed.sort === 'area' ? typed.within : null;
  if (within === '') return refuse({ code: 'place/no-within', field: 'within' });
  if (within !== null && isInside(within, id, places))
    return refuse({ code: 'place/within-itself', field: 'within' });
  const same = (each: Place): boolean =>
    each.within === within && each.name.toLowerCase() === name.toLowerCase();
  if (others.some(same)) return refuse({ code: 'place/name-taken', field: 'name', name });
  const code = typed.code.trim().slice(0, 40);
  if (code !== '' && others.some((each) => each.code === code))
    return refuse({ code: 'place/code-taken', field: 'code', code2: code });
  const [mostWeight, mostCrates] = [limitOf(typed.mostWeight), limitOf(typed.mostCrates)];
  if (mostWeight === undefined)
    return refuse({ code: 'place/limit-wrong', field: 'mostWeight', typed: typed.mostWeight });
  if (mostCrates === undefined)
    return refuse({ code: 'place/limit-wrong', field: 'mostCrates', typed: typed.mostCrates });
  if (!typed.isActive && (hasGoods || others.some((each) => each.within === id)))
    return refuse({ code: 'place/has-goods', field: 'isActive' });
  const body: BodyOf<'place.set'> = {
    id,
    name,
    sort: id === BASE ? 'base' : typed.sort,
    within,
    code,
    position: known?.position ?? places.length,
    // A kilogram is a thousand grams, and a crate a thousand thousandths.
    mostWeight,
    mostCrates,
    isActive: typed.isActive || id === BASE,
  };
  return { ok: true, id, drafts: [draft('place.set', newId(), null, body)] };
}

/** @returns Thousandths; null for none, undefined where it is no such figure. */
function limitOf(typed: string): number | null | undefined {
  if (typed.trim() === '') return null;
  const limit = readQuantity(typed);
  return limit === null || limit < 0 || limit > 99_999_999 ? undefined : limit;
}

/** Whether a place is another one, or inside it, however deep. */
function isInside(place: string, other: string, places: readonly Place[]): boolean {
  const within = new Map(places.map((each) => [each.id, each.within]));
  const seen = new Set<string>();
  for (let at: string | null = place; at !== null && !seen.has(at); at = within.get(at) ?? null) {
    if (at === other) return true;
    seen.add(at);
  }
  return false;
}

const THE_BASE: Place = {
  id: BASE,
  name: '',
  sort: 'base',
  within: null,
  code: '',
  position: 0,
  mostWeight: null,
  mostCrates: null,
  isActive: true,
  setStamp: '',
};

/** All there are, the base among them also before it has been named; each followed by the areas in it. */
export function allPlaces(places: readonly Place[]): readonly Place[] {
  const base = places.find(({ id }) => id === BASE) ?? THE_BASE;
  const others = places.filter(({ id, setStamp }) => id !== BASE && setStamp !== '');
  const all = [base, ...others.toSorted(inOrder)];
  const inTree = (within: string | null, seen: ReadonlySet<string>): Place[] =>
    all
      .filter((each) => each.within === within && !seen.has(each.id))
      .flatMap((each) => [each, ...inTree(each.id, new Set([...seen, each.id]))]);
  const tree = inTree(null, new Set());
  // Two devices out of touch can put two areas into each other: they stay to be seen.
  return [...tree, ...all.filter((each) => !tree.includes(each))];
}

const inOrder = (a: Place, b: Place): number =>
  a.position - b.position || (a.name < b.name ? -1 : 1);

/** The place that a label's code is of. */
export const placeByCode = (code: string, places: readonly Place[]): Place | undefined =>
  places.find((each) => each.isActive && each.code !== '' && each.code === code.trim());
