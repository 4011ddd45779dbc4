/** Setting up standing charges: commands. Minor units and thousandths. */
import type { Row } from '../books/tables';
import { hasExpired } from '../customer/card-on-file';
import { isCountry } from '../customer/country';
import type { Draft } from '../daybook/chain';
import { draft, privateDraft, type BodyOf } from '../daybook/kinds';
import type { CardOnFile } from '../daybook/kinds/customer-card';
import type { ConsentWay } from '../daybook/kinds/customer-consent';
import { daysAfter, isDate } from '../event/event-days';
import { readLines, type LineRefusal, type TypedLine } from '../invoice/own-lines';
import { typedText } from '../money/amount-text';
import { quantityText, sum } from '../money/units';
import { lineAmount } from '../slip/line-amount';
import type { WayToPay } from '../payment/ways';
import type { Unit } from '../daybook/kinds/charge';
import { daysDue, nextDays, type Schedule } from './schedule';

type Charge = Row<'charges'>;

/** As its form holds it. */
export interface TypedCharge {
  readonly customer: string;
  readonly lines: readonly TypedLine[];
  readonly unit: Unit;
  readonly every: string;
  readonly from: string;
  /** Empty for no last day. */
  readonly until: string;
  readonly country: string;
  /** The way that the card on file is charged by; empty where they pay when they are asked. */
  readonly way: string;
  readonly consent: ConsentWay | '';
  readonly isMailed: boolean;
  readonly note: string;
  readonly reference: string;
}

export type ChargeRefusal =
  | LineRefusal
  | ({ readonly field: string } & (
      | { readonly code: 'charge/not-headed' }
      | { readonly code: 'charge/no-customer' }
      | { readonly code: 'charge/nothing' }
      | { readonly code: 'charge/every-wrong'; readonly typed: string }
      | { readonly code: 'charge/day-wrong'; readonly typed: string }
      /** It would have been due already. */
      | { readonly code: 'charge/past'; readonly today: string }
      | { readonly code: 'charge/until-before'; readonly from: string }
      | { readonly code: 'charge/country-wrong'; readonly typed: string }
      | { readonly code: 'charge/no-way' }
      | { readonly code: 'charge/no-card' }
      | { readonly code: 'charge/expired'; readonly expiry: string }
      | { readonly code: 'charge/no-consent' }
      | { readonly code: 'charge/no-mail' }
    ));

export type ChargeOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[]; readonly id: string }
  | { readonly ok: false; readonly refusal: ChargeRefusal };

const refuse = (refusal: ChargeRefusal): { ok: false; refusal: ChargeRefusal } => ({
  ok: false,
  refusal,
});

export interface SetCharge {
  readonly newId: () => string;
  /** Random text of at least 16 characters, to keep what is personal apart by. */
  readonly newSalt: () => string;
  /** The one that is changed; none for a new one. */
  readonly known?: Charge | undefined;
  readonly typed: TypedCharge;
  /** Whether invoices have a heading and numbers here. */
  readonly isHeaded: boolean;
  /** The local day, ISO 8601. */
  readonly today: string;
  readonly currency: string;
  readonly customer: Pick<Row<'customers'>, 'isErased' | 'email'> | undefined;
  readonly card: CardOnFile | null;
  readonly ways: readonly WayToPay[];
}

/** By which a card on file can be charged. */
export const cardWays = (ways: readonly WayToPay[]): readonly WayToPay[] =>
  ways.filter(({ method, isActive }) => isActive && (method === 'card' || method === 'keyed'));

/** A new one, or one that is changed: what was made of it stays as it is. */
export function setCharge(command: SetCharge): ChargeOutcome {
  const { typed, known, isHeaded, today, currency, customer, card, ways } = command;
  if (!isHeaded) return refuse({ code: 'charge/not-headed', field: '' });
  if (customer === undefined || customer.isErased)
    return refuse({ code: 'charge/no-customer', field: 'customer' });
  const read = readLines(typed.lines, currency);
  if (!read.ok) return read;
  if (read.lines.length === 0 || sum(read.lines.map(({ price }) => price)) === 0)
    return refuse({ code: 'charge/nothing', field: 'lines.0.price' });
  const every = /^\d{1,2}$/.test(typed.every.trim()) ? Number(typed.every) : 0;
  if (every < 1) return refuse({ code: 'charge/every-wrong', field: 'every', typed: typed.every });
  const { unit, from } = typed;
  const until = typed.until === '' ? null : typed.until;
  for (const [field, day] of [['from', from] as const, ['until', until] as const])
    if (day !== null && !isDate(day))
      return refuse({ code: 'charge/day-wrong', field, typed: day });
  const isSameRule =
    known?.unit === unit && known.every === every && known.from === from && known.isActive;
  // One that goes on as it was began long ago.
  if (!isSameRule && from < today) return refuse({ code: 'charge/past', field: 'from', today });
  if (until !== null && until < (isSameRule ? today : from))
    return refuse({ code: 'charge/until-before', field: 'until', from: isSameRule ? today : from });
  const country = typed.country.trim().toUpperCase();
  if (!isCountry(country))
    return refuse({ code: 'charge/country-wrong', field: 'country', typed: typed.country });
  if (typed.way !== '') {
    if (!cardWays(ways).some(({ id }) => id === typed.way))
      return refuse({ code: 'charge/no-way', field: 'way' });
    if (card === null) return refuse({ code: 'charge/no-card', field: 'way' });
    if (hasExpired(card, today))
      return refuse({ code: 'charge/expired', field: 'way', expiry: card.expiry });
    if (typed.consent === '') return refuse({ code: 'charge/no-consent', field: 'consent' });
  }
  if (typed.isMailed && customer.email === '')
    return refuse({ code: 'charge/no-mail', field: 'isMailed' });
  const id = known?.id ?? command.newId();
  const body: BodyOf<'charge.set'> = {
    ...{ id, customer: known?.customer ?? typed.customer, lines: read.lines },
    ...{ unit, every, from, until, country },
    notBefore: isSameRule ? known.notBefore : from,
    way: typed.way === '' ? null : typed.way,
    consent: typed.way === '' || typed.consent === '' ? null : typed.consent,
    ...{ isMailed: typed.isMailed, isActive: true },
  };
  const said = {
    note: typed.note.trim().slice(0, 500),
    reference: typed.reference.trim().slice(0, 40),
  };
  return { ok: true, id, drafts: [asEntry(command, body, said)] };
}

/** A new one is its own entry; what is said of it later has an entry of its own. */
function asEntry(
  { newId, newSalt, known }: Pick<SetCharge, 'newId' | 'newSalt' | 'known'>,
  body: BodyOf<'charge.set'>,
  said: { readonly note: string; readonly reference: string },
): Draft {
  const entry = known === undefined ? body.id : newId();
  return said.note === '' && said.reference === ''
    ? draft('charge.set', entry, null, body)
    : privateDraft('charge.set', entry, body, newSalt(), said);
}

/** It is charged no more from now on; or goes on, without the days in between. */
export function haltCharge(
  command: Pick<SetCharge, 'newId' | 'newSalt' | 'today'> & { readonly known: Charge },
  goesOn: boolean,
): Draft {
  const { known, today } = command;
  const { id, customer, lines, unit, every, from, until, country, way, isMailed } = known;
  const { note, reference } = known;
  const body: BodyOf<'charge.set'> = {
    ...{ id, customer, lines, unit, every, from, until, country, way, isMailed },
    consent: known.consent as ConsentWay | null,
    notBefore: goesOn && today > known.notBefore ? today : known.notBefore,
    isActive: goesOn,
  };
  return asEntry(command, body, { note, reference });
}

type Days = Pick<Charge, 'unit' | 'every' | 'from' | 'until' | 'notBefore' | 'upTo' | 'isActive'>;

const scheduleOf = ({ unit, every, from, until }: Days): Schedule => ({
  ...{ unit, every, from, until },
});

/** The day after which it is made: what was made is, and what was before it began or was halted is not. */
const doneUpTo = ({ notBefore, upTo }: Pick<Days, 'notBefore' | 'upTo'>): string => {
  const before = daysAfter(notBefore, -1);
  return upTo > before ? upTo : before;
};

/** Days up to today for which it is to be made, the oldest first. */
export const daysToMake = (charge: Days, today: string): readonly string[] =>
  charge.isActive ? daysDue(scheduleOf(charge), doneUpTo(charge), today) : [];

/** When it is made next; fewer days where it ends before, none where it has ended. */
export const daysToCome = (charge: Days, many: number): readonly string[] =>
  charge.isActive ? nextDays(scheduleOf(charge), doneUpTo(charge), many) : [];

/** What its prices come to, as they are typed: with tax where they include it. Minor units. */
export const priceOf = ({ lines }: Pick<Charge, 'lines'>): number =>
  sum(lines.map(({ price, quantity }) => lineAmount(price, quantity)));

/** What stands in its form. */
export const typedCharge = (known: Charge, currency: string): TypedCharge => ({
  ...{ customer: known.customer, unit: known.unit, every: String(known.every) },
  lines: known.lines.map(({ name, quantity, price, taxes }) => ({
    ...{ name, quantity: quantityText(quantity), taxes: [...taxes] },
    price: typedText(price, currency),
  })),
  ...{ from: known.from, until: known.until ?? '', country: known.country },
  ...{ way: known.way ?? '', consent: (known.consent ?? '') as ConsentWay | '' },
  ...{ isMailed: known.isMailed, note: known.note, reference: known.reference },
});

/** Has the server charge the card again for an invoice that it did not pay. */
export const chargeAgain = (
  newId: () => string,
  { invoice, charge, customer }: Pick<Row<'chargeCards'>, 'invoice' | 'charge' | 'customer'>,
): Draft => draft('charge.again', newId(), null, { invoice, charge, customer });
