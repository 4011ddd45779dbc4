/** The bank in words: what lines may be, and why something is not done. */
import type { CostProposal } from '../../core/bank/due-costs';
import type { BankRefusal } from '../../core/bank/join-bank';
import type { OpenMoney } from '../../core/bank/open-money';
import type { AccountRefusal } from '../../core/bank/take-statement';
import { shortDayWords } from './date-words';
import type { MoneyWords } from './money-words';

export const BANK_AWAY =
  'No network now: the bank is worked out from what all devices have sent. Come back with network.';
export const FILE_AWAY =
  'No network now: a file is compared with what is there before anything of it is taken. Try again with network.';

/** What is still to come or to go, as it is chosen. */
export function openWords(open: OpenMoney, eventName: (id: string) => string): string {
  const of = open.events.map(eventName).join(', ');
  const named = open.what === '' ? '' : ` ${open.what}`;
  const at = of === '' ? '' : ` · ${of}`;
  switch (open.is) {
    case 'payout':
      return `Payout${named}${at}`;
    case 'bag':
      return `Bag${named}${at}`;
    case 'payment':
      return `A payment${named === '' ? ' without a reference' : named}${at}`;
    case 'handed in':
      return `Handed in:${named}${at}`;
    case 'way':
      return `All that is still to come${at}`;
    case 'noted':
      return `Noted by hand:${named === '' ? ' money that came' : named}${at}`;
    case 'paid':
      return `Paid:${named === '' ? ' out of the bank' : named}${at}`;
  }
}

/** A cost that a line may have paid. */
export const costWords = (
  { event, for: is, what, day }: CostProposal,
  eventName: (id: string) => string,
  locale: string,
): string => {
  const of = `${eventName(event)}, ${shortDayWords(day, locale)}`;
  return is === 'pitch' ? `The pitch of ${of}` : `${what}, a cost of ${of}`;
};

export function bankRefusalWords(refusal: BankRefusal | AccountRefusal, money: MoneyWords): string {
  switch (refusal.code) {
    case 'bank/amount-wrong':
      return refusal.typed.trim() === ''
        ? 'Type how much of the line it is, such as 120.50.'
        : `“${refusal.typed}” is no amount; type one such as 120.50.`;
    case 'bank/more-than-line':
      return `The line has ${money.text(refusal.left)} left; it cannot be more than that.`;
    case 'bank/more-than-open':
      return `Only ${money.text(refusal.open)} of it is still to come; join that much, and say what the rest of the line is.`;
    case 'bank/other-way':
      return 'One of them came and the other went; they cannot be the same.';
    case 'bank/no-reason':
      return 'Say why, in a few words; whoever looks at the books later will want to know.';
    case 'bank/no-event':
      return 'Choose the event that it was paid for.';
    case 'bank/no-name':
      return 'Give the account a name, such as “Business account”.';
    case 'bank/no-number':
      return `“${refusal.typed}” is no number of an account; type its IBAN, or the number that stands on its statements.`;
    case 'bank/number-taken':
      return `${refusal.name} has this number already.`;
  }
}

export const ORDER_CHOICES = {
  ymd: 'year, month, day (2026-11-27)',
  dmy: 'day, month, year (27/11/2026)',
  mdy: 'month, day, year (11/27/2026)',
} as const;
