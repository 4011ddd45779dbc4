/** How the business prices, rounds and heads its receipts, and its taxes: commands. */
import { z } from 'zod';
import type { Carry, Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { isKnownCurrency } from '../money/currency';
import { readAmount } from '../money/amount-text';
import { ANY_RATE, readPercent } from '../money/percent';
import { rateOf } from '../money/units';

export type BusinessRefusal = { readonly field: string } & (
  | { readonly code: 'business/empty' }
  | { readonly code: 'business/rate-wrong'; readonly typed: string }
  | { readonly code: 'business/step-wrong'; readonly typed: string }
  | { readonly code: 'business/tips-wrong'; readonly typed: string }
  | { readonly code: 'business/amount-wrong'; readonly typed: string }
  | { readonly code: 'business/hours-wrong'; readonly typed: string }
  | { readonly code: 'business/days-wrong'; readonly typed: string }
  | { readonly code: 'business/currency-wrong'; readonly typed: string }
  | { readonly code: 'tax/taken'; readonly name: string }
  /** Others are charged on it. */
  | { readonly code: 'tax/needed'; readonly by: readonly string[] }
  | { readonly code: 'maker/number-wrong'; readonly typed: string }
  | { readonly code: 'maker/number-taken'; readonly name: string }
  | { readonly code: 'maker/email-wrong'; readonly typed: string }
);

export type BusinessOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: BusinessRefusal };

const refuse = (refusal: BusinessRefusal): BusinessOutcome => ({ ok: false, refusal });

export interface TypedBusiness {
  readonly name: string;
  readonly currency: string;
  readonly locale: string;
  readonly timeZone: string;
  readonly pricesIncludeTax: boolean;
  readonly taxRounding: 'line' | 'sale';
  /** Minor units, as typed. */
  readonly cashStep: string;
  readonly typedSide: 'cash' | 'card';
  readonly uplift: string;
  readonly groups: readonly {
    readonly id: string;
    readonly name: string;
    readonly percent: string;
  }[];
  /** Percent that every slip is charged for service; empty is none. */
  readonly service: string;
  readonly serviceTaxes: readonly string[];
  /** Percentages that are offered as tips, apart by blanks; empty asks for none. */
  readonly tips: string;
  readonly tipsOf: 'total' | 'net';
  readonly isTipOnReader: boolean;
  /** Amount above which a card at the reader is signed for; empty asks for none. */
  readonly signAbove: string;
  /** Amounts that cards may be taken for with no network; the first one empty takes none. */
  readonly carryEach: string;
  readonly carryAll: string;
  readonly carryHours: string;
  /** Days without network after which a device forgets all; empty is never. */
  readonly forgetAfter: string;
  readonly receiptHead: string;
  readonly receiptFoot: string;
}

export function setBusiness(newId: () => string, typed: TypedBusiness): BusinessOutcome {
  const name = typed.name.trim().slice(0, 80);
  if (name === '') return refuse({ code: 'business/empty', field: 'name' });
  if (!isKnownCurrency(typed.currency))
    return refuse({ code: 'business/currency-wrong', field: 'currency', typed: typed.currency });
  const cashStep = Number(typed.cashStep.trim() === '' ? '1' : typed.cashStep);
  if (!Number.isInteger(cashStep) || cashStep < 1 || cashStep > 1000)
    return refuse({ code: 'business/step-wrong', field: 'cashStep', typed: typed.cashStep });
  const uplift = readPercent(typed.uplift, ANY_RATE);
  if (uplift === null)
    return refuse({ code: 'business/rate-wrong', field: 'uplift', typed: typed.uplift });
  const percent = readPercent(typed.service, ANY_RATE);
  if (percent === null)
    return refuse({ code: 'business/rate-wrong', field: 'service', typed: typed.service });
  const groups: { id: string; name: string; percent: string }[] = [];
  for (const group of typed.groups) {
    const off = readPercent(group.percent);
    if (group.name.trim() === '') return refuse({ code: 'business/empty', field: 'groups' });
    if (off === null)
      return refuse({ code: 'business/rate-wrong', field: 'groups', typed: group.percent });
    groups.push({ id: group.id, name: group.name.trim().slice(0, 80), percent: off });
  }
  const percents = typed.tips.split(/[\s;]+/).filter((part) => part !== '' && part !== '%');
  const tips = percents.map((part) => readPercent(part));
  if (tips.includes(null) || tips.length > 6)
    return refuse({ code: 'business/tips-wrong', field: 'tips', typed: typed.tips });
  const sign = typed.signAbove.trim() === '' ? null : readAmount(typed.signAbove, typed.currency);
  if (sign?.ok === false)
    return refuse({ code: 'business/amount-wrong', field: 'signAbove', typed: typed.signAbove });
  const carry = carryIn(typed);
  if (carry !== null && 'code' in carry) return refuse(carry);
  const forgetAfter = Number(typed.forgetAfter.trim() === '' ? '0' : typed.forgetAfter);
  if (!Number.isInteger(forgetAfter) || forgetAfter < 0 || forgetAfter > 365)
    return refuse({ code: 'business/days-wrong', field: 'forgetAfter', typed: typed.forgetAfter });
  const {
    serviceTaxes,
    tipsOf,
    isTipOnReader,
    carryEach: _each,
    carryAll: _all,
    carryHours: _hours,
    ...rest
  } = typed;
  const service = rateOf(percent) === 0 ? null : { percent, taxes: serviceTaxes };
  const body: BodyOf<'business.set'> = {
    ...rest,
    name,
    cashStep,
    uplift,
    groups,
    service,
    tips:
      tips.length === 0
        ? null
        : {
            percents: tips.filter((each) => each !== null),
            of: tipsOf,
            isOnReader: isTipOnReader,
          },
    carry,
    signAbove: sign?.amount ?? null,
    receiptHead: typed.receiptHead.slice(0, 500),
    receiptFoot: typed.receiptFoot.slice(0, 500),
    forgetAfter,
  };
  return { ok: true, drafts: [draft('business.set', newId(), null, body)] };
}

/** What may be carried with no network; null takes none. */
function carryIn(typed: TypedBusiness): Carry | null | BusinessRefusal {
  const { carryEach, carryAll, carryHours, currency } = typed;
  if (carryEach.trim() === '') return null;
  const [each, all] = [readAmount(carryEach, currency), readAmount(carryAll, currency)];
  if (!each.ok) return { code: 'business/amount-wrong', field: 'carryEach', typed: carryEach };
  if (!all.ok) return { code: 'business/amount-wrong', field: 'carryAll', typed: carryAll };
  const hours = Number(carryHours);
  if (!Number.isInteger(hours) || hours < 1 || hours > 720)
    return { code: 'business/hours-wrong', field: 'carryHours', typed: carryHours };
  return { perPayment: each.amount, perDevice: all.amount, hours };
}

export interface TypedTax {
  readonly id: string | null;
  readonly name: string;
  readonly rate: string;
  readonly level: 'country' | 'region' | 'local';
  readonly on: readonly string[];
  readonly isActive: boolean;
}

/** A tax; a new one stands after the others, so that it can be charged on them. */
export function setTax(
  newId: () => string,
  typed: TypedTax,
  taxes: readonly Row<'taxes'>[],
): BusinessOutcome {
  const name = typed.name.trim().slice(0, 80);
  if (name === '') return refuse({ code: 'business/empty', field: 'name' });
  const rate = readPercent(typed.rate, ANY_RATE);
  if (rate === null)
    return refuse({ code: 'business/rate-wrong', field: 'rate', typed: typed.rate });
  const isTaken = taxes.some(
    (each) =>
      each.id !== typed.id && each.isActive && each.name.toLowerCase() === name.toLowerCase(),
  );
  if (isTaken && typed.isActive) return refuse({ code: 'tax/taken', field: 'name', name });
  const known = taxes.find(({ id }) => id === typed.id);
  const needs = taxes.filter(
    (each) => each.isActive && typed.id !== null && each.on.includes(typed.id),
  );
  if (needs.length > 0 && !typed.isActive)
    return refuse({ code: 'tax/needed', field: 'name', by: needs.map((each) => each.name) });
  const sort = known?.sort ?? Math.max(0, ...taxes.map((each) => each.sort)) + 1;
  // A tax can only be charged on those that stand before it.
  const on = typed.on.filter((id) => taxes.some((each) => each.id === id && each.sort < sort));
  const { level, isActive } = typed;
  const body = { id: typed.id ?? newId(), name, rate, level, on, sort, isActive };
  return { ok: true, drafts: [draft('tax.set', newId(), null, body)] };
}

export interface TypedMaker {
  readonly id: string | null;
  readonly number: string;
  readonly name: string;
  readonly commission: string;
  readonly email: string;
  readonly isActive: boolean;
}

export function setMaker(
  newId: () => string,
  typed: TypedMaker,
  makers: readonly Row<'makers'>[],
): BusinessOutcome {
  const name = typed.name.trim().slice(0, 80);
  if (name === '') return refuse({ code: 'business/empty', field: 'name' });
  const number = Number(typed.number);
  if (!Number.isInteger(number) || number < 1 || number > 99_999)
    return refuse({ code: 'maker/number-wrong', field: 'number', typed: typed.number });
  const other = makers.find(
    (each) => each.id !== typed.id && each.isActive && each.number === number,
  );
  if (other !== undefined && typed.isActive)
    return refuse({ code: 'maker/number-taken', field: 'number', name: other.name });
  const commission = readPercent(typed.commission);
  if (commission === null)
    return refuse({ code: 'business/rate-wrong', field: 'commission', typed: typed.commission });
  const email = typed.email.trim();
  if (email !== '' && !z.email().max(120).safeParse(email).success)
    return refuse({ code: 'maker/email-wrong', field: 'email', typed: email });
  const { isActive } = typed;
  const body = { id: typed.id ?? newId(), number, name, commission, email, isActive };
  return { ok: true, drafts: [draft('maker.set', newId(), null, body)] };
}
