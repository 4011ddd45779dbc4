import type { Asked } from '$lib/device/sync/ask-server';

export const NO_ANSWER = 'The server does not answer.';

/** What is wrong with what came of asking, in words; nothing where it was answered. */
export function wrongOf(asked: Asked<unknown>): string {
  if (asked.came === 'answer') return '';
  return asked.came === 'refusal' ? asked.refusal.message : NO_ANSWER;
}
