/** The bank as the server has it, asked again whenever something was sent; and writing what is said of it. */
import { bankNowSchema, type BankNow } from '$lib/core/bank/bank-now';
import { knownLinesSchema, type KnownLine } from '$lib/core/bank/take-statement';
import { BANK_AWAY, FILE_AWAY } from '$lib/ui/words/bank-words';
import { wrongOf } from '$lib/ui/words/answer-words';
import { Asked } from '../asked.svelte';

export type BankState =
  | { readonly is: 'asking' }
  /** Only whoever signs in as the owner sees it. */
  | { readonly is: 'sign in' }
  | { readonly is: 'other business' }
  | { readonly is: 'away'; readonly says: string }
  | { readonly is: 'here' };

export class AskedBank extends Asked {
  now = $state.raw<BankNow | null>(null);
  state = $state.raw<BankState>({ is: 'asking' });
  /** Why older lines did not come. */
  olderSays = $state('');

  async ask(): Promise<void> {
    const at = this.askedAt();
    const asked = await this.stall.transport.ask('/api/bank', bankNowSchema);
    if (asked.came === 'answer') {
      const isOurs = asked.answer.business === this.stall.business.id;
      this.state = isOurs ? { is: 'here' } : { is: 'other business' };
      this.now = isOurs ? asked.answer : null;
      this.heard(at);
      return;
    }
    if (asked.came === 'refusal' && asked.refusal.code === 'owner/unknown') {
      this.state = { is: 'sign in' };
      this.now = null;
      return;
    }
    this.state = { is: 'away', says: wrongOf(asked, BANK_AWAY) };
  }

  /** Older lines that are done with. */
  async older(): Promise<void> {
    const { now } = this;
    this.olderSays = '';
    const last = now?.done.at(-1);
    if (now === null || last === undefined) return;
    const before = encodeURIComponent(`${last.day} ${last.id}`);
    const asked = await this.stall.transport.ask(`/api/bank?before=${before}`, bankNowSchema);
    this.olderSays = wrongOf(asked, 'No network now; older lines are on the server.');
    if (asked.came !== 'answer' || now !== this.now) return;
    const { done, older, written } = asked.answer;
    this.now = {
      ...now,
      done: [...now.done, ...done],
      older,
      written: [...now.written, ...written],
    };
  }

  /** Lines of these days that are there; a sentence where that cannot be told. */
  async known(from: string, to: string): Promise<readonly KnownLine[] | string> {
    const asked = await this.stall.transport.ask(
      `/api/bank/lines?from=${from}&to=${to}`,
      knownLinesSchema,
    );
    if (asked.came === 'answer') return asked.answer.lines;
    return wrongOf(asked, FILE_AWAY);
  }
}
