/**
 * A card that is typed in for a customer at a distance: post, telephone, web order (card not present).
 * The number leaves this function for the seal and for nowhere else.
 */
import cardValidator from 'card-validator';

export const HOW_TO_TAKE = ['now', 'later', 'voice'] as const;
/** Taken at once; held and taken later; taken with an approval code that was given by telephone. */
export type HowToTake = (typeof HOW_TO_TAKE)[number];

/** What stands in the form. */
export interface TypedCard {
  readonly number: string;
  /** Month and year, such as 04/29. */
  readonly expiry: string;
  readonly code: string;
  readonly holder: string;
  readonly street: string;
  readonly town: string;
  readonly postcode: string;
  /** ISO 3166-1 alpha-2. */
  readonly country: string;
  /** Of the order that is paid for. */
  readonly reference: string;
  readonly how: HowToTake;
  readonly voice: string;
}

export type KeyedField = keyof TypedCard;
export interface KeyedRefusal {
  readonly code: 'keyed/wrong';
  readonly field: KeyedField;
  readonly why:
    | 'empty'
    | 'not a card number'
    | 'expired or not a date'
    | 'wrong length'
    | 'postcode';
}

/** What is sealed; the security code is used once and is not in what is kept for later. */
export interface SealedCard {
  readonly number: string;
  readonly expiry: string;
  readonly code?: string;
  readonly holder: string;
  readonly address: {
    readonly street: string;
    readonly town: string;
    readonly postcode: string;
    readonly country: string;
  };
}

export type KeyedOutcome =
  | {
      readonly ok: true;
      readonly card: SealedCard;
      readonly scheme: string;
      readonly last4: string;
    }
  | { readonly ok: false; readonly refusal: KeyedRefusal };

/** Postcodes by country, as their post offices write them; elsewhere any, or none. */
const POSTCODES: Readonly<Record<string, RegExp>> = {
  GB: /^[A-Z]{1,2}\d[A-Z\d]? ?\d[A-Z]{2}$/i,
  US: /^\d{5}(-\d{4})?$/,
  CA: /^[A-Z]\d[A-Z] ?\d[A-Z]\d$/i,
  IE: /^[A-Z]\d[\dW] ?[A-Z\d]{4}$/i,
  AU: /^\d{4}$/,
  NZ: /^\d{4}$/,
  DE: /^\d{5}$/,
  FR: /^\d{5}$/,
  IT: /^\d{5}$/,
  ES: /^\d{5}$/,
  NL: /^\d{4} ?[A-Z]{2}$/i,
  BE: /^\d{4}$/,
  AT: /^\d{4}$/,
  CH: /^\d{4}$/,
  DK: /^\d{4}$/,
  SE: /^\d{3} ?\d{2}$/,
  NO: /^\d{4}$/,
  PT: /^\d{4}-\d{3}$/,
  PL: /^\d{2}-\d{3}$/,
  JP: /^\d{3}-?\d{4}$/,
};

/** The countries whose postcodes are checked. */
export const CARD_COUNTRIES = Object.keys(POSTCODES);

/** The scheme as far as the figures tell it; empty while they do not. */
export const schemeOf = (number: string): string =>
  cardValidator.number(number.replace(/[\s-]/g, '')).card?.niceType ?? '';

/**
 * Checks a card field by field, the first that is wrong is told.
 * @param today ISO date; a card holds to the end of its month.
 */
export function readKeyedCard(typed: TypedCard, today: string): KeyedOutcome {
  const read = readFigures(typed, today);
  if (!read.ok) return read;
  const { number, expiry, scheme, last4, codeSize } = read;
  const isVoice = typed.how === 'voice';
  const code = typed.code.trim();
  if (!isVoice && !cardValidator.cvv(code, codeSize).isValid)
    return wrong('code', code === '' ? 'empty' : 'wrong length');
  for (const field of ['holder', 'street', 'town', 'reference'] as const)
    if (typed[field].trim() === '') return wrong(field, 'empty');
  const postcode = typed.postcode.trim();
  const pattern = POSTCODES[typed.country];
  if (pattern !== undefined && !pattern.test(postcode)) return wrong('postcode', 'postcode');
  if (isVoice && typed.voice.trim() === '') return wrong('voice', 'empty');
  const { holder, street, town, country } = typed;
  return {
    ok: true,
    card: {
      number,
      expiry,
      ...(isVoice ? {} : { code }),
      holder: holder.trim(),
      address: { street: street.trim(), town: town.trim(), postcode, country },
    },
    scheme,
    last4,
  };
}

type Figures =
  | {
      readonly ok: true;
      readonly number: string;
      readonly expiry: string;
      readonly scheme: string;
      readonly last4: string;
      /** How many figures its security code has. */
      readonly codeSize: number;
    }
  | { readonly ok: false; readonly refusal: KeyedRefusal };

/**
 * Number and expiry alone: for a card that is put on file, which nobody charges yet.
 * @param today ISO date.
 */
export function readFigures(typed: Pick<TypedCard, 'number' | 'expiry'>, today: string): Figures {
  const number = typed.number.replace(/[\s-]/g, '');
  const { isValid, card } = cardValidator.number(number);
  if (number === '') return wrong('number', 'empty');
  if (!isValid || card === null) return wrong('number', 'not a card number');
  const expiry = expiryIn(typed.expiry, today);
  if (expiry === null) return wrong('expiry', 'expired or not a date');
  const scheme = card.niceType.slice(0, 20);
  return { ok: true, number, expiry, scheme, last4: number.slice(-4), codeSize: card.code.size };
}

/** `YYYY-MM`, or null if it is no month or has gone by. */
function expiryIn(text: string, today: string): string | null {
  const [, month, year] = /^\s*(\d{1,2})\s*[/.-]\s*(\d{2}|\d{4})\s*$/.exec(text) ?? [];
  if (month === undefined || year === undefined) return null;
  const at = Number(month);
  if (at < 1 || at > 12) return null;
  const expiry = `${year.length === 2 ? `20${year}` : year}-${String(at).padStart(2, '0')}`;
  const isFar = Number(expiry.slice(0, 4)) > Number(today.slice(0, 4)) + 20;
  return expiry < today.slice(0, 7) || isFar ? null : expiry;
}

const wrong = (
  field: KeyedField,
  why: KeyedRefusal['why'],
): { readonly ok: false; readonly refusal: KeyedRefusal } => ({
  ok: false,
  refusal: { code: 'keyed/wrong', field, why },
});
