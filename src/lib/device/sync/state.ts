/**
 * Sending and receiving, as a state machine without a network, a clock or chance of its own.
 *
 *              appended / wake / look again
 *     ┌─────┐ ─────────────────────────────▶ ┌─────────┐  all sent   ┌─────────┐
 *     │ idle│                                 │ pushing │ ──────────▶ │ pulling │
 *     └─────┘ ◀── nothing more to pull ────── └─────────┘             └─────────┘
 *        ▲                                        │ no answer │            │
 *        └── time is up ── ┌─────────┐ ◀──────────┴───────────┴────────────┘
 *                          │ waiting │   longer after each failure
 *                          └─────────┘
 *
 * Any reason in `pauses` keeps it idle until the reason is gone. Nothing here decides what an
 * entry is worth: what was refused stays in the daybook and is shown.
 */

/** What the server would not take, from `seq` on, and why. */
export interface SyncRefusal {
  readonly seq: number;
  readonly code: string;
  readonly message: string;
}

export type Pause =
  /** The server does not know this device, or has shut it out. */
  | 'not enrolled'
  | 'shut out'
  /** The server refused an entry; sending more would not help. */
  | 'refused'
  /** The server has more of this device than the device has itself: there is a copy. */
  | 'copied';

export interface SyncState {
  readonly doing: 'idle' | 'pushing' | 'pulling' | 'waiting';
  /** Last own `seq`, and the last the server has said it has. */
  readonly head: number;
  readonly sent: number;
  readonly position: number;
  /** Whether the server answered when it was last asked. */
  readonly network: 'unknown' | 'there' | 'gone';
  /** Failures in a row. */
  readonly failures: number;
  /** Milliseconds since 1970 at which to look again. */
  readonly lookAt: number;
  readonly pauses: ReadonlySet<Pause>;
  readonly refusal: SyncRefusal | null;
}

export type SyncEvent =
  | { readonly type: 'appended'; readonly head: number; readonly now: number }
  /** Time has passed. */
  | { readonly type: 'tick'; readonly now: number }
  /** A good moment to look at once: the page is shown, the system says there is a network. */
  | { readonly type: 'wake'; readonly now: number }
  | {
      readonly type: 'pushed';
      readonly have: number;
      readonly refused: SyncRefusal | null;
      readonly now: number;
    }
  | {
      readonly type: 'pulled';
      readonly position: number;
      readonly latest: number;
      readonly have: number;
      /** The server has another entry under the number of this device's last one. */
      readonly isCopy?: boolean;
      /** The server was set back, or a number was missing: all of it is to be looked at again. */
      readonly looksAgain?: boolean;
      readonly now: number;
    }
  | {
      readonly type: 'unanswered';
      readonly now: number;
      /** From 0 up to 1. */ readonly chance: number;
    }
  | { readonly type: 'turned away'; readonly why: 'not enrolled' | 'shut out' };

export type SyncAction =
  | { readonly do: 'push'; /** Send what comes after this `seq`. */ readonly after: number }
  | { readonly do: 'pull'; /** Ask for what comes after this position. */ readonly after: number };

export interface Step {
  readonly state: SyncState;
  readonly action: SyncAction | null;
}

/** Milliseconds between looks while all is well. */
export const LOOK_EVERY = 3000;
export const FIRST_WAIT = 1000;
export const LONGEST_WAIT = 15_000;

export const atStart = (head: number, sent: number, position: number): SyncState => ({
  doing: 'idle',
  head,
  sent,
  position,
  network: 'unknown',
  failures: 0,
  lookAt: 0,
  pauses: new Set(),
  refusal: null,
});

export const toSend = ({ head, sent }: Pick<SyncState, 'head' | 'sent'>): number =>
  Math.max(0, head - sent);

/** What happens next. Pure: the same state and event always give the same step. */
export function step(state: SyncState, event: SyncEvent): Step {
  switch (event.type) {
    case 'appended': {
      const now = { ...state, head: Math.max(state.head, event.head) };
      // With no network, each sale does not try again: the wait goes on as it is.
      return now.doing === 'idle' ? begin(now) : stay(now);
    }
    case 'tick': {
      const isTime = event.now >= state.lookAt;
      const isResting = state.doing === 'idle' || state.doing === 'waiting';
      return isTime && isResting ? begin(state) : stay(state);
    }
    case 'wake': {
      const isBusy = state.doing === 'pushing' || state.doing === 'pulling';
      return isBusy ? stay(state) : begin({ ...state, failures: 0 });
    }
    case 'pushed':
      return pushed(state, event);
    case 'pulled':
      return pulled(state, event);
    case 'unanswered': {
      const failures = state.failures + 1;
      const longest = Math.min(LONGEST_WAIT, FIRST_WAIT * 2 ** Math.min(failures - 1, 10));
      const lookAt = event.now + Math.round(longest * (0.5 + event.chance / 2));
      return stay({ ...state, doing: 'waiting', network: 'gone', failures, lookAt });
    }
    case 'turned away':
      return stay({
        ...state,
        doing: 'idle',
        network: 'there',
        pauses: new Set([...state.pauses, event.why]),
      });
  }
}

/** Forgets why it paused, and tries again; for when somebody asks for it. */
export const resume = (state: SyncState, now: number): Step =>
  step({ ...state, pauses: new Set(), refusal: null }, { type: 'wake', now });

const stay = (state: SyncState): Step => ({ state, action: null });

function begin(state: SyncState): Step {
  if (state.pauses.has('not enrolled') || state.pauses.has('shut out')) {
    return stay({ ...state, doing: 'idle' });
  }
  const canPush = !state.pauses.has('refused') && !state.pauses.has('copied');
  if (canPush && toSend(state) > 0) {
    return { state: { ...state, doing: 'pushing' }, action: { do: 'push', after: state.sent } };
  }
  return { state: { ...state, doing: 'pulling' }, action: { do: 'pull', after: state.position } };
}

function pushed(
  state: SyncState,
  { have, refused, now }: Extract<SyncEvent, { type: 'pushed' }>,
): Step {
  const answered = { ...state, sent: have, ...answeredAt(now) };
  // A gap is only the server having less than was thought: it has said from where to send.
  const isGap = refused?.code === 'chain/gap' && have < state.sent;
  if (refused !== null && !isGap) {
    return begin({ ...answered, refusal: refused, pauses: new Set([...state.pauses, 'refused']) });
  }
  return begin(answered);
}

function pulled(state: SyncState, event: Extract<SyncEvent, { type: 'pulled' }>): Step {
  const { position, latest, have, now } = event;
  const answered: SyncState = { ...state, ...answeredAt(now), sent: have, doing: 'idle' };
  if (have > state.head || event.isCopy === true) {
    return stay({ ...answered, sent: state.head, pauses: new Set([...state.pauses, 'copied']) });
  }
  // The server was set back to an earlier day: look at all of it; what is known is passed over.
  if (latest < state.position || event.looksAgain === true)
    return begin({ ...answered, position: 0 });
  const onward = { ...answered, position };
  const isMore = position < latest || (toSend(onward) > 0 && onward.pauses.size === 0);
  return isMore ? begin(onward) : stay(onward);
}

const answeredAt = (now: number) =>
  ({ network: 'there', failures: 0, lookAt: now + LOOK_EVERY }) as const;
