/**
 * What the editions before an event left, as the server works it out. Asked once a page and whenever there is network
 * again: what is written here is of this edition.
 */
import { editionsSchema, type EditionResult } from '$lib/core/settle/editions';
import { wrongOf } from '$lib/ui/words/answer-words';
import type { Stall } from '../../../stall.svelte';

export class AskedEditions {
  now = $state.raw<ReadonlyMap<string, EditionResult>>(new Map());
  /** Why there is none, or none that is new. */
  says = $state('');
  readonly #stall: Stall;
  readonly #event: () => string;

  constructor(stall: Stall, event: () => string) {
    this.#stall = stall;
    this.#event = event;
    $effect(() => {
      void stall.network;
      event();
      void this.#ask();
    });
  }

  async #ask(): Promise<void> {
    const id = this.#event();
    const asked = await this.#stall.transport.ask(`/api/events/${id}/editions`, editionsSchema);
    if (id !== this.#event()) return;
    if (asked.came === 'answer') {
      this.now = new Map(asked.answer.editions.map((edition) => [edition.id, edition]));
      this.says = '';
    } else this.says = wrongOf(asked, 'What they left comes with network.');
  }
}
