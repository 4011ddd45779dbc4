/** What a device hears of a card: the acquirer's answer, or that there is none. */
import type { AcquirerAnswer, KeepAnswer } from './acquirer';
import { answer, refused } from '../http/answers';

export const cardReply = (said: AcquirerAnswer | KeepAnswer): Response => {
  if (said.came === 'answer') return answer('card' in said ? said.card : said.answer);
  if (said.came === 'refusal')
    return refused(409, { code: 'card/refused', message: `The acquirer says: ${said.message}.` });
  return noAcquirer('The acquirer does not answer. Ask again: nothing is charged twice.');
};

export const noAcquirer = (message: string): Response =>
  refused(503, { code: 'card/no-answer', message });
