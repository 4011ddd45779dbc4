/** The bank as the server has it, asked again whenever something was sent; and writing what is said of it. */
import { z } from 'zod';
import type { BankNow } from '$lib/core/bank/bank-now';
import type { BankOutcome } from '$lib/core/bank/join-bank';
import type { AccountRefusal, KnownLine } from '$lib/core/bank/take-statement';
import type { Draft } from '$lib/core/daybook/chain';
import { bankRefusalWords } from '$lib/ui/words/bank-words';
import type { Stall } from '../stall.svelte';

const answer = z.custom<BankNow>(
  (value) => typeof value === 'object' && value !== null && 'proposals' in value,
);
const linesAnswer = z.object({ lines: z.array(z.custom<KnownLine>()) });

export type BankState =
  | { readonly is: 'asking' }
  /** Only whoever signs in as the owner sees it. */
  | { readonly is: 'sign in' }
  | { readonly is: 'other business' }
  | { readonly is: 'away'; readonly says: string }
  | { readonly is: 'here' };

export class AskedBank {
  now = $state.raw<BankNow | null>(null);
  state = $state.raw<BankState>({ is: 'asking' });
  /** Something was written, and what the server makes of it has not been heard: the figures are old. */
  isBusy = $state(false);
  readonly #stall: Stall;

  /** To be made while a component is. */
  constructor(stall: Stall) {
    this.#stall = stall;
    $effect(() => {
      void stall.toSend;
      void stall.head;
      void stall.sync.network;
      const timer = setTimeout(() => void this.ask(), 250);
      return () => clearTimeout(timer);
    });
  }

  async ask(): Promise<void> {
    const asked = await this.#stall.transport.ask('/api/bank', answer);
    if (asked.came === 'answer') {
      const isOurs = asked.answer.business === this.#stall.business.id;
      this.state = isOurs ? { is: 'here' } : { is: 'other business' };
      this.now = isOurs ? asked.answer : null;
      if (this.#stall.toSend === 0) this.isBusy = false;
      return;
    }
    if (asked.came === 'refusal' && asked.refusal.code === 'owner/unknown') {
      this.state = { is: 'sign in' };
      this.now = null;
      return;
    }
    const says =
      asked.came === 'refusal'
        ? asked.refusal.message
        : 'No network now: the bank is worked out from what all devices have sent. Come back with network.';
    this.state = { is: 'away', says };
  }

  /** Older lines that are done with. */
  async older(): Promise<void> {
    const { now } = this;
    const last = now?.done.at(-1);
    if (now === null || last === undefined) return;
    const before = encodeURIComponent(`${last.day} ${last.id}`);
    const asked = await this.#stall.transport.ask(`/api/bank?before=${before}`, answer);
    if (asked.came !== 'answer') return;
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
    const asked = await this.#stall.transport.ask(
      `/api/bank/lines?from=${from}&to=${to}`,
      linesAnswer,
    );
    if (asked.came === 'answer') return asked.answer.lines;
    return asked.came === 'refusal'
      ? asked.refusal.message
      : 'No network now: a file is compared with what is there before anything of it is taken. Try again with network.';
  }

  /** @returns Why not, in words; empty when it is done. */
  async write(
    command: () =>
      | BankOutcome
      | { readonly ok: true; readonly drafts: readonly Draft[] }
      | { readonly ok: false; readonly refusal: AccountRefusal },
    lentBy?: string,
  ): Promise<string> {
    const stall = this.#stall;
    if (this.isBusy) return 'Wait until what was written before has been sent.';
    this.isBusy = true;
    const outcome = await stall.daybook.append(command, lentBy === undefined ? {} : { lentBy });
    await stall.daybook.settle();
    if (outcome.ok) return '';
    this.isBusy = false;
    return outcome.refusal.code === 'slip/gone'
      ? ''
      : bankRefusalWords(outcome.refusal, stall.money);
  }
}
