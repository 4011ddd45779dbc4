import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import {
  atStart,
  LONGEST_WAIT,
  resume,
  step,
  toSend,
  type Step,
  type SyncAction,
  type SyncEvent,
  type SyncState,
} from './state';

const run = (state: SyncState, ...events: SyncEvent[]): Step => {
  let last: Step = { state, action: null };
  for (const event of events) last = step(last.state, event);
  return last;
};
const now = 1_000_000;

describe('sending and receiving', () => {
  it('sends what there is, then asks for what others wrote', () => {
    const pushing = run(atStart(3, 1, 7), { type: 'wake', now });
    assert.deepEqual(pushing.action, { do: 'push', after: 1 });
    const pulling = step(pushing.state, { type: 'pushed', have: 3, refused: null, now });
    assert.deepEqual(pulling.action, { do: 'pull', after: 7 });
    const done = step(pulling.state, { type: 'pulled', position: 9, latest: 9, have: 3, now });
    assert.deepEqual([done.action, done.state.doing, toSend(done.state)], [null, 'idle', 0]);
  });

  it('waits longer after each failure, and a sale does not shorten the wait', () => {
    let state = run(atStart(1, 0, 0), { type: 'wake', now }).state;
    let wait = 0;
    for (let failure = 0; failure < 8; failure += 1) {
      state = step(state, { type: 'unanswered', now, chance: 1 }).state;
      assert.ok(state.lookAt - now >= wait && state.lookAt - now <= LONGEST_WAIT);
      wait = state.lookAt - now;
      const sold = step(state, { type: 'appended', head: state.head + 1, now });
      assert.equal(sold.action, null);
      state = step(sold.state, { type: 'tick', now: sold.state.lookAt }).state;
    }
    assert.equal(wait, LONGEST_WAIT);
    assert.equal(state.network, 'gone');
  });

  it('tries at once when the network is said to be back', () => {
    const waiting = run(
      atStart(1, 0, 0),
      { type: 'wake', now },
      { type: 'unanswered', now, chance: 0 },
    );
    assert.deepEqual(step(waiting.state, { type: 'wake', now }).action, { do: 'push', after: 0 });
  });

  it('keeps receiving when an entry is refused, and sends again when asked to', () => {
    const refused = { seq: 2, code: 'chain/forked', message: '' };
    const after = run(
      atStart(3, 1, 0),
      { type: 'wake', now },
      { type: 'pushed', have: 1, refused, now },
      { type: 'pulled', position: 4, latest: 4, have: 1, now },
    );
    assert.deepEqual([after.action, [...after.state.pauses]], [null, ['refused']]);
    assert.equal(step(after.state, { type: 'tick', now: after.state.lookAt }).action?.do, 'pull');
    assert.equal(resume(after.state, now).action?.do, 'push');
  });

  it('sends again what a server restored from a backup no longer has', () => {
    const setBack = run(
      atStart(9, 9, 50),
      { type: 'wake', now },
      { type: 'pulled', position: 50, latest: 20, have: 4, now },
    );
    assert.deepEqual([setBack.action, setBack.state.position], [{ do: 'push', after: 4 }, 0]);
  });

  it('stops when the server has more of this device than the device itself', () => {
    const copied = run(
      atStart(2, 2, 0),
      { type: 'wake', now },
      { type: 'pulled', position: 9, latest: 9, have: 5, now },
    );
    assert.deepEqual([copied.action, [...copied.state.pauses]], [null, ['copied']]);
  });

  it('stops when the server has another entry under the number of its last one', () => {
    const copied = run(
      atStart(4, 2, 2),
      { type: 'wake', now },
      { type: 'pulled', position: 9, latest: 9, have: 4, isCopy: true, now },
    );
    assert.deepEqual([copied.action, [...copied.state.pauses]], [null, ['copied']]);
  });

  it('does nothing more once it has been shut out', () => {
    const out = run(
      atStart(1, 0, 0),
      { type: 'wake', now },
      { type: 'turned away', why: 'shut out' },
    );
    assert.equal(
      run(out.state, { type: 'tick', now: now * 2 }, { type: 'wake', now }).action,
      null,
    );
  });

  it('gets everything across exactly once, whatever is lost on the way', () => {
    const faults = fc.array(fc.constantFrom('fine', 'lost before', 'lost after', 'set back'), {
      maxLength: 40,
    });
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 30 }), faults, (entries, plan) => {
        const server = new PretendServer();
        let at = now;
        let next = step(atStart(entries, 0, 0), { type: 'wake', now: at });
        for (let turn = 0; turn < 400; turn += 1) {
          at += 1000;
          const event: SyncEvent =
            next.action === null
              ? { type: 'tick', now: at }
              : server.answer(next.action, entries, plan[turn] ?? 'fine', at);
          next = step(next.state, event);
          if (turn >= plan.length && toSend(next.state) === 0 && next.state.doing === 'idle') break;
        }
        assert.equal(toSend(next.state), 0);
        assert.deepEqual(
          server.log,
          Array.from({ length: entries }, (_, i) => i + 1),
        );
      }),
    );
  });
});

/** A server that takes entries in order, five at a time, and whose answers get lost. */
class PretendServer {
  log: number[] = [];

  answer(action: SyncAction, head: number, fault: string, at: number): SyncEvent {
    const unanswered: SyncEvent = { type: 'unanswered', now: at, chance: 0.5 };
    if (fault === 'lost before') return unanswered;
    if (fault === 'set back') this.log = this.log.slice(0, Math.floor(this.log.length / 2));
    if (action.do === 'push') {
      const isGap = action.after > this.log.length;
      for (
        let seq = action.after + 1;
        !isGap && seq <= Math.min(head, action.after + 5);
        seq += 1
      ) {
        if (seq === this.log.length + 1) this.log.push(seq);
      }
      const refused = isGap ? { seq: action.after + 1, code: 'chain/gap', message: '' } : null;
      const pushed: SyncEvent = { type: 'pushed', have: this.log.length, refused, now: at };
      return fault === 'lost after' ? unanswered : pushed;
    }
    const latest = this.log.length;
    const pulled: SyncEvent = { type: 'pulled', position: latest, latest, have: latest, now: at };
    return fault === 'lost after' ? unanswered : pulled;
  }
}
