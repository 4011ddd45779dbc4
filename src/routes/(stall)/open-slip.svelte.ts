/** The open slip as the screens see it: changed at once, saved behind, the same in every tab. */
import { untrack } from 'svelte';
import type { Row, TaxSwap } from '$lib/core/books/tables';
import type { Quote, SlipTax } from '$lib/core/pricing/slip';
import {
  emptySlip,
  isBlank,
  putBackOn,
  putItem,
  isPaidAsTheirs,
  putPaidIn,
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
  type SlipRefusal,
} from '$lib/core/slip/open-slip';
import {
  bringBackOn,
  leaveOut,
  overOf,
  type BringBack,
  type BringBackRefusal,
} from '$lib/core/sale/exchange';
import { leftOf } from '$lib/core/sale/take-part';
import { joinLines } from '$lib/core/set-aside/join-lines';
import { priceSlip } from '$lib/core/slip/price-slip';
import type { DeviceDatabase } from '$lib/device/database';
import { live } from '$lib/device/live.svelte';
import { newId } from '$lib/device/new-id';
import {
  SlipQueue,
  type Acted,
  type ActOutcome,
  type Change,
  type SavedSlip,
} from '$lib/device/slip-queue';
import { painted } from '$lib/ui/frame/painted';
import { faultWords } from '$lib/ui/words/fault-words';

export class OpenSlipState {
  readonly queue: SlipQueue;
  #slip = $state.raw<OpenSlip>(emptySlip(''));
  #before = $state.raw<OpenSlip | null>(null);
  #isTakenUp = $state(false);
  /** Why the slip as it is shown could not be saved; null while all is well. */
  fault = $state<string | null>(null);
  readonly #row;
  /** Lines of a kept slip as they are on the list now. */
  readonly #onList;

  constructor(
    readonly db: DeviceDatabase,
    readonly business: () => Row<'businesses'> | null,
    readonly taxes: () => readonly SlipTax[],
    /** Taxes that the event charges in the place of others. */
    readonly swaps: () => readonly TaxSwap[],
    /** Says what could not be put on after all. */
    onRefused: (refusal: SlipRefusal) => void,
    /** Says what others have put on it. */
    onJoined: (names: readonly string[]) => void,
  ) {
    this.queue = new SlipQueue(db, {
      newId,
      seen: painted,
      forbids: (before, after) => this.#forbids(before, after),
      onShown: (slip) => this.#show(slip),
      onRefused,
      onFault: (error) => {
        this.fault = error === null ? null : `${faultWords(error)}.`;
      },
    });
    this.#slip = this.queue.shown;
    // Read again also after a sale has taken it away.
    this.#row = live(
      () => async () => (await Promise.all([db.read('slip'), db.read('applied')]))[0],
      undefined,
    );
    this.#onList = live(() => {
      const { id, kept } = this.#slip;
      return () =>
        kept === undefined ? [] : db.books.slipLines.where('slip').equals(id).toArray();
    }, []);
    $effect(() => this.#joinOthers(this.#onList.value, onJoined));
    $effect(() => {
      if (!this.#row.isRead) return;
      this.queue.follow(this.#row.value).then(
        () => (this.#isTakenUp = true),
        () => (this.#isTakenUp = true), // Why, is said already.
      );
    });
  }

  /** Whether the slip that the device kept, if any, is the one that is shown. */
  get isRead(): boolean {
    return this.#isTakenUp;
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
    const key = newId();
    return this.#change((slip) => putItem(slip, item, quantity, key, said));
  }
  putUnlisted(line: Parameters<typeof putUnlisted>[1]): SlipRefusal | null {
    const key = newId();
    return this.#change((slip) => putUnlisted(slip, line, key));
  }
  putPaidIn(paid: Parameters<typeof putPaidIn>[1]): SlipRefusal | null {
    const key = newId();
    return this.#change((slip) => putPaidIn(slip, paid, key));
  }
  /** An order that is handed over takes the place of a slip with nothing on it. */
  takeOrder(order: OpenSlip): SlipRefusal | null {
    return this.#change((slip) =>
      isBlank(slip)
        ? { ok: true, slip: { ...order, id: slip.id } }
        : { ok: false, refusal: { code: 'slip/not-blank' } },
    );
  }
  setQuantity(key: string, quantity: number): SlipRefusal | null {
    return this.#change((slip) => setQuantity(slip, key, quantity));
  }
  remove(key: string): SlipRefusal | null {
    const before = this.#slip;
    const refusal = this.#change((slip) => removeLine(slip, key));
    if (refusal === null) this.#before = before;
    return refusal;
  }
  setPrice(key: string, price: number, reason: string): SlipRefusal | null {
    return this.#change((slip) => setPrice(slip, key, price, reason));
  }
  sayOfLine(key: string, said: Parameters<typeof sayOfLine>[2]): SlipRefusal | null {
    return this.#change((slip) => sayOfLine(slip, key, said));
  }
  say(said: Parameters<typeof sayOfSlip>[1]): SlipRefusal | null {
    return this.#change((slip) => ({ ok: true, slip: sayOfSlip(slip, said) }));
  }
  /** Puts what comes back of an earlier sale on it. */
  bringBack(what: Omit<BringBack, 'slip'>): BringBackRefusal | null {
    const tried = bringBackOn({ ...what, slip: this.#slip });
    if (!tried.ok) return tried.refusal;
    const refused = this.#change((slip) => {
      const made = bringBackOn({ ...what, slip });
      return made.ok ? made : { ok: false, refusal: { code: 'exchange/already' } };
    });
    return refused === null ? null : { code: 'slip/part-paid' };
  }
  /** It stays with the customer after all. */
  leaveOut(sale: string): void {
    this.#change((slip) => ({ ok: true, slip: leaveOut(slip, sale) }));
  }
  /** What is to be given back beyond what it comes to. Minor units. */
  get over(): number {
    return this.quote === null ? 0 : overOf(this.quote.cash.total, this.#slip);
  }
  /** As it would be without what somebody must lend a right for. */
  takeFavoursBack(): void {
    this.#change((slip) => ({ ok: true, slip: withoutFavours(slip) }));
  }
  /** Takes everything off; what was on it can come back. */
  empty(): void {
    if (this.isPartPaid) return;
    const before = this.#slip;
    this.#change(({ id, kept }) => ({
      ok: true,
      slip: { ...emptySlip(id), ...(kept ? { kept } : {}) },
    }));
    this.#before = before;
  }
  undo(): void {
    const before = this.#before;
    if (before !== null) this.#change((slip) => ({ ok: true, slip: putBackOn(slip, before) }));
  }

  /** Waits until what is shown is on disk. */
  async saved(): Promise<void> {
    await this.queue.saved();
  }

  /** Does something with the slip as it is shown now, after all that was asked for before. */
  async act<T>(run: (open: SavedSlip) => Promise<Acted<T>>): Promise<ActOutcome<T>> {
    return await this.queue.act(run);
  }

  #change(change: Change): SlipRefusal | null {
    const refusal = this.queue.change(change);
    if (refusal === null) this.#before = null;
    return refusal;
  }

  /** What others put on it while it is in hand here is on it, and said; once a part is paid it stays as it is. */
  #joinOthers(
    rows: readonly Row<'slipLines'>[],
    onJoined: (names: readonly string[]) => void,
  ): void {
    const slip = this.#slip;
    const isOfIt = rows.every((row) => row.slip === slip.id);
    if (slip.kept === undefined || !isOfIt || (slip.paid ?? []).length > 0) return;
    const { names } = joinLines(slip, rows);
    if (names.length === 0) return;
    untrack(() => this.#change((now) => ({ ok: true, slip: joinLines(now, rows).slip })));
    onJoined(names);
  }

  #show(slip: OpenSlip): void {
    if (slip.id !== this.#slip.id) this.#before = null;
    this.#slip = slip;
  }

  /** A slip that is paid in part comes to what it came to, until the parts are given back. */
  #forbids(before: OpenSlip, after: OpenSlip): SlipRefusal | null {
    if ((before.paid ?? []).length === 0) return null;
    if (before.back !== after.back) return { code: 'slip/part-paid' };
    if (isPaidAsTheirs(before) && before.customer?.id !== after.customer?.id)
      return { code: 'slip/part-paid' };
    const business = this.business();
    if (business === null) return { code: 'slip/part-paid' };
    const [was, now] = [before, after].map((slip) =>
      priceSlip(slip, business, this.taxes(), this.swaps()),
    );
    const isSame =
      now!.cash.total === was!.cash.total &&
      now!.card.total === was!.card.total &&
      before.isUpliftWaived === after.isUpliftWaived;
    return isSame ? null : { code: 'slip/part-paid' };
  }
}
