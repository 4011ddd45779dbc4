import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { BUSINESS, EVENT, eventBody, idOf } from '../testing/made-up-business';
import { setEventTaxes } from './set-taxes';
import { isMade, sameAgain, setEvent, type EventOutcome, type TypedEvent } from './plan-event';
import { todaysEvent } from './todays-event';

const writer = new DeviceWriter(1);
const typed: TypedEvent = {
  name: ' Winter lights ',
  short: '',
  organiser: 'Council',
  place: 'Quay',
  pitch: '7',
  days: [{ date: '2026-12-05', opens: '15:00', closes: '21:00' }],
  timeZone: 'Europe/London',
  stripe: '#1c684c',
  cloth: '#fffaf0',
  notes: '',
};
const said = (more: Partial<TypedEvent>): string => {
  const outcome = setEvent(writer.newId, null, { ...typed, ...more }, []);
  if (outcome.ok) return 'ok';
  const { code, field } = outcome.refusal;
  return `${field}: ${code}${'day' in outcome.refusal ? ` ${String(outcome.refusal.day)}` : ''}`;
};
/** The rows of events and tables after drafts. */
function after(...all: readonly (readonly Draft[])[]): Books {
  const books = new Books();
  for (const entry of writer.append(all.flat(), 0)) {
    const read = readEntry(entry);
    if (!read.ok) throw new Error(`${entry.kind} cannot be read`);
    books.apply(changesOf(read.entry));
  }
  return books;
}
const draftsOf = (outcome: EventOutcome): readonly Draft[] => {
  assert.ok(outcome.ok);
  return outcome.drafts;
};

describe('planning an event', () => {
  it('takes what was typed, its days in their order, the awning from the name', () => {
    const days = [
      { date: '2026-12-06', opens: '10:00', closes: '16:00' },
      { date: '2026-12-05', opens: '15:00', closes: '21:00' },
    ];
    const books = after(draftsOf(setEvent(writer.newId, null, { ...typed, days }, [])));
    const [event] = books.rows('events');
    assert.deepEqual(
      [event?.name, event?.short, event?.days.map(({ date }) => date)],
      ['Winter lights', 'Winter lights', ['2026-12-05', '2026-12-06']],
    );
  });
  it('refuses what cannot be, in the field where it is', () => {
    const day = (date: string, opens: string, closes: string) => ({ date, opens, closes });
    assert.deepEqual(
      [
        said({ name: ' ' }),
        said({ timeZone: 'Mars/Olympus' }),
        said({ days: [] }),
        said({ days: [day('2026-02-30', '09:00', '16:00')] }),
        said({ days: [day('2026-12-05', '09:00', '9')] }),
        said({ days: [day('2026-12-05', '09:00', '09:00')] }),
      ],
      [
        'name: event/no-name',
        'timeZone: event/zone-wrong',
        'days: event/no-days',
        'days: event/day-wrong 1',
        'days: event/hours-wrong 1',
        'days: event/hours-wrong 1',
      ],
    );
    const night = day('2026-12-05', '18:00', '02:00');
    assert.equal(said({ days: [night, day('2026-12-06', '02:00', '10:00')] }), 'ok');
    assert.equal(
      said({ days: [day('2026-12-06', '01:00', '10:00'), night] }),
      'days: event/days-overlap 1',
    );
    assert.equal(said({ days: [night, night] }), 'days: event/days-overlap 2');
  });
  it('leaves what else is set up of it', () => {
    const made = setEvent(writer.newId, null, typed, []);
    assert.ok(made.ok);
    const taxes = setEventTaxes(writer.newId, made, [{ from: idOf(3, 1), to: null }]).drafts;
    const before = after(made.drafts, taxes).row('events', made.id)!;
    const moved = setEvent(writer.newId, made.id, { ...typed, place: 'Hall' }, [before]);
    const event = after(made.drafts, taxes, draftsOf(moved)).row('events', made.id);
    assert.deepEqual([event?.place, event?.swaps], ['Hall', [{ from: idOf(3, 1), to: null }]]);
  });
  it('is on in the night that it goes on into, and no longer', () => {
    const days = [{ date: '2026-12-05', opens: '18:00', closes: '02:00' }];
    const books = after(draftsOf(setEvent(writer.newId, null, { ...typed, days }, [])));
    const on = (at: string) => todaysEvent(books.rows('events'), Date.parse(at)) !== undefined;
    assert.deepEqual(
      [on('2026-12-05T19:00:00Z'), on('2026-12-06T01:59:00Z'), on('2026-12-06T02:00:00Z')],
      [true, true, false],
    );
  });
});

describe('the same again', () => {
  const green: Row<'events'> = after(draftsOf(setEvent(writer.newId, null, typed, []))).rows(
    'events',
  )[0]!;
  it('is a next edition with its taxes, ways and tables, in the series of the first', () => {
    const event = { ...green, swaps: [{ from: idOf(3, 1), to: null }], ways: ['cash'] };
    const table = {
      id: idOf(30, 1),
      setStamp: 'x',
      name: 'Lights',
      sort: 0,
      goods: [],
      event: event.id,
      size: 'middle' as const,
      isActive: true,
    };
    const plan = (events: readonly Row<'events'>[]): EventOutcome =>
      sameAgain({
        newId: writer.newId,
        business: BUSINESS,
        event,
        recurrence: { every: 'weeks', count: 1 },
        events,
        tables: [table],
        today: '2026-11-27',
      });
    const again = plan([event]);
    assert.ok(again.ok);
    // On a device that has not heard of it, the same edition with the same tables.
    const elsewhere = plan([event]);
    assert.deepEqual([elsewhere.ok && elsewhere.id], [again.id]);
    const both = after(again.drafts, draftsOf(elsewhere));
    assert.deepEqual([both.rows('events').length, both.rows('tables').length], [1, 1]);
    const books = after(again.drafts);
    const next = books.row('events', again.id)!;
    assert.deepEqual(
      [next.name, next.days[0]?.date, next.swaps, next.ways, next.series],
      [event.name, '2026-12-12', event.swaps, event.ways, event.id],
    );
    const twice = plan([event, next]);
    assert.equal(!twice.ok && twice.refusal.code, 'event/planned');
    // Put on another day by now, it stays as it is.
    const moved = { ...next, days: [{ ...next.days[0]!, date: '2026-12-13' }] };
    assert.notEqual(draftsOf(plan([event, moved]))[0]?.body['id'], next.id);
    // The first is not written again: what somebody else changes about it stays.
    assert.equal(books.row('events', event.id), undefined);
    const [copy] = books.rows('tables');
    assert.deepEqual([copy?.name, copy?.event], ['Lights', again.id]);
    assert.notEqual(copy?.id, table.id);
    assert.ok(isMade(event, next.days, books.rows('events')));
    assert.ok(isMade({ ...event, ...next }, event.days, [event]));
    assert.ok(!isMade(event, event.days, [{ ...green, ...eventBody('Other'), id: EVENT }]));
  });
});
