import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Draft } from '../daybook/chain';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { customerDraft, customerId } from '../testing/made-up-business';
import { cardOf, hasExpired, keepCard, takeCardOff } from './card-on-file';
import { eraseCustomer } from './set-customer';

const card = { scheme: 'Visa', last4: '4471', expiry: '2029-04' };
const writer = new DeviceWriter(1);
const { newId } = writer;
const newSalt = (): string => 'sixteen-letters-';
const customer = customerId(1);

const keep = (more: Partial<Parameters<typeof keepCard>[0]> = {}): readonly Draft[] => {
  const outcome = keepCard({ newId, newSalt, customer, card, consent: 'written', ...more });
  assert.ok(outcome.ok);
  return outcome.drafts;
};

/** The customer's row after these. */
function after(...drafts: readonly (readonly Draft[])[]) {
  const books = new Books();
  const all = [customerDraft(1, 'Wren', newId), ...drafts.flat()];
  for (const entry of writer.append(all, 0)) {
    const read = readEntry(entry);
    assert.ok(read.ok);
    books.apply(changesOf(read.entry));
  }
  return books.rows('customers')[0];
}

describe('a card on file', () => {
  it('is what the acquirer calls it, and stands apart from the rest', () => {
    const drafts = keep();
    assert.deepEqual(drafts[0]?.body, { customer, consent: 'written' });
    assert.deepEqual(cardOf(after(drafts)), card);
  });

  it('is not kept without consent', () =>
    assert.deepEqual(keepCard({ newId, newSalt, customer, card, consent: null }), {
      ok: false,
      refusal: { code: 'card-on-file/no-consent' },
    }));

  it('is replaced by another, and taken off', () => {
    const other = { ...card, last4: '0003' };
    assert.deepEqual(cardOf(after(keep(), keep({ card: other }))), other);
    assert.equal(cardOf(after(keep(), takeCardOff(newId, customer).drafts)), null);
  });

  it('is gone when its customer is forgotten, also when it comes in later', () => {
    const erased = eraseCustomer(newId, [customer]).drafts;
    assert.equal(cardOf(after(keep(), erased)), null);
    assert.equal(after(erased, keep())?.cardLast4, '');
  });

  it('holds to the end of its month', () => {
    assert.equal(hasExpired(card, '2029-04-30'), false);
    assert.equal(hasExpired(card, '2029-05-01'), true);
  });
});
