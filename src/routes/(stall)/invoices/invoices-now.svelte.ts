/** Invoices as they stand now: of all customers or of one, with what this device let go of once the server has said it. */
import { localTime } from '$lib/core/event/local-time';
import type { InvoiceNow } from '$lib/core/invoice/invoice-state';
import { asked } from '$lib/device/asked.svelte';
import { NONE_OLDER, type OlderMoves } from '$lib/device/held-statement';
import { howTheyStand, invoicesHere, movesBefore, type InvoicesHere } from '$lib/device/invoices';
import { live } from '$lib/device/live.svelte';
import type { NotAnswered } from '$lib/device/sync/ask-server';
import { useStall } from '../stall.svelte';

export class InvoicesNow {
  readonly #stall = useStall();
  readonly #here: { readonly value: InvoicesHere | undefined; readonly isRead: boolean };
  readonly #older: { readonly value: OlderMoves };

  /** To be made while a component is. @param customer Whose; undefined for everybody's, null while it is not known. */
  constructor(customer: () => string | undefined | null) {
    this.#here = live(() => {
      const who = customer();
      return async () => (who === null ? undefined : await invoicesHere(this.#stall.db, who));
    }, undefined);
    this.#older = asked<OlderMoves>(() => {
      const unknown = this.#here.value?.unknown ?? [];
      if (unknown.length === 0) return null;
      return { of: customer() ?? '', ask: () => movesBefore(this.#stall.transport, unknown) };
    }, NONE_OLDER);
  }

  /** The latest first. */
  readonly all: readonly InvoiceNow[] = $derived.by(() => {
    const { timeZone } = this.#stall.business;
    return this.#here.value === undefined
      ? []
      : howTheyStand(
          this.#here.value,
          this.#older.value.moves,
          this.#stall.today,
          (at) => localTime(Date.parse(at), timeZone).day,
        );
  });

  get isRead(): boolean {
    return this.#here.isRead && this.#here.value !== undefined;
  }

  /** Why what was paid longer ago than this device knows is not counted; null where it is. */
  get away(): NotAnswered | null {
    return this.#older.value.away;
  }
}
