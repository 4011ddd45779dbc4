/** What is said of sales that were booked wrongly. */
import type { Fix } from '../../core/daybook/kinds/sale-corrected';
import type { CorrectRefusal } from '../../core/sale/correct-sale';
import type { MoneyWords } from './money-words';

/** What can have been wrong, as it is asked for. */
export const MISTAKES: Readonly<Record<Fix['is'], string>> = {
  way: 'It was paid another way',
  change: 'Other change was handed out',
  item: 'A line was something else at that price',
  customer: 'It was another customer, or none',
  seller: 'Somebody else sold it',
  event: 'It was sold at another event',
};

export function correctRefusalWords(refusal: CorrectRefusal): string {
  switch (refusal.code) {
    case 'correct/voided':
      return 'This sale is void: nothing of it can be put right any more.';
    case 'correct/no-reason':
      return 'Say why, in a few words: “tapped the wrong button” will do.';
    case 'correct/same':
      return 'That is how it stands already; choose what it should have been.';
    case 'correct/card':
      return 'A card that was charged here is given back, and paid anew: take the goods back instead.';
    case 'correct/account':
      return 'What is owed, credit, vouchers and deposits are not booked otherwise: void the sale, or take goods back.';
    case 'correct/no-drawer':
      return 'Choose the drawer that the cash lies in; one must be open here.';
    case 'correct/several':
      return 'It was paid at several events: nobody can say what of it was sold at which.';
    case 'correct/came-back':
      return `Some of ${refusal.name} has come back already, as it was rung up; that stays.`;
  }
}

/** Names of what a correction speaks of. */
export interface FixNames {
  readonly money: MoneyWords;
  readonly person: (id: string | null) => string;
  readonly customer: (id: string) => string;
  readonly drawer: (id: string) => string;
  readonly event: (id: string) => string;
}

/** What it was in truth. */
export function fixWords(fix: Fix, names: FixNames): string {
  switch (fix.is) {
    case 'way': {
      const into = fix.drawer === null ? '' : `, into ${names.drawer(fix.drawer)}`;
      return `Paid by ${fix.wayName}${fix.reference === '' ? '' : ` ${fix.reference}`}${into}`;
    }
    case 'change':
      return `${names.money.text(fix.change)} of change was handed out`;
    case 'customer':
      return fix.customer === null
        ? 'For nobody in particular'
        : `For ${names.customer(fix.customer)}`;
    case 'seller':
      return fix.seller === null
        ? 'Sold by whoever rang it up'
        : `Sold by ${names.person(fix.seller)}`;
    case 'event': {
      const cash = fix.cash === null ? '' : `; its cash lies in ${names.drawer(fix.cash)} there`;
      return `Sold at ${names.event(fix.to)}${cash}`;
    }
    case 'item':
      return `It was ${fix.name}${fix.detail === '' ? '' : `, ${fix.detail}`}`;
  }
}
