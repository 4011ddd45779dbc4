/** What the server works out of what all devices have sent: asked again whenever something was sent or came in. */
import type { Draft } from '$lib/core/daybook/chain';
import type { MoneyWords } from '$lib/ui/words/money-words';
import type { Stall } from './stall.svelte';

/** Entries mostly come several at a time; milliseconds. */
const A_MOMENT = 250;

/** What a command would write, or why it is not done. */
export type Commanded<R> =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: R };

/** What an answer knows of when it was asked for. */
interface AskedAt {
  readonly writes: number;
  readonly toSend: number;
}

export abstract class Asked {
  /** Something was written by this answer that it does not have yet: nothing more is decided by it. */
  isOld = $state(false);
  protected readonly stall: Stall;
  #writes = 0;
  /** An answer is on its way; one more is wanted after it. */
  #isAsking = false;
  #wanted = 0;

  /**
   * To be made while a component is.
   * @param about Reads what else it is asked again for.
   */
  constructor(stall: Stall, about: () => void = () => undefined) {
    this.stall = stall;
    $effect(() => {
      void stall.toSend;
      void stall.received;
      void stall.head;
      void stall.network;
      about();
      const timer = setTimeout(() => void this.#askInTurn(), A_MOMENT);
      return () => clearTimeout(timer);
    });
  }

  abstract ask(): Promise<void>;

  /** One question at a time: the browser has few connections, and what is to be sent needs one. */
  async #askInTurn(): Promise<void> {
    this.#wanted += 1;
    if (this.#isAsking) return;
    this.#isAsking = true;
    try {
      for (let asked = 0; asked !== this.#wanted;) {
        asked = this.#wanted;
        await this.ask();
      }
    } finally {
      this.#isAsking = false;
    }
  }

  /** Before it is asked. */
  protected askedAt(): AskedAt {
    return { writes: this.#writes, toSend: this.stall.toSend };
  }

  /** The answer is there; with all that was written here, if it was asked for after that had been sent. */
  protected heard({ writes, toSend }: AskedAt): void {
    if (toSend === 0 && writes === this.#writes) this.isOld = false;
  }

  /**
   * Writes what was decided by what is shown, once: a second tap waits for the answer that has the first.
   * @returns Why not, in words; empty when it is done.
   */
  async write<R extends { readonly code: string }>(
    command: () => Commanded<R>,
    says: (refusal: R, money: MoneyWords) => string,
    lentBy?: string,
  ): Promise<string> {
    if (this.isOld) return 'Wait until what was written before has been sent.';
    this.isOld = true;
    this.#writes += 1;
    const { daybook, money } = this.stall;
    let isWritten = false;
    try {
      const outcome = await daybook.append(command, lentBy === undefined ? {} : { lentBy });
      isWritten = outcome.ok;
      await daybook.settle();
      // No slip is settled by these.
      if (outcome.ok || outcome.refusal.code === 'slip/gone') return '';
      return says(outcome.refusal as R, money);
    } finally {
      if (!isWritten) this.isOld = false;
    }
  }
}
