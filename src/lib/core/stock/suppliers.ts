/** Who goods are bought from, and how each item is bought, kept and carried: commands. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { readCost } from '../money/cost-text';
import { readQuantity } from '../money/typed';

type Supplier = Row<'suppliers'>;

export type SupplyRefusal = { readonly field: string } & (
  | { readonly code: 'supplier/no-name' }
  | { readonly code: 'supplier/name-taken'; readonly name: string }
  | { readonly code: 'supplier/mail-wrong'; readonly typed: string }
  | { readonly code: 'supplier/days-wrong'; readonly typed: string }
  | { readonly code: 'supply/no-supplier' }
  | { readonly code: 'supply/supplier-twice' }
  | { readonly code: 'supply/pack-wrong'; readonly typed: string }
  | { readonly code: 'supply/price-wrong'; readonly typed: string }
  | { readonly code: 'supply/figure-wrong'; readonly typed: string }
  | { readonly code: 'supply/level-above-par'; readonly level: number; readonly par: number }
);
export type SupplyOutcome =
  | { readonly ok: true; readonly id: string; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: SupplyRefusal };
const refuse = (refusal: SupplyRefusal): SupplyOutcome => ({ ok: false, refusal });

export interface TypedSupplier {
  readonly name: string;
  readonly email: string;
  readonly phone: string;
  readonly days: string;
  readonly note: string;
  readonly isActive: boolean;
}

export function setSupplier(
  newId: () => string,
  id: string | null,
  typed: TypedSupplier,
  suppliers: readonly Supplier[],
): SupplyOutcome {
  const name = typed.name.trim().slice(0, 80);
  if (name === '') return refuse({ code: 'supplier/no-name', field: 'name' });
  const isTaken = suppliers.some(
    (each) => each.id !== id && each.isActive && each.name.toLowerCase() === name.toLowerCase(),
  );
  if (isTaken) return refuse({ code: 'supplier/name-taken', field: 'name', name });
  const email = typed.email.trim();
  if (email !== '' && !/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(email))
    return refuse({ code: 'supplier/mail-wrong', field: 'email', typed: email });
  const days = typed.days.trim() === '' ? '0' : typed.days.trim();
  if (!/^\d{1,3}$/.test(days) || Number(days) > 365)
    return refuse({ code: 'supplier/days-wrong', field: 'days', typed: typed.days });
  const own = id ?? newId();
  const body: BodyOf<'supplier.set'> = {
    id: own,
    name,
    email: email.slice(0, 120),
    phone: typed.phone.trim().slice(0, 40),
    days: Number(days),
    note: typed.note.slice(0, 500),
    isActive: typed.isActive,
  };
  return { ok: true, id: own, drafts: [draft('supplier.set', newId(), null, body)] };
}

export interface TypedSupply {
  /** The first is preferred. */
  readonly suppliers: readonly {
    readonly supplier: string;
    readonly code: string;
    readonly pack: string;
    readonly price: string;
  }[];
  /** Par levels and reorder levels, by place. */
  readonly pars: Readonly<Record<string, string>>;
  readonly levels: Readonly<Record<string, string>>;
  /** Grams of one, and how many go into a crate. */
  readonly weight: string;
  readonly perCrate: string;
}

/** Reorder levels stand with the item: where they change it is written as well. */
export function setSupply(
  newId: () => string,
  item: Row<'items'>,
  typed: TypedSupply,
  currency: string,
): SupplyOutcome {
  const suppliers: BodyOf<'item.supply'>['suppliers'][number][] = [];
  for (const [at, each] of typed.suppliers.entries()) {
    const { supplier, code } = each;
    const field = `supplier ${String(at)}`;
    if (supplier === '') return refuse({ code: 'supply/no-supplier', field });
    if (suppliers.some((other) => other.supplier === supplier))
      return refuse({ code: 'supply/supplier-twice', field });
    const pack = each.pack.trim() === '' ? 1000 : readQuantity(each.pack);
    if (pack === null || pack <= 0)
      return refuse({ code: 'supply/pack-wrong', field: `pack ${String(at)}`, typed: each.pack });
    const price = each.price.trim() === '' ? null : readCost(each.price, currency);
    if (price === null && each.price.trim() !== '')
      return refuse({
        code: 'supply/price-wrong',
        field: `price ${String(at)}`,
        typed: each.price,
      });
    suppliers.push({ supplier, code: code.trim().slice(0, 40), pack, price });
  }
  const levels: { place: string; level: number }[] = [];
  for (const [place, text] of Object.entries(typed.levels)) {
    if (text.trim() === '') continue;
    const level = readQuantity(text);
    const field = `level ${place}`;
    if (level === null || level < 0)
      return refuse({ code: 'supply/figure-wrong', field, typed: text });
    levels.push({ place, level });
  }
  // Places that the form does not show keep theirs.
  const reorder = [...levels, ...item.reorder.filter(({ place }) => !(place in typed.levels))];
  const pars: { place: string; par: number }[] = [];
  for (const [place, text] of Object.entries(typed.pars)) {
    if (text.trim() === '') continue;
    const par = readQuantity(text);
    const field = `par ${place}`;
    if (par === null || par < 0) return refuse({ code: 'supply/figure-wrong', field, typed: text });
    const level = reorder.find((each) => each.place === place)?.level ?? 0;
    if (level > par) return refuse({ code: 'supply/level-above-par', field, level, par });
    pars.push({ place, par });
  }
  const weight = wholeOf(typed.weight);
  if (weight === undefined)
    return refuse({ code: 'supply/figure-wrong', field: 'weight', typed: typed.weight });
  const perCrate = typed.perCrate.trim() === '' ? null : readQuantity(typed.perCrate);
  if (perCrate !== null ? perCrate <= 0 : typed.perCrate.trim() !== '')
    return refuse({ code: 'supply/figure-wrong', field: 'perCrate', typed: typed.perCrate });
  const body = { item: item.id, suppliers, pars, weight, perCrate };
  const { setStamp: _stamp, ...was } = item;
  const isSame = JSON.stringify(sorted(was.reorder)) === JSON.stringify(sorted(reorder));
  return {
    ok: true,
    id: item.id,
    drafts: [
      draft('item.supply', newId(), null, body),
      ...(isSame ? [] : [draft('item.set', newId(), null, { ...was, reorder })]),
    ],
  };
}

const sorted = (levels: Row<'items'>['reorder']) =>
  levels.toSorted((a, b) => (a.place < b.place ? -1 : 1));

/** @returns Null for nothing typed, undefined where it is no whole figure from nothing up. */
const wholeOf = (typed: string): number | null | undefined => {
  if (typed.trim() === '') return null;
  return /^\d{1,7}$/.test(typed.trim()) ? Number(typed.trim()) : undefined;
};
