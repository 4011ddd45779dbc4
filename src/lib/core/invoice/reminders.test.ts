import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import {
  fillIn,
  FIRST_WORDS,
  nextReminder,
  remind,
  setReminders,
  unknownIn,
  type TypedStep,
} from './reminders';

const invoice = { id: 'i', customer: 'c', sort: 'invoice', due: '2026-11-01' } as Row<'invoices'>;
const open = { invoice, left: 500, number: 'R1' };
const sent = (step: number, day: string) => ({ step, at: `${day}T10:00:00.000Z` });

describe('the reminder that comes next', () => {
  const next = (today: string, before: readonly ReturnType<typeof sent>[] = [], more = {}) =>
    nextReminder({ ...open, ...more }, before, FIRST_WORDS, today)?.step ?? null;

  it('is the first once its days have gone, and the second as many later as lie between them', () => {
    assert.equal(next('2026-11-07'), null);
    assert.equal(next('2026-11-08'), 0);
    // Nobody gets two letters in one day because nobody looked for a month.
    assert.equal(next('2026-12-20'), 0);
    assert.equal(next('2026-12-25', [sent(0, '2026-12-20')]), null);
    assert.equal(next('2027-01-03', [sent(0, '2026-12-20')]), 1);
    assert.equal(next('2026-11-22', [sent(0, '2026-11-08')]), 1);
    assert.equal(next('2027-01-03', [sent(0, '2026-12-20'), sent(1, '2027-01-03')]), null);
  });

  it('is none of what was paid, has no number, or is a credit note', () => {
    assert.equal(next('2026-12-20', [], { left: 0 }), null);
    assert.equal(next('2026-12-20', [], { number: '' }), null);
    assert.equal(next('2026-12-20', [], { invoice: { ...invoice, sort: 'credit' } }), null);
  });

  it('goes to whoever has an address, one letter each', () => {
    const reminder = { step: 0, words: FIRST_WORDS[0]! };
    const to = (address: string) => ({ invoice, next: reminder, to: address });
    const drafts = remind(
      () => 'id',
      () => 'sixteen-letters-',
      [to('wren@example.org'), to(''), to('wren')],
    );
    assert.equal(drafts.length, 1);
    assert.deepEqual(drafts[0]!.private?.data, { to: 'wren@example.org' });
  });
});

describe('words of reminders', () => {
  const values = {
    ...{ name: 'Wren', number: 'R1', left: '£5.00', due: '1 November', days: '9' },
    business: 'Larkmoss',
  };
  it('are filled in; what is in braces and means nothing is found', () => {
    assert.equal(fillIn('{left} of {number}, {name}; {what}', values), '£5.00 of R1, Wren; {what}');
    assert.equal(unknownIn('Dear {name}'), null);
    assert.equal(unknownIn('Dear {nmae}'), '{nmae}');
    for (const { subject, text } of FIRST_WORDS)
      assert.equal(unknownIn(subject) ?? unknownIn(text), null);
  });

  it('are set, each later than the one before; what is wrong is said', () => {
    const typed: readonly TypedStep[] = FIRST_WORDS.map((step) => ({
      ...step,
      days: String(step.days),
    }));
    const made = setReminders(() => 'id', [...typed, { days: '', subject: '', text: '' }]);
    assert.ok(made.ok);
    assert.deepEqual(made.drafts[0]!.body, { steps: FIRST_WORDS });
    const wrong = (at: number, more: Partial<TypedStep>) => {
      const all = typed.map((step, n) => (n === at ? { ...step, ...more } : step));
      const set = setReminders(() => 'id', all);
      return set.ok ? 'ok' : `${set.refusal.code} ${set.refusal.field}`;
    };
    assert.equal(wrong(0, { days: '0' }), 'reminders/days-wrong steps.0.days');
    assert.equal(wrong(1, { days: '7' }), 'reminders/not-later steps.1.days');
    assert.equal(wrong(0, { subject: ' ' }), 'reminders/empty steps.0.subject');
    assert.equal(wrong(1, { text: 'Dear {nmae}' }), 'reminders/unknown steps.1.text');
  });
});
