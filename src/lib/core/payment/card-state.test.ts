import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import { readEntry } from '../daybook/read-entry';
import { card, DEVICE } from '../testing/a-card';
import { arbitraryDaybook } from '../testing/arbitrary-daybook';
import { idOf } from '../testing/made-up-business';
import {
  cardErrand,
  cardErrands,
  cardLooseEnds,
  cardState,
  heldCards,
  isCarried,
  isOpenCard,
  openCardEnds,
  type CardPayment,
  type CardState,
} from './card-state';

const NOW = '2026-11-22T11:00:00.000Z';

describe('the state of a card payment', () => {
  /**
   * The arrows of the drawing, and those that entries which contradict each other can bring about: of what
   * became of a card the latest stamp counts, and a part can be given back from wherever it was one.
   */
  const arrows: Readonly<Record<CardState['is'], readonly CardState['is'][]>> = {
    unheard: [
      'asked',
      'nothing',
      'stray',
      'carried',
      'held',
      'taken',
      'to give back',
      'given back',
    ],
    asked: ['nothing', 'stray', 'carried', 'held', 'taken', 'to give back'],
    nothing: ['stray', 'carried', 'held', 'taken', 'failed', 'given back'],
    stray: ['nothing', 'carried', 'held', 'taken', 'to give back'],
    carried: ['taken', 'failed', 'let go', 'held', 'to give back', 'given back'],
    held: ['taken', 'let go', 'failed', 'to give back', 'carried'],
    taken: ['failed', 'let go', 'to give back', 'held', 'given back'],
    failed: ['taken', 'held', 'let go', 'given back'],
    'let go': ['taken', 'failed', 'held', 'given back'],
    'to give back': ['given back'],
    'given back': ['to give back'],
  };
  it('moves along the arrows, and is the same in whichever order its entries come', () => {
    fc.assert(
      fc.property(arbitraryDaybook, (entries) => {
        const changes = entries.flatMap((entry) => {
          const read = readEntry(entry);
          return read.ok ? [changesOf(read.entry)] : [];
        });
        const [forth, back] = [new Books(), new Books()];
        const before = new Map<string, CardState['is']>();
        for (const each of changes) {
          forth.apply(each);
          for (const row of forth.rows('cardPayments')) {
            const { is } = cardState(row);
            const was = before.get(row.id) ?? 'unheard';
            assert.ok(was === is || arrows[was].includes(is), `${was} to ${is}`);
            before.set(row.id, is);
          }
        }
        for (const each of changes.toReversed()) back.apply(each);
        const states = (books: Books) =>
          books.rows('cardPayments').map((row) => [row.id, cardState(row)]);
        assert.deepEqual(states(back), states(forth));
      }),
      { numRuns: 60 },
    );
  });
  it('leaves nothing open that nobody sees to: an errand, something held, or a loose end', () => {
    const words = [
      '',
      'captured',
      'declined',
      'cancelled',
      'reversed',
      'released',
      'expired',
    ] as const;
    for (const takenState of ['', 'captured', 'authorised', 'deferred'] as const)
      for (const state of [...words, 'authorised'] as const)
        for (const isReversed of [false, true]) {
          const payment: CardPayment = card(1, {
            takenState,
            state,
            isReversed,
            resultAmount: 1000,
          });
          const isSeenTo =
            cardErrand(payment, DEVICE) !== null ||
            heldCards([payment]).length > 0 ||
            cardLooseEnds([payment], NOW).length > 0;
          if (isOpenCard(payment))
            assert.ok(isSeenTo, `${takenState} ${state} ${String(isReversed)}`);
          // What is over is not told to the acquirer again and again.
          else assert.equal(cardErrand(payment, DEVICE), null);
        }
  });
});

describe('what the acquirer must still be told', () => {
  it('is sent in the order in which it was asked for, and by its own device', () =>
    assert.deepEqual(cardErrands([card(3), card(1), card(2, { device: idOf(5, 2) })], DEVICE), [
      { does: 'send', payment: idOf(40, 1), amount: 1000, sealed: 'sealed-1', voice: '' },
      { does: 'send', payment: idOf(40, 3), amount: 1000, sealed: 'sealed-3', voice: '' },
    ]));
  it('undoes what was asked for and never finished', () =>
    assert.deepEqual(cardErrands([card(1, { takenState: '' })], DEVICE), [
      { does: 'cancel', payment: idOf(40, 1), why: 'unfinished' },
    ]));
  it('undoes what was given back, once', () => {
    const back = { takenState: 'captured', state: 'captured', isReversed: true } as const;
    assert.deepEqual(
      cardErrands([card(1, back), card(2, { ...back, state: 'reversed' })], DEVICE),
      [{ does: 'cancel', payment: idOf(40, 1), why: 'given back' }],
    );
  });
  it('is nothing where all is well', () =>
    assert.deepEqual(
      cardErrands([card(1, { state: 'captured' }), card(2, { state: 'declined' })], DEVICE),
      [],
    ));
});

describe('cards that do not tie up', () => {
  const held = { takenState: 'authorised', state: 'authorised' } as const;
  it('are not those that are held, which are listed by when they run out', () =>
    assert.deepEqual(
      heldCards([
        card(1, { ...held, expires: '2026-11-29' }),
        card(2, { ...held, expires: '2026-11-28' }),
        card(3, { ...held, isReversed: true }),
        card(4),
      ]).map(({ id }) => id),
      [idOf(40, 2), idOf(40, 1)],
    ));
  const ends = [
    { is: 'not sent yet', of: card(1) },
    { is: 'declined after it was taken', of: card(1, { state: 'declined' }) },
    { is: 'perhaps charged', of: card(1, { takenState: '' }) },
    { is: 'still to be given back', of: card(1, { state: 'captured', isReversed: true }) },
    { is: 'released', of: card(1, { takenState: 'authorised', state: 'released' }) },
    { is: 'held too long', of: card(1, { ...held, expires: '2026-11-22T10:59:00.000Z' }) },
    { is: undefined, of: card(1, { ...held, expires: '2026-11-29T10:00:00.000Z' }) },
    { is: 'approved in part', of: card(1, { state: 'captured', resultAmount: 999 }) },
    { is: undefined, of: card(1, { state: 'captured', resultAmount: 1000 }) },
    { is: undefined, of: card(1, { takenState: '', state: 'declined' }) },
    { is: undefined, of: card(1, { state: 'reversed', isReversed: true }) },
    // What was held and let go of has no money to give back.
    { is: undefined, of: card(1, { ...held, state: 'released', isReversed: true }) },
    // Charged, and no part of anything.
    { is: 'perhaps charged', of: card(1, { takenState: '', state: 'captured' }) },
    { is: undefined, of: card(1, { takenState: '', askedStamp: '' }) },
  ];
  for (const { is, of } of ends)
    it(`${of.takenState || 'only asked for'}, ${of.state || 'no answer'}, ${of.isReversed ? 'given back' : 'kept'}: ${is ?? 'ties up'}`, () =>
      assert.equal(cardLooseEnds([of], NOW)[0]?.is, is));
  it('are settled once, and a card that may be under way is left alone', () => {
    const ends = [card(1), card(2), card(3, { takenState: '' })];
    const settled = [{ looseEnd: `card:${idOf(40, 1)}` }];
    assert.deepEqual(
      openCardEnds(ends, settled, '2026-11-22T09:59:00.000Z', NOW).map(({ payment }) => payment.id),
      [idOf(40, 2)],
    );
    assert.equal(openCardEnds(ends, settled, '2026-11-22T10:00:01.000Z', NOW).length, 2);
  });
  it('a carried one is carried', () => assert.ok(isCarried(card(1))));
});
