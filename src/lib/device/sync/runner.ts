/** Does what the state machine says: reads the daybook, asks the server, notes the answers. */
import { MOST_PUSHED, PUSH_BYTES } from '../../core/daybook/sync-messages';
import type { Entry } from '../../core/daybook/entry';
import { ownEntriesAfter } from '../daybook';
import type { DeviceDatabase, KeptRow } from '../database';
import { NO_STANDING, receive } from '../receive';
import { atStart, resume, step, type SyncAction, type SyncEvent, type SyncState } from './state';
import type { Asked, Transport } from './transport';

export class SyncRunner {
  #state: SyncState | null = null;
  #timer: ReturnType<typeof setInterval> | undefined;
  #isEnded = false;

  constructor(
    readonly db: DeviceDatabase,
    readonly transport: Transport,
    readonly own: string,
    /** Hears of every new state. */
    readonly onState: (state: SyncState) => void,
  ) {}

  /** Starts, and goes on until `end`. */
  async start(): Promise<void> {
    const head = await this.db.read('head');
    const standing = (await this.db.read('standing')) ?? NO_STANDING;
    this.#state = atStart(head?.seq ?? 0, standing.sent, standing.position);
    this.#timer = setInterval(() => this.hear({ type: 'tick', now: Date.now() }), 500);
    this.hear({ type: 'wake', now: Date.now() });
  }

  end(): void {
    this.#isEnded = true;
    clearInterval(this.#timer);
  }

  hear(event: SyncEvent): void {
    if (this.#state === null || this.#isEnded) return;
    this.#take(step(this.#state, event));
  }

  /** Somebody asks to try again after a pause. */
  tryAgain(): void {
    if (this.#state !== null) this.#take(resume(this.#state, Date.now()));
  }

  #take({ state, action }: ReturnType<typeof step>): void {
    this.#state = state;
    this.onState(state);
    if (action === null) return;
    this.#do(action).then(
      async (event) => {
        await this.#lookAtHead();
        this.hear(event);
      },
      // The device's own database failed: as good as no answer, and nothing was noted.
      () => this.hear({ type: 'unanswered', now: Date.now(), chance: Math.random() }),
    );
  }

  #do(action: SyncAction): Promise<SyncEvent> {
    return action.do === 'push' ? this.#push(action.after) : this.#pull(action.after);
  }

  /** What was sent may have been written so lately that nobody has said so yet. */
  async #lookAtHead(): Promise<void> {
    const head = (await this.db.read('head'))?.seq ?? 0;
    if (this.#state !== null && head > this.#state.head) this.#state = { ...this.#state, head };
  }

  async #push(after: number): Promise<SyncEvent> {
    const batch = await this.#batchAfter(after);
    const asked = await this.transport.push(batch);
    const turnedAway = turnedAwayBy(asked);
    if (turnedAway !== null || asked.came === 'nothing') return turnedAway ?? unanswered();
    if (asked.came === 'refusal') {
      const refused = { seq: after + 1, ...asked.refusal };
      return { type: 'pushed', have: after, refused, now: Date.now() };
    }
    const { have, refused, kept } = asked.answer;
    const stamps = new Map(batch.map(({ id, stamp }) => [id, stamp]));
    const rows = kept.map((each): KeptRow => {
      return { ...each, where: 'server', stamp: stamps.get(each.id) ?? '', entry: null };
    });
    await this.db.transaction('rw', [this.db.meta, this.db.kept], async () => {
      const standing = (await this.db.read('standing')) ?? NO_STANDING;
      await Promise.all([
        this.db.write('standing', { ...standing, sent: have }),
        this.db.kept.bulkPut(rows),
      ]);
    });
    return { type: 'pushed', have, refused, now: Date.now() };
  }

  async #pull(after: number): Promise<SyncEvent> {
    const head = (await this.db.read('head'))?.seq ?? 0;
    const asked = await this.transport.pull(after, head);
    const turnedAway = turnedAwayBy(asked);
    if (turnedAway !== null || asked.came !== 'answer') return turnedAway ?? unanswered();
    const { entries, position, latest, have } = asked.answer;
    const wasSetBack = latest < after;
    const known = (await this.db.read('standing')) ?? NO_STANDING;
    if (wasSetBack) await this.db.write('standing', { ...known, position: 0, sent: have });
    else if (entries.length > 0 || position !== known.position || have !== known.sent) {
      await receive(this.db, this.own, { entries, position }, Date.now());
      await this.#noteSent(have);
    }
    return { type: 'pulled', position, latest, have, now: Date.now() };
  }

  async #noteSent(have: number): Promise<void> {
    await this.db.transaction('rw', this.db.meta, async () => {
      const standing = (await this.db.read('standing')) ?? NO_STANDING;
      if (standing.sent !== have) await this.db.write('standing', { ...standing, sent: have });
    });
  }

  /** The next own entries, as many as one push takes. */
  async #batchAfter(after: number): Promise<Entry[]> {
    const next = (await ownEntriesAfter(this.db, after, MOST_PUSHED)).slice(0, MOST_PUSHED);
    const batch: Entry[] = [];
    let bytes = 0;
    for (const entry of next) {
      bytes += JSON.stringify(entry).length;
      if (batch.length > 0 && bytes > PUSH_BYTES) break;
      batch.push(entry);
    }
    return batch;
  }
}

const unanswered = (): SyncEvent => ({
  type: 'unanswered',
  now: Date.now(),
  chance: Math.random(),
});

function turnedAwayBy(asked: Asked<unknown>): SyncEvent | null {
  if (asked.came !== 'refusal') return null;
  if (asked.status === 401 && asked.refusal.code === 'device/unknown')
    return { type: 'turned away', why: 'not enrolled' };
  if (asked.status === 403 && asked.refusal.code === 'device/shut-out')
    return { type: 'turned away', why: 'shut out' };
  return null;
}
