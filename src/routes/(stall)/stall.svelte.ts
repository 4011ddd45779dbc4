/** What every screen of the stall needs: this device, its business, its event, its slip. */
import { getContext, setContext } from 'svelte';
import { toast } from 'svelte-sonner';
import type { Row } from '$lib/core/books/tables';
import { localTime } from '$lib/core/event/local-time';
import { byDate, eventsNear, isKnown, todaysEvent } from '$lib/core/event/todays-event';
import { saleRights } from '$lib/core/people/judge';
import { inOrder } from '$lib/core/people/in-order';
import { setPin } from '$lib/core/people/set-pin';
import { may, type Right } from '$lib/core/people/rights';
import { waysOpen } from '$lib/core/payment/ways';
import type { SlipTax } from '$lib/core/pricing/slip';
import { taxesInForce } from '$lib/core/slip/price-slip';
import { DeviceDaybook } from '$lib/device/daybook';
import { NO_CHOICES, type Choices, type DeviceDatabase, type Identity } from '$lib/device/database';
import { checkPin, type PinChecked } from '$lib/device/check-pin';
import { live } from '$lib/device/live.svelte';
import { DeviceMirror } from '$lib/device/mirror/mirror';
import { newId, newSalt } from '$lib/device/new-id';
import { hashPin } from '$lib/device/pin-hash';
import type { SyncState } from '$lib/device/sync/state';
import { Transport } from '$lib/device/sync/transport';
import type { Standing } from '$lib/ui/words/sync-words';
import { refusalWords } from '$lib/ui/words/refusal-words';
import { moneyWords } from '$lib/ui/words/money-words';
import { hasFavours, lenderOf } from '$lib/core/slip/open-slip';
import { OpenSlipState } from './open-slip.svelte';

const KEY = Symbol('stall');

/** What was read of the drawers of one event. */
interface DrawersOf {
  readonly event: string | undefined;
  readonly drawers: readonly Row<'drawers'>[];
  readonly reads: readonly Row<'drawerReads'>[];
}
const NO_DRAWERS: DrawersOf = { event: undefined, drawers: [], reads: [] };

export class Stall {
  readonly daybook: DeviceDaybook;
  readonly mirror = new DeviceMirror(() => (this.isLowOnRoom = true));
  /** The browser could not write what it was given to write: room has to be made on this device. */
  isLowOnRoom = $state(false);
  readonly transport: Transport;
  readonly slip: OpenSlipState;
  /** As last said by whichever tab talks to the server. */
  sync = $state.raw<Pick<SyncState, 'network' | 'pauses' | 'refusal'>>({
    network: 'unknown',
    pauses: new Set(),
    refusal: null,
  });
  /** Asks whoever talks to the server to try again. */
  tryAgain: () => void = () => undefined;
  /** Whether the application opens with no network as well; said by whoever looks after its parts. */
  isShellHere: () => boolean = () => false;

  readonly #now = $state({ minute: Date.now() });
  readonly #business;
  readonly #taxes;
  readonly #ways;
  readonly #staff;
  readonly #events;
  readonly #devices;
  readonly #drawers;
  readonly #choices;
  readonly #counts;

  constructor(
    readonly db: DeviceDatabase,
    readonly identity: Identity,
  ) {
    this.daybook = new DeviceDaybook(db, {
      now: () => Date.now(),
      mirror: this.mirror,
      makeRoom: async () => {
        this.isLowOnRoom = true;
        return await this.mirror.giveWay().catch(() => false);
      },
    });
    this.transport = new Transport(identity.token);
    const { books } = db;
    this.#business = live(() => () => books.businesses.get(identity.business), undefined);
    this.#taxes = live(() => () => books.taxes.toArray(), []);
    this.#ways = live(() => () => books.ways.toArray(), []);
    this.#staff = live(() => () => books.staff.toArray(), []);
    this.#events = live(() => () => books.events.toArray(), []);
    this.#devices = live(() => () => books.devices.toArray(), []);
    this.#choices = live<Choices | undefined>(() => () => db.read('choices'), undefined);
    this.#counts = live(
      () => async () => {
        // `applied` is read so that this is looked at again when rows have followed a new head.
        const [head, standing, kept] = await Promise.all([
          db.read('head'),
          db.read('standing'),
          openKept(db),
          db.read('applied'),
        ]);
        const { sent = 0, position = 0 } = standing ?? {};
        return { head: head?.seq ?? 0, sent, position, kept };
      },
      { head: 0, sent: 0, position: 0, kept: 0 },
    );
    this.#drawers = live<DrawersOf>(() => {
      const id = this.event?.id;
      if (id === undefined) return () => NO_DRAWERS;
      return async () => {
        const ofEvent = { event: id };
        const [drawers, reads] = await Promise.all([
          books.drawers.where(ofEvent).sortBy('at'),
          books.drawerReads.where(ofEvent).sortBy('at'),
        ]);
        return { ...ofEvent, drawers, reads };
      };
    }, NO_DRAWERS);
    this.slip = new OpenSlipState(
      db,
      () => this.#business.value ?? null,
      () => this.taxes,
      () => this.event?.swaps ?? [],
      (refusal) => toast.error(refusalWords(refusal, this.money)),
      (names) => toast(`Changed on another device: ${names.join(', ')}. It is on this slip now.`),
    );
    $effect(() => {
      const timer = setInterval(() => (this.#now.minute = Date.now()), 30_000);
      return () => clearInterval(timer);
    });
  }

  #wasReady = false;
  /** Whether enough has been read to show any screen; once it has it stays so. */
  readonly isReady: boolean = $derived.by(
    () =>
      (this.#wasReady ||=
        this.#business.isRead &&
        this.#staff.isRead &&
        this.#events.isRead &&
        this.#choices.isRead &&
        this.#devices.isRead &&
        this.slip.isRead &&
        this.#drawers.isRead &&
        this.#drawers.value.event === this.event?.id),
  );
  get business(): Row<'businesses'> {
    // Of one of which only the lock has arrived nothing else is known.
    return this.#business.value?.setStamp ? this.#business.value : NO_BUSINESS;
  }
  readonly money = $derived.by(() => moneyWords(this.business));
  readonly taxes: readonly SlipTax[] = $derived.by(() => taxesInForce(this.#taxes.value));
  /** Ways to pay as they were set up. */
  get wayRows(): readonly Row<'ways'>[] {
    return this.#ways.value;
  }
  /** The ways that are open at today's event. */
  readonly ways: readonly Row<'ways'>[] = $derived.by(() => waysOpen(this.#ways.value, this.event));
  get staff(): readonly Row<'staff'>[] {
    return this.everybody.filter(({ isActive }) => isActive);
  }
  /** Also those who have left. */
  readonly everybody: readonly Row<'staff'>[] = $derived.by(() =>
    inOrder(this.#staff.value.filter(isKnown)),
  );
  get devices(): readonly Row<'devices'>[] {
    return this.#devices.value;
  }
  readonly events: readonly Row<'events'>[] = $derived.by(() => byDate(this.#events.value));
  /** This device as an owner named it, and what they gave it. */
  readonly given: Row<'devices'> | undefined = $derived.by(() =>
    this.#devices.value.find(({ id }) => id === this.identity.device),
  );
  /** The event that is on today. */
  readonly event: Row<'events'> | undefined = $derived.by(() =>
    todaysEvent(this.#events.value, this.#now.minute, this.given?.event, this.choices.event),
  );
  /** Others that somebody may be at, if the calendar is wrong, or the clock is. */
  readonly eventsNear: readonly Row<'events'>[] = $derived.by(() =>
    eventsNear(this.#events.value, this.#now.minute).filter(({ id }) => id !== this.event?.id),
  );
  /** Whether somebody chose the event by hand. */
  readonly isChosenByHand: boolean = $derived.by(
    () => this.choices.event?.id !== undefined && this.choices.event.id === this.event?.id,
  );
  /** Sells at this event for the day of the device's clock; null is as the calendar has it. */
  async chooseEvent(event: Row<'events'> | null): Promise<void> {
    const chosen =
      event === null ? null : { id: event.id, day: localTime(Date.now(), event.timeZone).day };
    await this.choose({ event: chosen });
  }
  get today(): string {
    return localTime(this.#now.minute, this.business.timeZone).day;
  }
  get choices(): Choices {
    return this.#choices.value ?? NO_CHOICES;
  }
  readonly seller: Row<'staff'> | undefined = $derived.by(() =>
    this.#staff.value.find(({ id }) => id === this.choices.by),
  );

  readonly #todays: DrawersOf = $derived.by(() =>
    this.#drawers.value.event === this.event?.id ? this.#drawers.value : NO_DRAWERS,
  );
  /** Drawers of today's event, oldest first. */
  get drawers(): readonly Row<'drawers'>[] {
    return this.#todays.drawers;
  }
  get reads(): readonly Row<'drawerReads'>[] {
    return this.#todays.reads;
  }
  readonly openDrawers: readonly Row<'drawers'>[] = $derived.by(() =>
    this.drawers.filter(({ id }) => !this.reads.some((read) => read.drawer === id)),
  );
  /** The drawer that this device uses now. */
  readonly drawer: Row<'drawers'> | undefined = $derived.by(() => {
    const event = this.event?.id;
    if (event === undefined) return undefined;
    const chosen = this.openDrawers.find(({ id }) => id === this.choices.drawers[event]);
    return chosen ?? this.openDrawers.find(({ id }) => id === this.given?.drawer);
  });

  // As values: whatever is asked again when they change is not asked when they are only written down again.
  readonly toSend: number = $derived.by(() =>
    Math.max(0, this.#counts.value.head - this.#counts.value.sent),
  );
  readonly head: number = $derived.by(() => this.#counts.value.head);
  /** How far what others wrote has come in. */
  readonly received: number = $derived.by(() => this.#counts.value.position);
  readonly network: SyncState['network'] = $derived.by(() => this.sync.network);
  /** Nobody hears of what is taken here: others may take the same meanwhile. */
  get isOutOfTouch(): boolean {
    return this.network !== 'there';
  }
  get kept(): number {
    return this.#counts.value.kept;
  }
  get standing(): Standing {
    return { network: this.sync.network, toSend: this.toSend, pauses: this.sync.pauses };
  }

  async choose(change: Partial<Choices>): Promise<void> {
    await this.db.transaction('rw', this.db.meta, async () => {
      const now = (await this.db.read('choices')) ?? NO_CHOICES;
      await this.db.write('choices', { ...now, ...change });
    });
  }

  async useDrawer(event: string, drawer: string): Promise<void> {
    await this.choose({ drawers: { ...this.choices.drawers, [event]: drawer } });
  }

  /** Whether whoever is signed in has the right themselves; before anybody is set up, all may. */
  may(right: Right): boolean {
    return this.staff.length === 0 || may(this.seller, right);
  }

  /** Whether what should be in a drawer is shown before it is counted. @param lender Who lent the right to it. */
  seesCash(lender: string | null = null): boolean {
    return !this.business.isBlind && (this.may('cash.expected') || lender !== null);
  }

  /** Rights that the open slip asks for and that neither the seller nor a lender has. */
  readonly slipLacks: readonly Right[] = $derived.by(() => {
    const { current, quote } = this.slip;
    if (this.staff.length === 0 || quote === null || !hasFavours(current)) return [];
    const lentBy = lenderOf(current);
    const lender = this.#staff.value.find(({ id }) => id === lentBy);
    const sold = current.lines.flatMap(({ listPrice, ordered }, at) => {
      const line = quote.cash.lines[at];
      if (line === undefined || ordered !== undefined) return [];
      const { gross, net, standingDiscount: standing } = line;
      return [{ gross, discount: gross - net, standing, listPrice }];
    });
    const asked = [
      ...saleRights(sold, this.seller?.discountUpTo ?? '0', current.isUpliftWaived === true),
    ];
    if ((current.back ?? []).length > 0) asked.push('refund');
    return asked.filter((right) => !may(this.seller, right) && !may(lender, right));
  });

  /** Somebody must say who they are before anything else can be done here. */
  get isLocked(): boolean {
    return this.staff.length > 0 && this.seller?.isActive !== true;
  }

  /** Checks a person's PIN, if they have one; whoever passes begins with `begin`. */
  async signIn(person: Row<'staff'>, pin: string): Promise<PinChecked> {
    return await checkPin(this.db, this.identity.business, person, pin, Date.now());
  }

  /** The person sells from now on. @param pin A PIN that is kept anew in their name; null keeps what there is. */
  async begin(person: Row<'staff'>, pin: string | null): Promise<void> {
    await this.choose({ by: person.id, seenAt: Date.now() });
    if (pin === null) return;
    const hash = await hashPin(pin, this.identity.business, newSalt());
    await this.daybook.append(() => setPin(newId, person.id, hash));
    await this.daybook.settle();
  }

  /** Asks again who is there; the slip stays. */
  async lock(): Promise<void> {
    await this.choose({ by: null });
  }

  nameOf(staff: string | null): string {
    return this.#staff.value.find(({ id }) => id === staff)?.name ?? 'nobody signed in';
  }
}

const NO_BUSINESS: Row<'businesses'> = {
  id: '',
  setStamp: '',
  lockStamp: '',
  name: '',
  currency: 'GBP',
  locale: 'en-GB',
  timeZone: 'UTC',
  pricesIncludeTax: true,
  taxRounding: 'sale',
  cashStep: 1,
  typedSide: 'cash',
  uplift: '0',
  groups: [],
  service: null,
  tips: null,
  carry: null,
  signAbove: null,
  receiptHead: '',
  receiptFoot: '',
  lockAfter: 0,
  isBlind: false,
  recountAbove: null,
  refundMost: null,
  cashStamp: '',
  forgetAfter: 0,
  pointsRule: null,
  pointsStamp: '',
  invoicing: null,
  invoicingStamp: '',
  reminders: [],
  remindersStamp: '',
};

/** Entries that somebody must still look at, as far as this device knows. */
async function openKept(db: DeviceDatabase): Promise<number> {
  const ids = await db.kept.toCollection().primaryKeys();
  if (ids.length === 0) return 0;
  const settled = await db.books.settlements
    .where('looseEnd')
    .anyOf(ids.map((id) => `entry:${id}`))
    .toArray();
  return ids.length - new Set(settled.map(({ looseEnd }) => looseEnd)).size;
}

export const provideStall = (stall: Stall): Stall => setContext(KEY, stall);
export const useStall = (): Stall => getContext<Stall>(KEY);
