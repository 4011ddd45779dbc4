import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { idOf } from '../testing/made-up-business';
import { draft } from '../daybook/kinds';
import { readEntry } from '../daybook/read-entry';
import { afterAsking, closedCard, endedHold, heldResult, resultOf, takeHeld } from './card-answers';
import { cardAnswerSchema, clipped, type CardAnswer } from './card-messages';

const payment = idOf(7, 1);
const says = (state: CardAnswer['state'], amount = 1200): CardAnswer => ({
  state,
  amount,
  approval: '440120',
  acquirer: 'a-1',
  reason: '',
  expires: '',
});

describe('an answer at the counter', () => {
  it('is a part when all of it was approved', () => {
    assert.deepEqual(afterAsking(1200, says('captured')), { then: 'take', state: 'captured' });
    assert.deepEqual(afterAsking(1200, says('authorised')), { then: 'take', state: 'authorised' });
  });

  it('is left, to be undone, when less was approved', () =>
    assert.deepEqual(afterAsking(1200, says('captured', 500)), { then: 'leave', approved: 500 }));

  it('comes to nothing for certain when it was declined', () =>
    assert.deepEqual(afterAsking(1200, { ...says('declined', 0), reason: 'reported lost' }), {
      then: 'close',
      reason: 'reported lost',
    }));
});

describe('the end of an errand', () => {
  const send = { does: 'send', payment, amount: 1200, sealed: 'x', voice: '' } as const;

  it('is written as the acquirer says it', () =>
    assert.equal(resultOf(send, says('declined', 0)).state, 'declined'));

  it('says when only part of a carried card was approved', () => {
    const { state, amount, reason } = resultOf(send, says('captured', 500));
    assert.deepEqual({ state, amount }, { state: 'captured', amount: 500 });
    assert.equal(reason, 'only part of it was approved');
  });
});

describe('a card that is held', () => {
  it('is taken in whole or in less, and in no more', () => {
    assert.deepEqual(takeHeld({ amount: 1200 }, null), { ok: true, amount: 1200 });
    assert.deepEqual(takeHeld({ amount: 1200 }, 700), { ok: true, amount: 700 });
    for (const amount of [0, -1, 1201, 0.5])
      assert.deepEqual(takeHeld({ amount: 1200 }, amount), {
        ok: false,
        refusal: { code: 'held/not-an-amount', most: 1200 },
      });
  });

  it('is written down as the acquirer has it, although another device was first', () => {
    // Asked to let go of it, and it had been taken.
    assert.deepEqual(heldResult(payment, 1200, says('captured', 700)), {
      payment,
      state: 'captured',
      amount: 700,
      approval: '440120',
      acquirer: 'a-1',
      reason: 'only part of it was taken',
    });
    assert.equal(heldResult(payment, 700, says('captured', 700))?.reason, '');
    assert.equal(heldResult(payment, 1200, says('released', 0))?.state, 'released');
  });

  it('is not written down while it is still held', () =>
    assert.equal(heldResult(payment, 1200, says('authorised')), null));
});

describe('what is written down of a card', () => {
  it('has a reason that fits, however much the reader or the acquirer says', () => {
    const long = `${'the terminal says '.repeat(20)}🌱`;
    const { reason } = closedCard(payment, 'cancelled', long);
    assert.ok(reason.length <= 120 && reason.endsWith('…'));
    // Not through the middle of a character.
    assert.equal(clipped(`${'x'.repeat(118)}🌱🌱`), `${'x'.repeat(118)}…`);
    const answer = { ...says('declined', 0), reason: long };
    assert.ok(cardAnswerSchema.parse(answer).reason.length <= 120);
    const written = draft(
      'payment.result',
      idOf(8, 1),
      null,
      closedCard(payment, 'declined', long),
    );
    const [entry] = new DeviceWriter(1).append([written], 0);
    assert.ok(readEntry(entry!).ok);
  });

  it('of a hold that has run out is that; before its time nobody can tell', () => {
    const held = { id: payment, expires: '2026-11-22T10:00:00.000Z' };
    assert.equal(endedHold(held, '2026-11-22T09:00:00.000Z', 'not held'), null);
    assert.equal(endedHold(held, '2026-11-22T11:00:00.000Z', 'not held')?.state, 'expired');
  });
});
