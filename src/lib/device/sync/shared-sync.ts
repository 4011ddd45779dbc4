/** One tab talks to the server for all of them; the others hear how it stands. */
import type { DeviceDatabase } from '../database';
import { SyncRunner } from './runner';
import type { SyncState } from './state';
import { follow } from '../follow';
import type { Transport } from './transport';

/** What every tab wants to know. */
export type SharedState = Pick<SyncState, 'network' | 'pauses' | 'refusal'>;

type Message = { readonly is: 'state'; readonly state: SharedState } | { readonly is: 'try again' };

export interface SharedSync {
  readonly tryAgain: () => void;
  readonly end: () => void;
}

export function shareSync(
  db: DeviceDatabase,
  transport: Transport,
  own: string,
  onState: (state: SharedState) => void,
): SharedSync {
  const channel = new BroadcastChannel('stall-till-sync');
  const ended = new AbortController();
  let runner: SyncRunner | null = null;
  let said = '';

  const tell = ({ network, pauses, refusal }: SyncState): void => {
    const state: SharedState = { network, pauses, refusal };
    // What is the same as before is not said again: whatever follows from it would be asked for twice a second.
    const saying = JSON.stringify([network, [...pauses], refusal]);
    if (saying === said) return;
    said = saying;
    onState(state);
    channel.postMessage({ is: 'state', state } satisfies Message);
  };
  channel.onmessage = ({ data }: MessageEvent<Message>) => {
    if (data.is === 'try again') runner?.tryAgain();
    else if (runner === null) onState(data.state);
  };

  const lead = async (): Promise<void> => {
    if (ended.signal.aborted) return;
    const leading = new SyncRunner(db, transport, own, tell);
    runner = leading;
    const following = follow(
      async () => (await Promise.all([db.read('head'), db.read('applied')]))[0],
      (head) => {
        if (head !== undefined) leading.hear({ type: 'appended', head: head.seq, now: Date.now() });
      },
    );
    const wake = (): void => {
      if (document.visibilityState === 'visible') leading.hear({ type: 'wake', now: Date.now() });
    };
    addEventListener('online', wake);
    document.addEventListener('visibilitychange', wake);
    await leading.start();
    await new Promise((resolve) => ended.signal.addEventListener('abort', resolve));
    removeEventListener('online', wake);
    document.removeEventListener('visibilitychange', wake);
    following.unsubscribe();
    leading.end();
  };
  navigator.locks.request('stall-till-sync', { signal: ended.signal }, lead).catch(() => undefined); // Ended while still waiting for its turn.

  return {
    tryAgain: () => {
      if (runner === null) channel.postMessage({ is: 'try again' } satisfies Message);
      else runner.tryAgain();
    },
    end: () => {
      ended.abort();
      channel.close();
    },
  };
}
