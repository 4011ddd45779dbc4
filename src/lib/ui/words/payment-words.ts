/** Words about parts of a payment. */
import type { PaidPart } from '../../core/slip/open-slip';
import type { ShareRefusal } from '../../core/payment/shares';
import type { MoneyWords } from './money-words';

type Part = Omit<PaidPart, 'id'>;

/** What there is to say of a part beside its amount. */
export function partLine(part: Part, money: MoneyWords): string {
  const { clears, charge, surcharge, tip, change, rounding, share, card } = part;
  return [
    card === null ? '' : CARD_STATES[card.state],
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
