/** What was entered or pressed at the counter before it could be done: a scanner does not wait for a page. */
import { onDestroy, untrack } from 'svelte';
import { toast } from 'svelte-sonner';
import { doLate, type Late, type Outcome } from '$lib/core/entry-line/late';

export const quoted = (texts: readonly string[]): string =>
  texts.map((text) => `“${text}”`).join(', ');

export class LateEntries {
  #waiting = $state.raw<readonly Late[]>([]);
  #isCatchingUp = $state(false);
  #isLeft = false;
  #notOnSlip = $state.raw<readonly string[]>([]);
  readonly #isReady;

  /** @param isReady Whether what entries are understood by has been read. Made while its page is. */
  constructor(isReady: () => boolean) {
    this.#isReady = isReady;
    $effect(() => {
      if (this.isWaiting && isReady() && !this.#isCatchingUp) untrack(() => void this.#catchUp());
    });
    onDestroy(() => {
      this.#isLeft = true;
      this.#notOnSlip = [...this.#notOnSlip, ...this.#waiting.flatMap(({ text }) => text ?? [])];
      this.#waiting = [];
      this.#sayWhatIsLeft();
    });
  }

  get isWaiting(): boolean {
    return this.#waiting.length > 0;
  }

  /** Whether what is typed now need not wait. */
  get isAtOnce(): boolean {
    return this.#isReady() && !this.isWaiting && !this.#isCatchingUp;
  }

  /** What was typed and is not done, until the seller says what is to become of it. */
  get notOnSlip(): readonly string[] {
    return this.#notOnSlip;
  }

  add(...late: readonly Late[]): void {
    this.#waiting = [...this.#waiting, ...late];
  }

  /** Does what a key or a button does; behind what is waiting, if anything is. */
  inTurn(does: () => unknown): void {
    const done = (): Outcome => {
      does();
      return 'done';
    };
    if (!this.isWaiting && !this.#isCatchingUp) done();
    else this.add({ text: null, does: done });
  }

  /** The seller has decided about what is not on the slip. @returns What it was. */
  takeNotOnSlip(): readonly string[] {
    const texts = this.#notOnSlip;
    this.#notOnSlip = [];
    return texts;
  }

  async #catchUp(): Promise<void> {
    this.#isCatchingUp = true;
    try {
      const left = await doLate(() => {
        const [next, ...rest] = this.#waiting;
        this.#waiting = rest;
        return next;
      });
      this.#notOnSlip = [...this.#notOnSlip, ...left];
      if (this.#isLeft) this.#sayWhatIsLeft();
    } finally {
      this.#isCatchingUp = false;
    }
  }

  #sayWhatIsLeft(): void {
    const texts = this.takeNotOnSlip();
    if (texts.length > 0)
      toast.error(`Not on the slip: ${quoted(texts)}. You left before that was done.`, {
        duration: 15_000,
      });
  }
}
