/** The open slip as the screens see it: changed at once, saved behind, the same in every tab. */
import type { Row, TaxSwap } from '$lib/core/books/tables';
import type { Quote, SlipTax } from '$lib/core/pricing/slip';
import {
  emptySlip,
  putItem,
  putUnlisted,
  quantitiesOn,
  removeLine,
  sayOfLine,
  sayOfSlip,
  setPrice,
  setQuantity,
  withoutFavours,
  type OpenLine,
  type OpenSlip,
  type PutWith,
  type SlipOutcome,
  type SlipRefusal,
} from '$lib/core/slip/open-slip';
import { leftOf } from '$lib/core/sale/take-part';
import { priceSlip } from '$lib/core/slip/price-slip';
import type { DeviceDatabase, KeptSlip } from '$lib/device/database';
import { live } from '$lib/device/live.svelte';
import { newId } from '$lib/device/new-id';
import { readSlip, saveSlip } from '$lib/device/slip-keeper';
import { painted } from '$lib/ui/frame/painted';

export class OpenSlipState {
  #slip = $state.raw<OpenSlip>(emptySlip(newId()));
  #before = $state.raw<OpenSlip | null>(null);
  #revision = 0;
  #saving: Promise<void> | null = null;
  #isChanged = false;
  #isTakenUp = $state(false);
  /** Why the slip as it is shown could not be saved; null while all is well. */
  fault = $state<string | null>(null);
  readonly #row;

  constructor(
    readonly db: DeviceDatabase,
    readonly business: () => Row<'businesses'> | null,
    readonly taxes: () => readonly SlipTax[],
    /** Taxes that the event charges in the place of others. */
    readonly swaps: () => readonly TaxSwap[],
  ) {
    this.#row = live(() => () => readSlip(db), undefined);
    $effect(() => {
      if (!this.#row.isRead) return;
      this.#follow(this.#row.value);
      this.#isTakenUp = true;
    });
  }

  /** Whether the slip that the device kept, if any, is the one that is shown. */
  get isRead(): boolean {
    return this.#isTakenUp;
  }
  /** As last saved or read; 0 for one that was never saved. */
  get revision(): number {
    return this.#revision;
  }
  /** Parts of its payment are safe already: what it comes to stays until they are given back. */
  get isPartPaid(): boolean {
    return (this.#slip.paid ?? []).length > 0;
  }
  get current(): OpenSlip {
    return this.#slip;
  }
  get isEmpty(): boolean {
    return this.#slip.lines.length === 0;
  }
  readonly onSlip: ReadonlyMap<string, number> = $derived.by(() => quantitiesOn(this.#slip));
  readonly quote: Quote | null = $derived.by(() => {
    const business = this.business();
    return business === null ? null : priceSlip(this.#slip, business, this.taxes(), this.swaps());
  });
  /** Minor units of what is owed that are still to pay. */
  get left(): number {
    return this.quote === null ? 0 : leftOf(this.quote, this.#slip);
  }
  /** The line that was taken off last, as long as it can come back. */
  get takenOff(): OpenLine | null {
    const left = new Set(this.#slip.lines.map(({ key }) => key));
    return this.#before?.lines.find(({ key }) => !left.has(key)) ?? null;
  }

  put(item: Row<'items'>, quantity: number, said: PutWith = {}): SlipRefusal | null {
    return this.#take(putItem(this.#slip, item, quantity, newId(), said));
  }
  putUnlisted(line: Parameters<typeof putUnlisted>[1]): SlipRefusal | null {
    return this.#take(putUnlisted(this.#slip, line, newId()));
  }
  setQuantity(key: string, quantity: number): SlipRefusal | null {
    return this.#take(setQuantity(this.#slip, key, quantity));
  }
  remove(key: string): SlipRefusal | null {
    const before = this.#slip;
    const refusal = this.#take(removeLine(this.#slip, key));
    if (refusal === null) this.#before = before;
    return refusal;
  }
  setPrice(key: string, price: number, reason: string): SlipRefusal | null {
    return this.#take(setPrice(this.#slip, key, price, reason));
  }
  sayOfLine(key: string, said: Parameters<typeof sayOfLine>[2]): SlipRefusal | null {
    return this.#take(sayOfLine(this.#slip, key, said));
  }
  say(said: Parameters<typeof sayOfSlip>[1]): SlipRefusal | null {
    return this.#take({ ok: true, slip: sayOfSlip(this.#slip, said) });
  }
  /** As it would be without what somebody must lend a right for. */
  takeFavoursBack(): void {
    this.#take({ ok: true, slip: withoutFavours(this.#slip) });
  }
  /** Takes everything off; what was on it can come back. */
  empty(): void {
    if (this.isPartPaid) return;
    const before = this.#slip;
    this.#set({ ...emptySlip(before.id), ...(before.kept ? { kept: before.kept } : {}) });
    this.#before = before;
  }
  /** Goes on with a slip that was kept, in the place of one that is empty or gone. */
  goOnWith(slip: OpenSlip): void {
    this.#revision = 0;
    this.#set(slip);
  }
  undo(): void {
    if (this.#before === null) return;
    this.#set(this.#before);
  }

  /** Waits until what is shown is on disk. */
  async saved(): Promise<void> {
    while (this.#saving !== null) await this.#saving;
  }

  /** The slip as an append left it on disk: nothing more is to be saved. */
  leftAs(slip: OpenSlip, revision: number): void {
    this.#slip = slip;
    this.#before = null;
    this.#revision = revision;
  }

  /** The slip has been rung up: its row is gone, the next one begins. */
  startAfresh(): void {
    this.#slip = emptySlip(newId());
    this.#before = null;
    this.#revision = 0;
  }

  #take(outcome: SlipOutcome): SlipRefusal | null {
    if (!outcome.ok) return outcome.refusal;
    if (this.isPartPaid && !this.#comesToTheSame(outcome.slip)) return { code: 'slip/part-paid' };
    this.#set(outcome.slip);
    return null;
  }

  #comesToTheSame(slip: OpenSlip): boolean {
    const business = this.business();
    if (business === null) return false;
    const before = this.quote;
    const now = priceSlip(slip, business, this.taxes(), this.swaps());
    return (
      now.cash.total === before?.cash.total &&
      now.card.total === before.card.total &&
      slip.isUpliftWaived === this.#slip.isUpliftWaived
    );
  }

  #set(slip: OpenSlip): void {
    this.#slip = slip;
    this.#before = null;
    this.#isChanged = true;
    this.#saving ??= this.#saveAll();
  }

  async #saveAll(): Promise<void> {
    try {
      await painted();
      while (this.#isChanged) {
        this.#isChanged = false;
        const saved = await saveSlip(this.db, this.#slip, this.#revision);
        if (saved.kept) this.#revision = saved.revision;
        else this.#adopt(saved.current);
      }
      this.fault = null;
    } catch (error) {
      this.fault = `the device would not keep it (${error instanceof Error ? error.name : String(error)}).`;
    } finally {
      this.#saving = null;
    }
  }

  /** Takes over what another tab did; our own saves come back with a revision we know. */
  #follow(row: KeptSlip | undefined): void {
    if (this.#saving !== null) return;
    const isNews =
      row === undefined
        ? this.#revision > 0
        : row.id !== this.#slip.id || row.revision > this.#revision;
    if (isNews) this.#adopt(row);
  }

  #adopt(row: KeptSlip | undefined): void {
    if (row === undefined) {
      this.startAfresh();
      return;
    }
    const { revision, ...slip } = row;
    this.#slip = slip;
    this.#before = null;
    this.#revision = revision;
  }
}
