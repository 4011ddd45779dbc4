/** Sentences about what came of asking the server. */

export const NO_ANSWER = 'The server does not answer.';
/** Something came that is no answer: what to do is different from waiting for a network. */
const UNCLEAR =
  'What answered was not Stall Till as this page knows it: the Wi-Fi may want a sign-in of its own first (open any web page to see), the server may not be well, or this page is from before an update.';

/** As much of what came of asking as has words. */
type Came =
  | { readonly came: 'answer' }
  | { readonly came: 'refusal'; readonly refusal: { readonly message: string } }
  | { readonly came: 'nothing'; readonly why: 'silence' | 'unclear' }
  | { readonly came: 'nothing'; readonly why: 'not now'; readonly says: string };

/**
 * What is wrong with what came of asking; nothing where it was answered.
 * @param away What is said where nobody was reached.
 * @param still What holds as long as there is no answer, whatever the reason: said behind it.
 */
export function wrongOf(asked: Came, away: string = NO_ANSWER, still = ''): string {
  if (asked.came === 'answer') return '';
  if (asked.came === 'refusal') return asked.refusal.message;
  return `${whyNot(asked, away)} ${still}`.trimEnd();
}

function whyNot(asked: Extract<Came, { came: 'nothing' }>, away: string): string {
  if (asked.why === 'not now') return asked.says;
  return asked.why === 'unclear' ? UNCLEAR : away;
}
