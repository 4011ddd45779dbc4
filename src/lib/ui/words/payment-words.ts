/** Words about parts of a payment. */
import type { Carry } from '../../core/books/tables';
import type { CardOnFile } from '../../core/daybook/kinds/customer-card';
import type { VoidRefusal } from '../../core/sale/void-sale';
import type { PaidPart } from '../../core/slip/open-slip';
import type { CardLooseEnd } from '../../core/payment/card-state';
import type { Carried, CarryRefusal } from '../../core/payment/carry';
import type { KeyedRefusal } from '../../core/payment/keyed-card';
import type { ShareRefusal } from '../../core/payment/shares';
import { counted, type MoneyWords } from './money-words';

type Part = Omit<PaidPart, 'id'>;

/** A card that is known by its last figures, such as Visa ending 4471, to 04/29. */
export function cardWords({ scheme, last4, expiry }: Omit<CardOnFile, 'token'>): string {
  const [year = '', month = ''] = expiry.split('-');
  return `${scheme} ending ${last4}, to ${month}/${year.slice(2)}`;
}

/** What there is to say of a part beside its amount. */
export function partLine(part: Part, money: MoneyWords): string {
  const { clears, charge, surcharge, tip, change, rounding, share, card } = part;
  return [
    card === null ? '' : [CARD_STATES[card.state], card.approval].join(' ').trim(),
    change > 0
      ? `${money.text(charge + surcharge + tip)} handed over, ${money.text(change)} back`
      : '',
    part.side === 'card' && charge !== clears ? `clears ${money.text(clears)}` : '',
    surcharge > 0 ? `${money.text(surcharge)} surcharge` : '',
    tip > 0 ? `${money.text(tip)} tip` : '',
    rounding !== 0 ? `rounded by ${money.text(rounding)}` : '',
    share === null ? '' : `share ${String(share)}`,
  ]
    .filter((words) => words !== '')
    .join(' · ');
}

const CARD_STATES = {
  captured: 'approved',
  authorised: 'held, to be taken later',
  deferred: 'carried until there is network',
} as const;

/** What carrying a card would mean. */
export function carryWords(refusal: CarryRefusal | null, money: MoneyWords): string {
  switch (refusal?.code) {
    case undefined:
      return 'It can be carried: it is sent by itself once there is network, and is your risk until then.';
    case 'carry/none':
      return 'This business takes no cards with no network; another way to pay is needed.';
    case 'carry/needs-voice':
      return 'A card that was typed in can be carried only with an approval code given by voice: leave it, and take it with one.';
    case 'carry/on-file':
      return 'A card on file can be charged only with network: leave it, and take another way to pay.';
    case 'carry/too-much':
      return `That is more than the ${money.text(refusal.most)} that one card may be carried for; somebody with the right to it can go over.`;
    case 'carry/over':
      return `With it this device would carry more than ${money.text(refusal.most)}; somebody with the right to it can go over.`;
    case 'carry/too-old':
      return `What is carried is older than ${counted(refusal.hours, 'hour')}; somebody with the right to it can go over.`;
  }
}

/** What a device carries already, of how much. */
export function carriedWords(
  { count, amount }: Carried,
  { perDevice }: Carry,
  money: MoneyWords,
): string {
  const cards = count === 0 ? 'no card' : count === 1 ? '1 card' : `${String(count)} cards`;
  return `This device carries ${cards} so far: ${money.text(amount)} of at most ${money.text(perDevice)}.`;
}

export const CARD_END_TITLES: Readonly<Record<CardLooseEnd['is'], string>> = {
  'declined after it was taken': 'A card was declined after the goods had gone',
  'approved in part': 'Less was taken of a card than it was to pay',
  released: 'A card that was held was released',
  'held too long': 'A card has been held too long',
  'not sent yet': 'A card has not been sent yet',
  'perhaps charged': 'A card may have been charged',
  'still to be given back': 'A card is still to be given back',
};

/** What happened, in a sentence or two, and what is to be done about it. */
export function cardEndStory({ payment, is }: CardLooseEnd, money: MoneyWords): string {
  const { amount, resultAmount, scheme, last4, reason } = payment;
  const card = last4 === '' ? 'A card' : `${scheme} ending ${last4}`;
  const sum = money.text(amount);
  switch (is) {
    case 'declined after it was taken':
      return `${card} was taken for ${sum} with no network, and declined afterwards: ${reason || 'no reason was given'}. Ask whoever bought for another way to pay.`;
    case 'approved in part':
      return `${card} was to pay ${sum}, and only ${money.text(resultAmount)} was taken of it. ${money.text(amount - resultAmount)} is still owed.`;
    case 'released':
      return `${card} was held for ${sum}, and released. The sale it was for is not paid.`;
    case 'held too long':
      return `${card} was held for ${sum}, which can no longer be taken. Ask whoever bought for another way to pay.`;
    case 'not sent yet':
      return `${card} was taken for ${sum} with no network. It is sent by itself by the device that took it, once that has network.`;
    case 'perhaps charged':
      return `${sum} was asked of a card and nobody heard the end of it. The device that asked undoes it by itself, once it has network.`;
    case 'still to be given back':
      return `${card} was charged ${sum}, and that was given back at the counter. The acquirer is told automatically, once the device has network.`;
  }
}

/** What is said once it is decided what becomes of a held card; the acquirer is told behind it. */
export const decidedWords = (
  does: 'capture' | 'release',
  amount: number,
  money: MoneyWords,
): string =>
  does === 'release'
    ? 'It is released as soon as the acquirer has been told.'
    : `${money.text(amount)} is taken as soon as the acquirer has been told.`;

export function keyedRefusalWords({ field, why }: KeyedRefusal): string {
  switch (why) {
    case 'empty':
      return field === 'voice'
        ? 'Type the code that was given by voice.'
        : 'This must be filled in.';
    case 'not a card number':
      return 'This is no card number: look for a slip of the finger.';
    case 'expired or not a date':
      return 'Type month and year as on the card, such as 04/29; a card that has expired is not taken.';
    case 'wrong length':
      return 'The security code has three figures, or four on some cards.';
    case 'postcode':
      return 'This is no postcode of that country.';
  }
}

export function voidRefusalWords(refusal: VoidRefusal): string {
  switch (refusal.code) {
    case 'void/no-reason':
      return 'Say why: “wrong customer” will do.';
    case 'void/already':
      return 'This sale is void already.';
    case 'void/returned':
      return 'Goods of it have come back already; take back what is left of it instead.';
    case 'void/exchanged':
      return 'Goods that came back paid for some of it; take its goods back instead.';
    case 'void/spent':
      return 'Something of the voucher or credit that it sold has been spent: void that sale first.';
    case 'void/shift-over':
      return 'Its cash has been counted, or it is of another event: take its goods back instead.';
  }
}

export function shareRefusalWords(refusal: ShareRefusal, money: MoneyWords): string {
  switch (refusal.code) {
    case 'share/too-few':
      return 'Sharing out takes two people or more.';
    case 'share/not-an-amount':
      return `Person ${String(refusal.at + 1)} would pay nothing; give each of them something.`;
    case 'share/not-the-total':
      return refusal.left > 0
        ? `That leaves ${money.text(refusal.left)} that nobody pays.`
        : `That is ${money.text(-refusal.left)} more than there is to pay.`;
    case 'share/begun':
      return 'The first has paid already, so the shares stay as they are.';
  }
}

/** Why a reader read no card. */
export const READER_SAYS = {
  cancelled: 'it was stopped at the reader',
  'wrong PIN': 'the PIN was wrong too often',
  'timed out': 'no card was held to the reader in time',
  'lost power': 'the reader has lost its power',
} as const;
