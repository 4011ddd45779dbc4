import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { untouched } from '../books/table-spec';
import { tables, type Row } from '../books/tables';
import { kinds } from '../daybook/kinds';
import { momentOf } from '../event/local-time';
import { BUSINESS, eventBody, idOf } from '../testing/made-up-business';
import { calendarText, readCalendar, type PlannedEvent } from './calendar';

let ids = 0;
const event = (more: Partial<Row<'events'>> = {}): Row<'events'> =>
  ({
    ...untouched(tables.events, { id: idOf(2, 1) }),
    ...eventBody('Green, “by the pond”; and more'),
    setStamp: 'x',
    ...more,
  }) as unknown as Row<'events'>;
const read = (text: string, events: readonly Row<'events'>[] = []) =>
  readCalendar({
    ...{ text, business: BUSINESS, timeZone: 'Europe/London', events, today: '2026-11-22' },
    newId: () => idOf(73, (ids += 1)),
  });
function planned(text: string, events: readonly Row<'events'>[] = []): readonly PlannedEvent[] {
  const outcome = read(text, events);
  assert.ok(outcome.ok, JSON.stringify(outcome));
  for (const { drafts } of outcome.planned)
    for (const { body } of drafts) kinds['event.set'].body.parse(body);
  return outcome.planned;
}
const file = (...lines: string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:x', ...lines, 'END:VCALENDAR', ''].join('\r\n');
const one = (...lines: string[]): string[] => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'];

describe('a time on the wall', () => {
  it('is a moment, also where clocks are changed', () => {
    const at = (day: string, time: string): string =>
      new Date(momentOf(day, time, 'Europe/London')).toISOString().slice(0, 16);
    assert.equal(at('2026-11-22', '09:00'), '2026-11-22T09:00');
    assert.equal(at('2026-07-01', '09:00'), '2026-07-01T08:00');
    // Put back at two: half past one is shown twice, and the first is meant.
    assert.equal(at('2026-10-25', '01:30'), '2026-10-25T00:30');
    assert.equal(at('2026-10-25', '09:00'), '2026-10-25T09:00');
    // Put on at one: half past one is never shown.
    assert.equal(at('2026-03-29', '01:30'), '2026-03-29T01:30');
  });
});

describe('a calendar that is written', () => {
  it('has each day in UTC, folded lines, and escapes what has to be', () => {
    const days = [
      { date: '2026-07-01', opens: '09:00', closes: '16:00' },
      { date: '2026-07-02', opens: '18:00', closes: '01:00' },
    ];
    const text = calendarText([event({ days, notes: 'n'.repeat(200) })], 'Larkmoss', 0);
    assert.match(text, /DTSTART:20260701T080000Z\r\n/);
    assert.match(text, /DTEND:20260703T000000Z\r\n/);
    assert.match(text, /SUMMARY:Green\\, “by the pond”\\; and more\\, day 2 of 2/);
    assert.ok(text.split('\r\n').every((line) => Buffer.byteLength(line) <= 75));
    // What comes from here is not planned twice.
    assert.deepEqual(
      planned(text).map(({ verdict }) => verdict),
      ['wrong', 'wrong'],
    );
  });
});

describe('a calendar that is read', () => {
  it('plans days with the hours on the wall, in its zone or in that of the business', () => {
    const text = file(
      ...one('UID:a', 'SUMMARY:Fair', 'DTSTART:20260701T080000Z', 'DTEND:20260701T150000Z'),
      ...one(
        ...[
          'UID:b',
          'SUMMARY:Kites',
          'LOCATION:Beach',
          'DTSTART;TZID=America/Chicago:20260702T100000',
        ],
        'DTEND;TZID=America/Chicago:20260702T180000',
      ),
      ...one('UID:c', 'SUMMARY:Whole', 'DTSTART;VALUE=DATE:20260704', 'DTEND;VALUE=DATE:20260706'),
      ...one('UID:d', 'SUMMARY:Night', 'DTSTART:20260708T200000', 'DURATION:PT5H'),
      ...one('UID:e', 'SUMMARY:Long', 'DTSTART:20260710T100000', 'DTEND:20260712T180000'),
    );
    assert.deepEqual(
      planned(text).map(({ line, name, verdict, days }) => [line, name, verdict, days]),
      [
        [4, 'Fair', 'new', [{ date: '2026-07-01', opens: '09:00', closes: '16:00' }]],
        [10, 'Kites', 'new', [{ date: '2026-07-02', opens: '10:00', closes: '18:00' }]],
        [
          17,
          'Whole',
          'new',
          [
            { date: '2026-07-04', opens: '09:00', closes: '17:00' },
            { date: '2026-07-05', opens: '09:00', closes: '17:00' },
          ],
        ],
        [23, 'Night', 'new', [{ date: '2026-07-08', opens: '20:00', closes: '01:00' }]],
        [
          29,
          'Long',
          'new',
          ['10', '11', '12'].map((day) => ({
            ...{ date: `2026-07-${day}`, opens: '10:00', closes: '18:00' },
          })),
        ],
      ],
    );
    assert.equal(planned(text)[1]?.drafts[0]?.body['timeZone'], 'America/Chicago');
  });

  it('says of each event what is wrong with it, and takes the others in', () => {
    const text = file(
      ...one('UID:a', 'DTSTART:20260701T080000Z'),
      ...one('UID:b', 'SUMMARY:No day'),
      ...one('UID:c', 'SUMMARY:Back', 'DTSTART:20260702T100000', 'DTEND:20260701T100000'),
      ...one('UID:d', 'SUMMARY:Off', 'STATUS:CANCELLED', 'DTSTART:20260702T100000'),
      ...one('UID:e', 'SUMMARY:Twice', 'DTSTART:20260702T100000'),
      ...one('UID:e', 'SUMMARY:Twice', 'DTSTART:20260703T100000'),
      ...one('UID:f', 'SUMMARY:Far', 'DTSTART;TZID=Moon/Base:20260702T100000'),
    );
    const why = planned(text).map(({ verdict, why: said }) => `${verdict} ${said}`);
    for (const [n, part] of [
      'wrong it has no name',
      'wrong it has no beginning',
      'wrong it ends before it begins',
      'wrong it is called off',
      'new ',
      'wrong its id (UID) stood further up',
      'new zone Moon/Base is not known, taken as Europe/London',
    ].entries())
      assert.ok(why[n]?.startsWith(part), `${String(why[n])} / ${part}`);
  });

  it('gives the same event when it is taken in again, and keeps what was set here', () => {
    const text = file(...one('UID:a', 'SUMMARY:Fair', 'DTSTART:20260701T080000', 'DURATION:PT8H'));
    const [first] = planned(text);
    const body = first!.drafts[0]!.body;
    const known = { ...event(), ...body, pitch: '9', stripe: '#a8452c' } as Row<'events'>;
    assert.equal(planned(text, [known])[0]?.verdict, 'same');
    const [moved] = planned(text.replace('SUMMARY:Fair', 'SUMMARY:Big fair'), [known]);
    assert.equal(moved?.verdict, 'changed');
    assert.deepEqual(
      [moved?.drafts[0]?.body['id'], moved?.drafts[0]?.body['pitch']],
      [known.id, '9'],
    );
  });

  it('plans a dozen editions of what comes round again, of one series', () => {
    const text = file(
      ...one(
        'UID:w',
        'SUMMARY:Weekly',
        'DTSTART:20200104T090000',
        'DURATION:PT4H',
        'RRULE:FREQ=WEEKLY',
      ),
    );
    const all = planned(text);
    assert.equal(all.length, 12);
    assert.equal(all[0]?.days[0]?.date, '2026-11-28');
    assert.equal(new Set(all.map(({ drafts }) => drafts[0]?.body['series'])).size, 1);
    assert.equal(new Set(all.map(({ drafts }) => drafts[0]?.body['id'])).size, 12);
  });

  it('says when it is no calendar, and reads ten thousand events', () => {
    for (const text of ['', 'name,price', 'BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n']) {
      const outcome = read(text);
      assert.equal(outcome.ok, false);
    }
    const many = Array.from({ length: 10_000 }, (_, n) =>
      one(`UID:${String(n)}`, `SUMMARY:Fair ${String(n)}`, 'DTSTART:20260701T080000Z'),
    ).flat();
    assert.equal(planned(file(...many)).length, 10_000);
  });
});
