/** Does what the state machine says: reads the daybook, asks the server, notes the answers. */
import type { PullAnswer } from '../../core/daybook/sync-messages';
import type { DeviceDatabase, KeptRow, Standing } from '../database';
import { prune } from '../prune';
import { putRight } from '../put-right';
import { MissingEntryError, NO_STANDING, receive } from '../receive';
import { restamp } from '../restamp';
import { fetchPhotos } from './photos';
import { portionAfter } from './portion';
import { atStart, resume, step, type SyncAction, type SyncEvent, type SyncState } from './state';
import type { Asked, Transport } from './transport';

export class SyncRunner {
  #state: SyncState | null = null;
  #timer: ReturnType<typeof setInterval> | undefined;
  #isEnded = false;
  #prunedAt = 0;

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
    const batch = await portionAfter(this.db, after, this.transport.portion);
    const asked = await this.transport.push(batch);
    const turnedAway = turnedAwayBy(asked);
    if (turnedAway !== null || asked.came === 'nothing') return turnedAway ?? unanswered();
    if (asked.came === 'refusal') {
      const refused = { seq: after + 1, ...asked.refusal };
      return { type: 'pushed', have: after, refused, now: Date.now() };
    }
    const { have, refused, kept, held, now } = asked.answer;
    const stamps = new Map(batch.map(({ id, stamp }) => [id, stamp]));
    const rows = kept.map((each): KeptRow => {
      return { ...each, where: 'server', stamp: stamps.get(each.id) ?? '', entry: null };
    });
    const touched = held.length === 0 ? [this.db.meta, this.db.kept] : this.db.tables;
    await this.db.transaction('rw', touched, async () => {
      const standing = (await this.db.read('standing')) ?? NO_STANDING;
      await Promise.all([
        this.db.write('standing', { ...standing, sent: have, ...heard(now) }),
        this.db.kept.bulkPut(rows),
      ]);
      await restamp(this.db, batch, held);
    });
    return { type: 'pushed', have, refused, now: Date.now() };
  }

  async #pull(after: number): Promise<SyncEvent> {
    const own = await this.db.read('head');
    const known = (await this.db.read('standing')) ?? NO_STANDING;
    const mark = known.position === after ? (known.mark ?? '') : '';
    const asked = await this.transport.pull(after, own?.seq ?? 0, own?.hash ?? '', mark);
    const turnedAway = turnedAwayBy(asked);
    if (turnedAway !== null || asked.came !== 'answer') return turnedAway ?? unanswered();
    const { position, latest, have, isCopy } = asked.answer;
    const looksAgain = asked.answer.isSetBack || !(await this.#takeIn(asked.answer, known));
    await this.#noteHeard(asked.answer, looksAgain);
    // What comes behind must not hide what was heard.
    await this.#catchUp(!looksAgain && position >= latest).catch((error: unknown) =>
      console.error('it is caught up with later:', error),
    );
    return { type: 'pulled', position, latest, have, isCopy, looksAgain, now: Date.now() };
  }

  /** @returns False if a number is missing, so that all must be looked through again. */
  async #takeIn(
    { entries, position, mark, passed }: PullAnswer,
    known: Standing,
  ): Promise<boolean> {
    if (entries.length === 0 && position === known.position && mark === known.mark) return true;
    const arrival = { entries, position, mark, passed };
    // Once an hour at most: what the server itself does not have cannot be waited for.
    const isStrict = Date.now() > (known.lookedAt ?? 0) + LOOKED_AGAIN_AFTER;
    try {
      await receive(this.db, this.own, arrival, isStrict);
      return true;
    } catch (error) {
      if (!(error instanceof MissingEntryError)) throw error;
      console.error('all is looked through again:', error);
      return false;
    }
  }

  /** Written only when there is something to say: each write wakes whoever follows it. */
  async #noteHeard(
    { have, now, shutOut, isSetBack }: PullAnswer,
    looksAgain: boolean,
  ): Promise<void> {
    await this.db.transaction('rw', this.db.meta, async () => {
      const standing = (await this.db.read('standing')) ?? NO_STANDING;
      const said = heard(now);
      const again = {
        position: 0,
        mark: '',
        ...(isSetBack ? {} : { lookedAt: Date.now() }),
      };
      const isNews =
        looksAgain ||
        standing.sent !== have ||
        (standing.shutOut ?? []).join() !== shutOut.join() ||
        Math.abs((standing.ahead ?? 0) - said.ahead) > 5000 ||
        said.heardAt - (standing.heardAt ?? 0) > 60_000;
      if (isNews)
        await this.db.write('standing', {
          ...standing,
          ...(looksAgain ? again : {}),
          sent: have,
          shutOut,
          ...said,
        });
    });
  }

  /** What comes behind all else: undoing what was barred, pictures, letting go of what is past. */
  async #catchUp(isAllHere: boolean): Promise<void> {
    await putRight(this.db, this.transport);
    if (!isAllHere) return;
    await fetchPhotos(this.db, this.transport);
    if (Date.now() < this.#prunedAt + PRUNE_EVERY) return;
    this.#prunedAt = Date.now();
    await prune(this.db, Date.now());
  }
}

const PRUNE_EVERY = 3_600_000;
const LOOKED_AGAIN_AFTER = 3_600_000;

/** @param now The server's clock. */
const heard = (now: number) => ({ ahead: now - Date.now(), heardAt: Date.now() });

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
