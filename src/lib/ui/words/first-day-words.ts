/** Sentences for the first steps of a business. */
import type { FirstDayRefusal } from '../../core/founding/first-day';
import type { MoneyWords } from './money-words';
import { refusalWords } from './refusal-words';

export function firstDayWords(refusal: FirstDayRefusal, money: MoneyWords): string {
  switch (refusal.code) {
    case 'goods/no-name':
      return 'Say what it is called.';
    case 'goods/count-wrong':
      return `“${refusal.typed}” is not a number of things; type a whole number, or nothing.`;
    case 'amount/empty':
    case 'amount/negative':
    case 'amount/not-a-number':
    case 'amount/too-large':
    case 'amount/too-many-decimals':
      return `Price: ${refusalWords(refusal, money)}`;
  }
}
