/** What a device hears of a card: the acquirer's answer, or that there is none. */
import type { AcquirerAnswer } from './acquirer';
import { answer, refused } from '../http/answers';

export const cardReply = (said: AcquirerAnswer): Response => {
  if (said.came === 'answer') return answer(said.answer);
  if (said.came === 'refusal') return refused(409, 'card/refused', said.message);
  const { says } = said;
  return says === undefined ? refused(503, 'card/no-answer') : refused(409, 'card/not-now', says);
};
