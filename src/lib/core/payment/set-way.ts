/** Setting a way to pay up, their order, and which are open at an event: commands. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { isHeldMethod } from '../held/held-account';
import { readAmount } from '../money/amount-text';
import { readPercent } from '../money/percent';
import { isPromotion } from '../points/promotion-methods';
import type { Method } from './methods';
import { allWays, CASH_WAY, type WayToPay } from './ways';

/** A way as its form holds it. */
export interface TypedWay {
  readonly name: string;
  readonly method: Method;
  readonly side: 'cash' | 'card';
  readonly needsCustomer: boolean;
  readonly reference: string;
  readonly account: string;
  /** Percent. */
  readonly surchargeRate: string;
  /** An amount; empty is none. */
  readonly surchargeFixed: string;
  readonly opensDrawer: boolean;
  readonly givesChange: boolean;
  readonly ledger: string;
  readonly isActive: boolean;
  /** Of a voucher or credit with no network; empty is any amount. */
  readonly offlineMost: string;
  /** Days that a voucher usually lasts; empty is any day. */
  readonly lasts: string;
  /** The tax of the goods that vouchers are for; empty for any goods. */
  readonly purpose: string;
}

export type WayRefusal = { readonly field: string } & (
  | { readonly code: 'way/no-name' }
  | { readonly code: 'way/taken'; readonly name: string }
  | { readonly code: 'way/rate-wrong'; readonly typed: string }
  | { readonly code: 'way/amount-wrong'; readonly typed: string }
  | { readonly code: 'way/days-wrong'; readonly typed: string }
  | { readonly code: 'way/cash-stays' }
);

export type WayOutcome =
  | { readonly ok: true; readonly id: string; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: WayRefusal };

export interface SetWay {
  readonly newId: () => string;
  /** Null for a new one. */
  readonly id: string | null;
  readonly typed: TypedWay;
  readonly currency: string;
  readonly ways: readonly WayToPay[];
}

/**
 * Sets a way to pay up. Change comes out of the drawer, so only what is charged the cash price gives
 * any; cash itself is always there, and always notes and coins.
 */
export function setWay({ newId, id: known, typed, currency, ways }: SetWay): WayOutcome {
  const name = typed.name.trim().slice(0, 80);
  if (name === '') return refuse({ code: 'way/no-name', field: 'name' });
  const all = allWays(ways);
  const isTaken = all.some(
    (each) => each.id !== known && each.isActive && each.name.toLowerCase() === name.toLowerCase(),
  );
  if (isTaken && typed.isActive) return refuse({ code: 'way/taken', field: 'name', name });
  const isCash = known === CASH_WAY.id;
  if (isCash && !typed.isActive) return refuse({ code: 'way/cash-stays', field: 'isActive' });
  const surchargeRate = readPercent(typed.surchargeRate);
  if (surchargeRate === null) {
    const { surchargeRate: wrong } = typed;
    return refuse({ code: 'way/rate-wrong', field: 'surchargeRate', typed: wrong });
  }
  const surchargeFixed = fixedIn(typed.surchargeFixed, currency);
  if (surchargeFixed === null) {
    const { surchargeFixed: wrong } = typed;
    return refuse({ code: 'way/amount-wrong', field: 'surchargeFixed', typed: wrong });
  }
  const offlineMost =
    typed.offlineMost.trim() === '' ? null : (fixedIn(typed.offlineMost, currency) ?? undefined);
  if (offlineMost === undefined)
    return refuse({ code: 'way/amount-wrong', field: 'offlineMost', typed: typed.offlineMost });
  const lasts = typed.lasts.trim() === '' ? 0 : Number(typed.lasts);
  if (!Number.isInteger(lasts) || lasts < 0 || lasts > MOST_DAYS)
    return refuse({ code: 'way/days-wrong', field: 'lasts', typed: typed.lasts });
  const isHeld = isHeldMethod(typed.method) && !isCash;
  const sort = all.find(({ id }) => id === known)?.sort ?? Math.max(...all.map(sortOf)) + 1;
  const id = known ?? newId();
  // What is paid from an account is charged as it is, and nothing comes out of a drawer.
  const side = isCash || isHeld ? 'cash' : typed.side;
  const body = {
    ...typed,
    id,
    name,
    sort,
    method: isCash ? ('cash' as const) : typed.method,
    side,
    reference: typed.reference.trim().slice(0, 40),
    account: typed.account.trim().slice(0, 80),
    ledger: typed.ledger.trim().slice(0, 40),
    ...(isHeld ? { surchargeRate: '0', surchargeFixed: 0 } : { surchargeRate, surchargeFixed }),
    givesChange: isCash || (!isHeld && side === 'cash' && typed.givesChange),
    opensDrawer: !isHeld && typed.opensDrawer,
    needsCustomer:
      typed.needsCustomer ||
      typed.method === 'account' ||
      typed.method === 'credit' ||
      isPromotion(typed.method),
    offlineMost: isHeld ? offlineMost : null,
    lasts: typed.method === 'voucher' && !isCash ? lasts : 0,
    purpose: typed.method === 'voucher' && !isCash ? typed.purpose : '',
  };
  return { ok: true, id, drafts: [draft('way.set', newId(), null, body)] };
}

/** A hundred years. */
const MOST_DAYS = 36_500;

/** The ways in another order; only those whose place changes are written. */
export const orderWays = (newId: () => string, ways: readonly WayToPay[]): readonly Draft[] =>
  ways.flatMap(({ setStamp: _stamp, ...way }, sort) => {
    if (way.sort === sort) return [];
    return [draft('way.set', newId(), null, { ...way, sort })];
  });

/** Which ways are open at an event, in which order; null opens all in the vendor's own. */
export function setEventWays(
  newId: () => string,
  { id: event }: Pick<Row<'events'>, 'id'>,
  ways: readonly string[] | null,
): { readonly ok: true; readonly drafts: readonly Draft[] } {
  return { ok: true, drafts: [draft('event.ways', newId(), event, { event, ways })] };
}

/** What stands in the form of a way, or of a new one. */
export const typedWay = (
  way: WayToPay | undefined,
  amountText: (minor: number) => string,
): TypedWay => {
  const { id: _id, setStamp: _stamp, sort: _sort, ...fields } = way ?? NEW_WAY;
  return {
    ...fields,
    surchargeFixed: fields.surchargeFixed === 0 ? '' : amountText(fields.surchargeFixed),
    offlineMost: fields.offlineMost === null ? '' : amountText(fields.offlineMost),
    lasts: fields.lasts === 0 ? '' : String(fields.lasts),
  };
};

const NEW_WAY: WayToPay = {
  ...CASH_WAY,
  id: '',
  name: '',
  method: 'own',
  opensDrawer: false,
  givesChange: false,
};

function fixedIn(typed: string, currency: string): number | null {
  if (/^\s*(?:0+[.,]?0*)?\s*$/.test(typed)) return 0;
  const read = readAmount(typed, currency);
  return read.ok ? read.amount : null;
}

const sortOf = ({ sort }: WayToPay): number => sort;

const refuse = (refusal: WayRefusal): WayOutcome => ({ ok: false, refusal });
