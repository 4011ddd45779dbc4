/** What a device hears of a card: the acquirer's answer, or that there is none. */
import type { AcquirerAnswer } from './acquirer';
import { answer, refused } from '../http/answers';

export const cardReply = (said: AcquirerAnswer): Response => {
  if (said.came === 'answer') return answer(said.answer);
  if (said.came === 'refusal') return cardRefused(said.message);
  const { says } = said;
  if (says === undefined)
    return noAcquirer('The acquirer does not answer. Ask again: nothing is charged twice.');
  return refused(409, { code: 'card/not-now', message: `The acquirer says: ${says}.` });
};

export const cardRefused = (message: string): Response =>
  refused(409, { code: 'card/refused', message: `The acquirer says: ${message}.` });

export const noAcquirer = (message: string): Response =>
  refused(503, { code: 'card/no-answer', message });

const undoWords = {
  'card/not-decided':
    'No entry says so yet, or none that stands. It is asked again when there is one.',
  'card/other-device': 'That card was asked for by another device.',
} as const;

export const notAllowed = (code: keyof typeof undoWords): Response =>
  refused(409, { code, message: undoWords[code] });
