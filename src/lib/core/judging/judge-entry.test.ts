/** The table of docs/security.md, "What is checked of an entry": each line as a forgery, and honest work beside it. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { changesOf } from '../books/changes';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { stampOf } from '../daybook/clock';
import { digestOf } from '../daybook/digest';
import { readEntry } from '../daybook/read-entry';
import type { Posting } from '../journal/posting';
import { takeBack } from '../journal/take-back';
import { reversalBody } from '../sale/give-parts-back';
import { decideHold } from '../payment/decide-hold';
import { inBag, inDrawer, type CashPlace } from '../drawer/cash-places';
import { expectedCash } from '../drawer/expected-cash';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import {
  BUSINESS,
  CARD_WAY,
  customerDraft,
  customerId,
  deviceId,
  DRAWER,
  EVENT,
  eventBody,
  idOf,
  personId,
} from '../testing/made-up-business';
import { CARD as APPROVED } from '../testing/a-sale';
import { BUSINESS_BODY, foundedDrafts, goods, person } from '../testing/founded';
import { Evidence } from './evidence';
import { effectOf, judgeEntry } from './judge-entry';

const NOW = Date.UTC(2026, 10, 22, 10);
const [OWNER, LEAD, HELPER] = [personId(1), personId(2), personId(3)];
const CARD = '00000000-0000-7000-8000-002000000077';

/** A founded business, one device that writes, and what the judge says of it. */
class Court {
  readonly writer = new DeviceWriter(1);
  readonly evidence = new Evidence(
    BUSINESS,
    { id: deviceId(1), number: 1, lastSale: 0, lastRead: 0 },
    new Map([
      [deviceId(1), 1],
      [deviceId(2), 2],
    ]),
    NOW + 60_000,
  );

  constructor() {
    const [owner, ...rest] = foundedDrafts(this.writer);
    assert.deepEqual(this.say([owner!], null), []);
    assert.deepEqual(this.say(rest, OWNER), []);
  }

  /** What is found against each entry, in their order; nothing for what is right. */
  say(drafts: readonly Draft[], by: string | null = HELPER, now = NOW, lentBy?: string): string[] {
    const written = drafts.flatMap((each) =>
      this.writer.append([this.#headed(each)], now, by, lentBy),
    );
    return written.flatMap((entry) => {
      const read = readEntry(entry);
      assert.ok(read.ok, JSON.stringify(read));
      const verdict = judgeEntry(read.entry, this.evidence);
      const isBarred = verdict !== null && effectOf(read.entry, verdict) === 'barred';
      if (!isBarred) this.evidence.take(read.entry, changesOf(read.entry));
      if (verdict === null) return [];
      const what = verdict.code === 'right/missing' ? verdict.right : verdict.code;
      return [isBarred ? `${what}, barred` : what];
    });
  }

  /** What says how far this device is known says so of the entry before it, and its digest is made of that. */
  #headed(each: Draft): Draft {
    if (each.kind !== 'event.settled') return each;
    const { event, balances, heads: said, leftOut, ...rest } = each.body as BodyOf<'event.settled'>;
    const { seq, hash } = this.writer.head;
    const heads = said.map(({ device }) => ({ device, seq, hash }));
    const facts = { event, balances, heads, leftOut };
    return { ...each, body: { ...rest, ...facts, digest: digestOf(facts) } };
  }

  sale(): readonly Draft[] {
    return this.writer.sale([[1, 2]], 0, NOW);
  }
}

type Body = Record<string, unknown>;
const changed = (each: Draft, change: Body): Draft => ({
  ...each,
  body: { ...each.body, ...change },
});
/** The sale among drafts with something in its body changed. */
const forgedSale =
  (change: (body: Body) => Body) =>
  (court: Court): readonly Draft[] =>
    court
      .sale()
      .map((each) => (each.kind === 'sale.rung' ? changed(each, change({ ...each.body })) : each));
const forgedPart =
  (change: Body) =>
  (court: Court): readonly Draft[] =>
    court.sale().map((each) => (each.kind === 'payment.taken' ? changed(each, change) : each));
/** Sale and part with its only line otherwise, all sums made to fit. */
const forgedLine =
  (change: (line: Body) => Body, more: Body = {}) =>
  (court: Court): readonly Draft[] => {
    const [part, sale] = court.sale();
    const [line] = sale!.body['lines'] as Body[];
    const forged = change({ ...line });
    const total = Number(forged['total']);
    return [
      changed(part!, { clears: total, charge: total }),
      changed(sale!, { lines: [forged], total, ...more }),
    ];
  };
const VAT = '00000000-0000-7000-8000-000300000001';
/** VAT that is in an amount, at 20 %. */
const vatIn = (total: number): number => total - Math.round(total / 1.2);
const taxed = (total: number): Body => {
  const amount = vatIn(total);
  return { taxes: [{ id: VAT, name: 'VAT', rate: '20', base: total - amount, amount }] };
};
const line = (total: number, more: Body = {}) => ({
  net: total,
  total,
  tax: { [VAT]: vatIn(total) },
  ...more,
});

const askedCard = (court: Court, amount = 1000): Draft => {
  void court;
  const body = { payment: CARD, slip: idOf(20, 1), way: CARD_WAY.id, amount };
  return draft('payment.asked', court.writer.newId(), EVENT, body);
};
/** £10.00 on the card, with 1.8 % on top. */
const cardPart = (change: Body = {}, card: Body = {}): Draft => ({
  ...draft('payment.taken', CARD, EVENT, {
    slip: idOf(20, 1),
    way: CARD_WAY.id,
    wayName: 'Card',
    method: 'own',
    side: 'card',
    drawer: null,
    clears: 1000,
    charge: 1000,
    surcharge: 18,
    tip: 0,
    change: 0,
    rounding: 0,
    reference: '',
    customer: null,
    share: null,
    card: {
      scheme: 'Visa',
      last4: '4471',
      entry: 'tap',
      state: 'captured',
      approval: '1',
      acquirer: 'a',
      sealed: '',
      expires: '',
      voice: '',
      isOverLimit: false,
      isSigned: false,
      ...card,
    } as never,
  }),
  ...(Object.keys(change).length === 0 ? {} : {}),
});
const withCard = (court: Court, amount: number, card: Body = {}, change: Body = {}) => [
  askedCard(court, amount),
  changed(cardPart({}, card), change),
];
const DEFERRED = { state: 'deferred', approval: '', acquirer: '', sealed: 'sealed' };
/** A part of a card, given back; or another sum than it was, which adds up all the same. */
const reversal = (court: Court, more = 0): Draft => {
  const part = {
    id: CARD,
    slip: idOf(20, 1),
    way: CARD_WAY.id,
    drawer: null,
    side: 'card' as const,
    clears: 1000,
    charge: 1000,
    surcharge: 18,
    tip: 0,
    change: 0,
    rounding: 0,
    by: null,
    card: {},
  };
  const body = reversalBody(part, 'left');
  const takes = { ...body.takes, postings: byMore(body.takes.postings, more) };
  return draft('payment.reversed', court.writer.newId(), EVENT, { ...body, takes });
};

/** Postings that add up to nothing still, and are of another sum. */
function byMore(postings: readonly Posting[], more: number): readonly Posting[] {
  const of = postings.flatMap(({ amount }, at) => (amount === undefined ? [] : [at]));
  return postings.map((posting, at) => {
    const by = at === of[0] ? more : at === of[1] ? -more : 0;
    return by === 0 ? posting : { ...posting, amount: (posting.amount ?? 0) + by };
  });
}
const takesMore = (body: BodyOf<'sale.voided'>, more = 99): BodyOf<'sale.voided'> => ({
  ...body,
  takes: body.takes.map((each, at) =>
    at === 0 ? { ...each, postings: byMore(each.postings, more) } : each,
  ),
});

/** A sale of which the goods come back, with something of the return changed. */
function cameBack(
  court: Court,
  change: (body: BodyOf<'return.made'>) => Partial<BodyOf<'return.made'>> = () => ({}),
): readonly Draft[] {
  const what = { goods: 1, clears: 50, tip: 0, isGivenBack: false, isVoided: false } as const;
  return court.writer
    .parts({ ...what, comesBack: 'stock' }, NOW, LEAD)
    .map((each) =>
      each.kind === 'return.made'
        ? { ...each, body: { ...each.body, ...change(each.body as BodyOf<'return.made'>) } }
        : each,
    );
}

type Money = BodyOf<'return.made'>['money'];

/** The money of a return in equal parts to cards: of these payments, each a refund of this id. */
function toCards(
  money: Money,
  cards: readonly (readonly [payment: string, refund: string])[],
): Partial<BodyOf<'return.made'>> {
  const owed = money.reduce((all, { amount, rounding }) => all + amount - rounding, 0);
  const each = Math.floor(owed / cards.length);
  return {
    money: cards.map(([payment, refund], at) => ({
      ...{ way: CARD_WAY.id, drawer: null, rounding: 0, card: { payment, refund } },
      amount: at === 0 ? owed - each * (cards.length - 1) : each,
    })),
  };
}

/** All of it to the card that had paid a part of the sale. */
function toItsCard(
  court: Court,
  cards: (payment: string) => readonly (readonly [string, string])[],
): readonly Draft[] {
  // Nobody had asked for that card: it counts as taken all the same.
  const all = cameBack(court).map((each) =>
    each.body['way'] === CARD_WAY.id ? changed(each, { card: APPROVED }) : each,
  );
  const paid = all.find(({ body }) => body['way'] === CARD_WAY.id)!;
  return all.map((each) =>
    each.kind === 'return.made'
      ? changed(each, toCards(each.body['money'] as Money, cards(paid.id)))
      : each,
  );
}

/** A sale that was voided so many times, and the last of the voids taken back. */
function voidsAndUndone(
  court: Court,
  times: number,
  change: (body: BodyOf<'sale.voided'>) => BodyOf<'sale.voided'>,
): readonly Draft[] {
  const { newId } = court.writer;
  const what = { goods: 1, clears: 50, tip: 0, isGivenBack: false, isVoided: true } as const;
  const all = court.writer.parts(what, NOW, LEAD);
  const first = all.at(-1)!;
  const voids = Array.from({ length: times - 1 }, () => ({ ...first, id: newId() }));
  const body = change(first.body as BodyOf<'sale.voided'>);
  const last = voids.at(-1) ?? first;
  const takes = body.takes.map(({ of, postings }) => takeBack(of, postings));
  return [
    ...all,
    ...voids,
    draft('void.undone', newId(), EVENT, { ...body, takes, void: last.id }),
  ];
}

describe('an entry by somebody who may, as an honest till writes it', () => {
  const honest: readonly (readonly [string, (court: Court) => readonly Draft[], string?])[] = [
    ['a sale for cash', (court) => court.sale()],
    ['several, one after another', (court) => [...court.sale(), ...court.sale()]],
    ['with change', (court) => court.writer.sale([[3, 1]], 500, NOW)],
    [
      'a sale in parts, and one that is voided by a lead',
      (court) => [
        ...court.writer.parts(
          { goods: 1, clears: 50, tip: 0, isGivenBack: false, isVoided: true },
          NOW,
          LEAD,
        ),
      ],
      LEAD,
    ],
    ['goods that come back', (court) => cameBack(court), LEAD],
    [
      'a part that is given back',
      (court) =>
        court.writer.parts(
          { goods: 1, clears: 50, tip: 20, isGivenBack: true, isVoided: false },
          NOW,
        ),
    ],
    ['a card', (court) => withCard(court, 1018)],
    ['a card that is carried', (court) => withCard(court, 1018, DEFERRED)],
    [
      'what became of a card',
      (court) => [
        askedCard(court),
        draft('payment.result', court.writer.newId(), EVENT, {
          payment: CARD,
          state: 'declined',
          amount: 0,
          approval: '',
          acquirer: '',
          reason: 'no',
        }),
      ],
    ],
    [
      'goods that are moved',
      (court) => court.writer.steps({ does: 'load', item: 1, quantity: 1000 }, NOW),
    ],
    [
      'a device that names itself',
      (court) => [
        draft('device.set', court.writer.newId(), null, {
          id: deviceId(1),
          name: 'Phone',
          number: 1,
          event: null,
          drawer: null,
        }),
      ],
    ],
  ];
  for (const [what, drafts, by] of honest)
    it(what, () => {
      const court = new Court();
      assert.deepEqual(court.say(drafts(court), by), []);
    });

  it('a final read of what should be there', () => {
    const court = new Court();
    assert.deepEqual(court.say(court.sale()), []);
    assert.deepEqual(court.say([read(court, 5210)]), []);
  });
  it('a price of last week, from a device that was out of touch; not one of last month', () => {
    for (const [days, found] of [
      [6, []],
      [20, ['sale/line-price']],
    ] as const) {
      const court = new Court();
      assert.deepEqual(court.say([goods(court.writer, 1, 400)], OWNER, NOW + 60_000), []);
      const at = NOW + days * 86_400_000;
      const days_ = [
        { date: new Date(at).toISOString().slice(0, 10), opens: '09:00', closes: '16:00' },
      ];
      const event = foundedDrafts(court.writer).find(({ kind }) => kind === 'event.set')!;
      assert.deepEqual(court.say([changed(event, { days: days_ })], OWNER, NOW + 120_000), []);
      (court.evidence as { arrival: number }).arrival = at;
      assert.deepEqual(court.say(court.writer.sale([[1, 2]], 0, at), HELPER, at), found);
    }
  });
  it('a standing discount that was agreed with the customer', () => {
    const court = new Court();
    const known = customerDraft(1, 'Wren', court.writer.newId);
    assert.deepEqual(court.say([changed(known, { discount: '10' })], OWNER), []);
    const off = forgedLine((one) => ({ ...one, ...line(189, { discount: 21, standing: 21 }) }), {
      customer: customerId(1),
      ...taxed(189),
    });
    assert.deepEqual(court.say(off(court)), []);
  });
});

const read = (court: Court, expected: number): Draft => {
  const drawer = court.evidence.books.row('drawers', DRAWER)!;
  void expectedCash(drawer, undefined);
  const counts = [{ value: 1, count: expected }];
  const body = {
    drawer: DRAWER,
    number: 1,
    counts,
    expected,
    counted: expected,
    difference: 0,
    reason: '',
    stays: 0,
    bag: null,
    first: null,
  };
  return draft('drawer.counted', court.writer.newId(), EVENT, body);
};

const cash = (
  court: Court,
  from: CashPlace,
  to: CashPlace,
  amount: number,
  more: { readonly bag?: string } = {},
): Draft =>
  draft('cash.moved', court.writer.newId(), EVENT, { from, to, amount, what: 'x', ...more });
const late = (court: Court, amount: number): Draft =>
  draft('drawer.late', court.writer.newId(), EVENT, { drawer: DRAWER, amount, reason: 'x' });

/** As the server would have it, but for what is forged. */
function settled(court: Court, forged: Partial<BodyOf<'event.settled'>>): Draft {
  const { evidence } = court;
  const device = deviceId(1);
  // The entry before it, whichever that is once it is written.
  const heads = [{ device, seq: 1, hash: 'a'.repeat(64) }];
  const balances = evidence.books
    .rows('eventAccounts')
    .filter(({ event, amount }) => event === EVENT && amount !== 0)
    .map(({ account, amount }) => ({ account, amount }));
  const facts = { event: EVENT, balances, heads, leftOut: [], ...forged };
  const body = { ...facts, accepted: [], isAddendum: false, digest: '' };
  return { ...draft('event.settled', court.writer.newId(), EVENT, body) };
}

const ORDER = idOf(50, 9);
const lineOf = (court: Court, wanted: number): Draft =>
  draft('list.line', court.writer.newId(), null, {
    ...{ list: ORDER, item: idOf(6, 1), wanted, price: null, note: '' },
  });
const order = (court: Court): readonly Draft[] => [
  draft('list.set', court.writer.newId(), null, {
    use: 'order',
    ...{ list: ORDER, deviceNumber: 1, number: 1, name: 'Order', from: 'suppliers', to: 'base' },
    ...{ supplier: idOf(52, 1), van: null, day: null, note: '' },
  }),
  lineOf(court, 6000),
  draft('list.stage', court.writer.newId(), null, { list: ORDER, to: 'approved', why: '' }),
];
const transfer = (court: Court): readonly Draft[] =>
  order(court).map((each) =>
    each.kind === 'list.set'
      ? changed(each, { use: 'transfer', from: 'base', to: EVENT, supplier: null })
      : each,
  );
const moved = (court: Court, more: Partial<BodyOf<'stock.moved'>>, amount?: number): Draft =>
  draft('stock.moved', court.writer.newId(), null, {
    ...{ reason: 'moved', from: 'base', to: EVENT, note: '' },
    goods: [{ item: idOf(6, 1), quantity: 100, ...(amount === undefined ? {} : { amount }) }],
    ...more,
  });
/** A hundred thousandths less than there should be, at 123.456 minor units each: 12. */
const accepted = (court: Court, place: string, lost: number): readonly Draft[] => {
  const count = idOf(51, 9);
  const body = {
    ...{ count, deviceNumber: 1, number: 1, name: 'Count', place: 'base', category: '' },
    ...{ isBlind: false, note: '' },
  };
  assert.deepEqual(court.say([draft('count.set', court.writer.newId(), null, body)]), []);
  const goods = [
    {
      ...{
        item: idOf(6, 1),
        counted: 900,
        expected: 1000,
        lost,
        retail: 10,
        stamp: stampOf({ millis: NOW, counter: 0 }, deviceId(1)),
      },
    },
  ];
  const said = { count, place, goods, reason: 'so' };
  return [draft('count.accepted', court.writer.newId(), null, said)];
};

describe('a forged entry', () => {
  const forged: readonly (readonly [
    string,
    (court: Court) => readonly Draft[],
    readonly string[],
    string?,
  ])[] = [
    ['by nobody', (court) => court.sale(), ['by/unknown', 'by/unknown'], ''],
    [
      'by somebody nobody knows',
      (court) => court.sale(),
      ['by/unknown', 'by/unknown'],
      idOf(7, 99),
    ],
    [
      'with another till’s number',
      forgedSale((sale) => ({ ...sale, deviceNumber: 2 })),
      ['device/number'],
    ],
    [
      'with a number of its own making',
      forgedSale((sale) => ({ ...sale, number: 7 })),
      ['sale/number'],
    ],
    ['on a day in 1998', forgedSale((sale) => ({ ...sale, day: '1998-11-22' })), ['sale/day']],
    ['at another hour', forgedSale((sale) => ({ ...sale, hour: 3 })), ['sale/day']],
    ['out of another place', forgedSale((sale) => ({ ...sale, place: 'base' })), ['sale/event']],
    [
      'below its price',
      forgedLine((one) => ({ ...one, price: 5, gross: 10, ...line(10) }), taxed(10)),
      ['sale/line-price'],
    ],
    [
      'below its price, which it says, without the right',
      forgedLine(
        (one) => ({ ...one, price: 5, listPrice: 105, gross: 10, ...line(10) }),
        taxed(10),
      ),
      ['price.change'],
    ],
    [
      'with a line that does not come to its price',
      forgedLine((one) => ({ ...one, gross: 10, ...line(10) }), taxed(10)),
      ['sale/line-sum'],
    ],
    [
      'with a discount nobody may give',
      forgedLine((one) => ({ ...one, ...line(0, { discount: 210, tax: { [VAT]: 0 } }) }), {
        ...taxed(0),
        payments: [],
      }),
      ['discount.over'],
    ],
    [
      'with a standing discount nobody was granted',
      forgedLine((one) => ({ ...one, ...line(20, { discount: 190, standing: 190 }) }), taxed(20)),
      ['sale/standing'],
    ],
    [
      'with everything off, split into a standing part and a small one',
      forgedLine(
        (one) => ({ ...one, ...line(0, { discount: 210, standing: 200, tax: { [VAT]: 0 } }) }),
        { ...taxed(0), payments: [], standingName: 'Members' },
      ),
      ['sale/standing'],
    ],
    [
      'with an extra below nothing',
      forgedLine(
        (one) => ({ ...one, extras: [{ name: 'off', price: -100 }], gross: 10, ...line(10) }),
        taxed(10),
      ),
      ['sale/line-extra'],
    ],
    ['with another cost', forgedLine((one) => ({ ...one, cost: 0 })), ['sale/line-cost']],
    [
      'that moves no stock',
      forgedLine((one) => ({ ...one, isStocked: false })),
      ['sale/line-stock'],
    ],
    [
      'of goods that are said to be a maker’s',
      forgedLine((one) => ({ ...one, maker: idOf(45, 1) })),
      ['sale/line-maker'],
    ],
    [
      'without its tax',
      forgedLine((one) => ({ ...one, tax: { [VAT]: 0 } }), {
        taxes: [{ id: VAT, name: 'VAT', rate: '20', base: 210, amount: 0 }],
      }),
      ['sale/tax'],
    ],
    [
      'at a rate that was never set',
      forgedSale((sale) => ({
        ...sale,
        taxes: [{ id: VAT, name: 'VAT', rate: '5', base: 200, amount: 10 }],
      })),
      ['sale/tax'],
    ],
    [
      'with a service charge below nothing',
      (court) => {
        const [part, sale] = court.sale();
        const service = { net: -200, tax: {}, total: -200 };
        return [changed(part!, { clears: 10, charge: 10 }), changed(sale!, { service, total: 10 })];
      },
      ['sale/service'],
    ],
    [
      'that nobody paid',
      (court) => court.sale().filter(({ kind }) => kind === 'sale.rung'),
      ['sale/payments'],
    ],
    ['that names no payment', forgedSale((sale) => ({ ...sale, payments: [] })), ['sale/payments']],
    [
      'that names a payment twice',
      forgedSale((sale) => ({
        ...sale,
        payments: [...(sale['payments'] as string[]), ...(sale['payments'] as string[])],
      })),
      ['sale/payments'],
    ],
    [
      'whose cards paid more than they did',
      forgedSale((sale) => ({ ...sale, uplift: { net: 50, tax: {}, total: 50, base: {} } })),
      ['sale/uplift'],
    ],
    [
      'of goods that come back',
      forgedLine((one) => ({
        ...one,
        quantity: -2000,
        gross: -210,
        ...line(-210, { tax: { [VAT]: -35 } }),
      })),
      [],
    ],
    [
      'rounded beyond the cash step',
      forgedPart({ charge: 200, rounding: -10 }),
      ['payment/rounding'],
    ],
    ['in a way that was not set up', forgedPart({ way: idOf(32, 77) }), ['payment/way']],
    ['in a way that is otherwise', forgedPart({ method: 'own', drawer: null }), ['payment/way']],
    ['into a drawer nobody opened', forgedPart({ drawer: idOf(4, 9) }), ['payment/drawer']],
    ['with a surcharge of its own', forgedPart({ surcharge: 5 }), ['payment/surcharge']],
    ['of a card nobody asked for', (court) => withCard(court, 1018).slice(1), ['card/not-asked']],
    ['of a card for another amount', (court) => withCard(court, 5), ['card/other-amount']],
    [
      'of a card that was charged less than it cleared',
      (court) => withCard(court, 1, {}, { charge: 1, surcharge: 0 }),
      ['payment/charge'],
    ],
    [
      'of a card carried beyond the limit for each',
      (court) => withCard(court, 7126, DEFERRED, { clears: 7000, charge: 7000, surcharge: 126 }),
      ['card/carried'],
    ],
    [
      'of a card carried beyond it, saying so',
      (court) =>
        withCard(
          court,
          7126,
          { ...DEFERRED, isOverLimit: true },
          { clears: 7000, charge: 7000, surcharge: 126 },
        ),
      ['card.carry'],
    ],
    [
      'what became of a card nobody asked for',
      (court) => [
        draft('payment.result', court.writer.newId(), EVENT, {
          payment: CARD,
          state: 'captured',
          amount: 1,
          approval: '',
          acquirer: '',
          reason: '',
        }),
      ],
      ['card/unknown, barred'],
    ],
    ['a reversal of a payment that never was', (court) => [reversal(court)], ['reversal/unknown']],
    [
      'a reversal of more than was paid',
      (court) => [...withCard(court, 1018), reversal(court, 8981)],
      ['reversal/figures'],
    ],
    [
      'a reversal done twice',
      (court) => [...withCard(court, 1018), reversal(court), reversal(court)],
      ['reversal/again'],
    ],
    [
      'a hold that is none',
      (court) => [
        ...withCard(court, 1018),
        decideHold(court.writer.newId, { id: CARD, event: EVENT }, 'release', 0),
      ],
      ['hold/unknown, barred'],
    ],
    [
      'a held card let go of without the right',
      (court) => [
        ...withCard(court, 1018, { state: 'authorised' }),
        decideHold(court.writer.newId, { id: CARD, event: EVENT }, 'release', 0),
      ],
      ['refund'],
    ],
    [
      'more taken of a held card than it holds',
      (court) => [
        ...withCard(court, 1018, { state: 'authorised' }),
        decideHold(court.writer.newId, { id: CARD, event: EVENT }, 'capture', 1019),
      ],
      ['hold/unknown, barred'],
    ],
    [
      'a void by a helper',
      (court) =>
        court.writer.parts(
          { goods: 1, clears: 50, tip: 0, isGivenBack: false, isVoided: true },
          NOW,
          LEAD,
        ),
      ['sale.void'],
    ],
    ['goods taken back by a helper', (court) => cameBack(court), ['refund']],
    [
      'goods of no sale that there is',
      (court) => cameBack(court, () => ({ sale: idOf(9, 9) })),
      ['return/unknown'],
      LEAD,
    ],
    [
      'goods of a sale that is void',
      (court) => {
        const back = cameBack(new Court()).at(-1)!;
        const voided = court.writer.parts(
          { goods: 1, clears: 50, tip: 0, isGivenBack: false, isVoided: true },
          NOW,
          LEAD,
        );
        const sale = voided.find(({ kind }) => kind === 'sale.rung')!.id;
        return [...voided, { ...back, id: court.writer.newId(), body: { ...back.body, sale } }];
      },
      ['return/voided'],
      LEAD,
    ],
    [
      'the same goods twice',
      (court) => {
        const all = cameBack(court);
        return [...all, { ...all.at(-1)!, id: court.writer.newId() }];
      },
      ['return/more'],
      LEAD,
    ],
    [
      'more of a line than it had',
      (court) => cameBack(court, ({ lines }) => ({ lines: [{ ...lines[0]!, quantity: 2000 }] })),
      ['return/more'],
      LEAD,
    ],
    [
      'a return that gives back more than was paid for it',
      (court) =>
        cameBack(court, ({ takes, money }) => ({
          takes: { ...takes, postings: byMore(takes.postings, -99) },
          money: money.map((each) => ({ ...each, amount: each.amount + 99 })),
        })),
      ['return/figures'],
      LEAD,
    ],
    [
      'a return that says it came from elsewhere',
      (court) => cameBack(court, () => ({ soldFrom: idOf(9, 9) })),
      ['return/figures'],
      LEAD,
    ],
    [
      'more money for what came back than it comes to',
      (court) =>
        cameBack(court, ({ money }) => ({
          money: money.map((each) => ({ ...each, amount: each.amount + 500 })),
        })),
      ['return/money'],
      LEAD,
    ],
    [
      'cash for it out of no drawer that there is',
      (court) =>
        cameBack(court, ({ money }) => ({
          money: money.map((each) => ({ ...each, drawer: idOf(9, 9) })),
        })),
      ['return/drawer'],
      LEAD,
    ],
    [
      'cash for it out of no drawer at all',
      (court) =>
        cameBack(court, ({ money }) => ({
          money: money.map((each) => ({ ...each, drawer: null })),
        })),
      ['return/drawer'],
      LEAD,
    ],
    [
      'money for it by a way that did not pay',
      (court) =>
        cameBack(court, ({ money }) => ({
          money: money.map((each) => ({ ...each, way: idOf(9, 9), drawer: null })),
        })),
      ['return/way'],
      LEAD,
    ],
    [
      'money for it to a card that did not pay for it',
      (court) => cameBack(court, ({ money }) => toCards(money, [[idOf(9, 9), idOf(9, 1)]])),
      ['return/card'],
      LEAD,
    ],
    [
      'more for it to a card than that had paid',
      (court) => toItsCard(court, (paid) => [[paid, idOf(9, 1)]]),
      ['card/not-asked', 'return/card'],
      LEAD,
    ],
    [
      'several parts of it to a card, together more than that had paid',
      (court) =>
        toItsCard(court, (paid) => [
          [paid, idOf(9, 1)],
          [paid, idOf(9, 2)],
          [paid, idOf(9, 3)],
        ]),
      ['card/not-asked', 'return/card'],
      LEAD,
    ],
    [
      'goods that are put elsewhere than where the event is',
      (court) => cameBack(court, () => ({ place: idOf(9, 9) })),
      ['sale/event'],
      LEAD,
    ],
    [
      'goods that come back at another hour than it is',
      (court) => cameBack(court, () => ({ hour: 3 })),
      ['sale/day'],
      LEAD,
    ],
    [
      'a return with the number of another till',
      (court) => cameBack(court, () => ({ deviceNumber: 7 })),
      ['device/number'],
      LEAD,
    ],
    [
      'a return with the number of another',
      (court) => [...cameBack(court), ...cameBack(court, () => ({ number: 1 }))],
      ['return/number'],
      LEAD,
    ],
    [
      'a void of what came back',
      (court) => {
        const all = court.writer.parts(
          { goods: 1, clears: 50, tip: 0, isGivenBack: false, isVoided: true },
          NOW,
          LEAD,
        );
        const [voided, rest] = [all.at(-1)!, all.slice(0, -1)];
        const sale = rest.find(({ kind }) => kind === 'sale.rung')!;
        const back = cameBack(new Court()).at(-1)!;
        const body = { ...back.body, sale: sale.id, slip: sale.body['slip'] };
        return [...rest, { ...back, id: court.writer.newId(), body }, voided];
      },
      ['void/returned'],
      LEAD,
    ],
    [
      'a void of another sum',
      (court) =>
        court.writer
          .parts({ goods: 1, clears: 50, tip: 0, isGivenBack: false, isVoided: true }, NOW, LEAD)
          .map((each) =>
            each.kind === 'sale.voided'
              ? { ...each, body: takesMore(each.body as BodyOf<'sale.voided'>) }
              : each,
          ),
      ['void/figures'],
      LEAD,
    ],
    [
      'a void done twice',
      (court) => {
        const all = court.writer.parts(
          { goods: 1, clears: 50, tip: 0, isGivenBack: false, isVoided: true },
          NOW,
          LEAD,
        );
        return [...all, { ...all.at(-1)!, id: court.writer.newId() }];
      },
      ['void/again'],
      LEAD,
    ],
    [
      'a void taken back that was not done twice',
      (court) => voidsAndUndone(court, 1, (body) => body),
      ['void/not-twice, barred'],
      LEAD,
    ],
    [
      'the second of two voids taken back by another sum',
      (court) => voidsAndUndone(court, 2, (body) => takesMore(body)),
      ['void/again', 'void/not-twice, barred'],
      LEAD,
    ],
    [
      'the second of two voids taken back twice',
      (court) => {
        const all = voidsAndUndone(court, 2, (body) => body);
        return [...all, { ...all.at(-1)!, id: court.writer.newId() }];
      },
      ['void/again', 'void/not-twice, barred'],
      LEAD,
    ],
    [
      'a read of another sum than should be there',
      (court) => [...court.sale(), read(court, 10)],
      ['read/expected'],
    ],
    [
      'a drawer counted twice',
      (court) => [read(court, 5000), changed(read(court, 5000), { number: 2 })],
      ['read/again'],
    ],
    [
      'cash out of a drawer that there is not',
      (court) => [cash(court, inDrawer(idOf(4, 9)), 'safe', 5)],
      ['cash/drawer'],
      LEAD,
    ],
    [
      'cash taken out without the right to it',
      (court) => [
        cash(court, inDrawer(DRAWER), 'owner', 5),
        cash(court, inDrawer(DRAWER), 'spent:food', 5),
        cash(court, inDrawer(DRAWER), 'safe', 5),
      ],
      ['cash.out', 'cash.out', 'cash.out'],
    ],
    [
      'a bag that nobody filled, one opened with more in it than went in, and one opened twice',
      (court) => {
        const fill = (bag: string): Draft => cash(court, 'safe', 'bag', 500, { bag });
        const open = (id: string, amount: number): Draft => cash(court, inBag(id), 'safe', amount);
        const [one, other] = [fill('B7'), fill('B8')];
        const twice = [open(other.id, 500), open(other.id, 500)];
        return [one, other, open(idOf(4, 9), 500), open(one.id, 501), ...twice];
      },
      ['cash/bag', 'cash/bag', 'cash/bag'],
      LEAD,
    ],
    [
      'late cash of which there is none, and as much twice',
      (court) => [
        read(court, 5000),
        late(court, 5),
        cash(court, 'owner', inDrawer(DRAWER), 450),
        late(court, 450),
        late(court, 450),
      ],
      ['drawer/not-late, barred', 'drawer/not-late, barred'],
      OWNER,
    ],
    [
      'late cash called a difference by a helper',
      (court) => [read(court, 5000), cash(court, 'owner', inDrawer(DRAWER), 450), late(court, 450)],
      ['count.accept, barred'],
    ],
    [
      'an event said to be settled by its stage alone',
      (court) => [
        draft('event.stage', court.writer.newId(), EVENT, { event: EVENT, stage: 'settled' }),
      ],
      ['stage/not-settled-so, barred'],
      OWNER,
    ],
    [
      'an event settled by a helper, and a report, a payout and shared tips of theirs',
      (court) => [
        settled(court, {}),
        ...court.writer.steps({ does: 'report', line: 1, amount: 5 }, NOW),
        ...court.writer.steps({ does: 'join', line: 1, isOurs: true }, NOW),
        ...court.writer.steps({ does: 'came', amount: 5 }, NOW),
        ...court.writer.steps({ does: 'tips', amount: 5 }, NOW),
        ...court.writer.steps({ does: 'paid', amount: 5 }, NOW),
      ],
      [
        ...Array.from({ length: 5 }, () => 'event.settle, barred'),
        // It was paid, whether they might or not.
        'event.settle',
      ],
    ],
    [
      'an event settled with other balances, or without what a device has sent',
      (court) => [
        settled(court, { balances: [] }),
        settled(court, { heads: [] }),
        settled(court, {}),
      ],
      ['settled/balances, barred', 'settled/heads, barred'],
      OWNER,
    ],
    [
      'more money said to have come than was to come, and more tips shared and paid than were taken',
      (court) => [
        ...court.writer.steps({ does: 'came', amount: 5 }, NOW),
        ...court.writer.steps({ does: 'tips', amount: 5 }, NOW),
        ...court.writer.steps({ does: 'paid', amount: 5 }, NOW),
      ],
      ['money/more, barred', 'tips/not-so, barred', 'paid/more'],
      OWNER,
    ],
    [
      'how drawers are counted set by a lead',
      (court) => [
        draft('business.cash', court.writer.newId(), null, {
          isBlind: true,
          refundMost: null,
          recountAbove: 5,
        }),
      ],
      ['set-up, barred'],
      LEAD,
    ],
    [
      'a drawer opened nowhere',
      (court) => [
        {
          ...draft('drawer.opened', court.writer.newId(), EVENT, {
            name: 'x',
            float: 0,
            counts: [],
          }),
          event: null,
        },
      ],
      ['drawer/event'],
    ],
    [
      'goods moved out of what was sold',
      (court) => [
        draft('stock.moved', court.writer.newId(), EVENT, {
          reason: 'moved',
          from: 'gone:sold',
          to: 'base',
          goods: [{ item: idOf(6, 1), quantity: 1 }],
          note: '',
        }),
      ],
      ['stock/place'],
    ],
    [
      'a device with another number',
      (court) => [
        draft('device.set', court.writer.newId(), null, {
          id: deviceId(1),
          name: 'x',
          number: 2,
          event: null,
          drawer: null,
        }),
      ],
      ['device/not-its-own, barred'],
    ],
    [
      'a device that gives itself an event',
      (court) => [
        draft('device.set', court.writer.newId(), null, {
          id: deviceId(1),
          name: 'x',
          number: 1,
          event: EVENT,
          drawer: null,
        }),
      ],
      ['device/not-its-own, barred'],
    ],
    ['an order that its drafter approves', (court) => order(court), ['order.approve, barred']],
    [
      'more of what is ordered, said to be from before it was approved',
      (court) => {
        assert.deepEqual(court.say(order(court), OWNER), []);
        return [lineOf(court, 9000)];
      },
      ['order.approve, barred'],
    ],
    [
      'an event that a helper plans',
      (court) => [draft('event.set', court.writer.newId(), EVENT, eventBody('Mine'))],
      ['event.plan, barred'],
    ],
    [
      'goods that are gone and had not cost that much',
      (court) => [moved(court, { to: 'gone:broken', reason: 'broken' }, 13)],
      ['stock/amount'],
    ],
    [
      'goods moved for a list that is not there',
      (court) => [moved(court, { to: EVENT, list: { id: ORDER, does: 'move' } })],
      ['stock/list'],
    ],
    [
      'goods that leave for a list again, as two devices out of touch load it',
      (court) => {
        const goods = [{ item: idOf(6, 1), quantity: 100 }];
        const packed = draft('list.packed', court.writer.newId(), null, { list: ORDER, goods });
        const list = { id: ORDER, does: 'move' as const };
        assert.deepEqual(court.say([...transfer(court), packed], OWNER), []);
        assert.deepEqual(court.say([moved(court, { list })]), []);
        return [moved(court, { list })];
      },
      ['stock/list-twice'],
    ],
    [
      'goods that arrive and were not sent',
      (court) => {
        assert.deepEqual(court.say(transfer(court), OWNER), []);
        const list = { id: ORDER, does: 'receive' as const };
        return [moved(court, { from: `way:${ORDER}`, list })];
      },
      ['stock/list-twice'],
    ],
    [
      'goods packed for a list that is not there',
      (court) => court.writer.steps({ does: 'pack', item: 1, quantity: 1000 }, NOW),
      ['list/unknown, barred'],
    ],
    [
      'a count that whoever counted accepts',
      (court) => accepted(court, 'base', 12),
      ['count.accept, barred'],
    ],
    [
      'what was counted at another place',
      (court) => accepted(court, EVENT, 12),
      ['count/place, barred'],
      OWNER,
    ],
    [
      'a difference that is not worth that',
      (court) => accepted(court, 'base', 13),
      ['count/figures, barred'],
      OWNER,
    ],
  ];
  for (const [what, drafts, found, by] of forged) {
    if (found.length === 0) continue;
    it(`${what}: ${found.join(', ')}`, () => {
      const court = new Court();
      assert.deepEqual(court.say(drafts(court), by === '' ? null : (by ?? HELPER)), found);
    });
  }

  it('whose clock is ahead of its arrival counts and is questioned', () => {
    const court = new Court();
    (court.evidence as { arrival: number }).arrival = NOW - 3_600_000;
    assert.deepEqual(court.say(court.sale()), ['clock/ahead', 'clock/ahead']);
  });
  it('by somebody who has left', () => {
    const court = new Court();
    const left = changed(person(court.writer, 3, 'helper'), { isActive: false });
    assert.deepEqual(court.say([left], OWNER), []);
    assert.deepEqual(court.say(court.sale(), HELPER, NOW + 1), ['by/unknown', 'by/unknown']);
  });
  it('for a card of another device is barred: it would be that one’s to undo', () => {
    const court = new Court();
    assert.deepEqual(court.say([askedCard(court)]), []);
    const theirs = new DeviceWriter(2).append([askedCard(court)], NOW + 1, HELPER)[0]!;
    const known = readEntry(theirs);
    assert.ok(known.ok);
    assert.equal(judgeEntry(known.entry, court.evidence)?.code, 'card/other-device');
  });
  it('beyond what a device may carry in all', () => {
    const court = new Court();
    const carry = (n: number): readonly Draft[] => {
      const payment = idOf(20, 700 + n);
      return withCard(court, 5090, DEFERRED, { clears: 5000, charge: 5000, surcharge: 90 }).map(
        (each) =>
          each.kind === 'payment.taken' ? { ...each, id: payment } : changed(each, { payment }),
      );
    };
    assert.deepEqual(court.say(carry(1)), []);
    assert.deepEqual(court.say(carry(2)), ['card/carried']);
  });
  it('that settles what is held against its own writer is barred, unless they own the business', () => {
    const court = new Court();
    const forgery = forgedSale((sale) => ({ ...sale, deviceNumber: 2 }))(court);
    assert.deepEqual(court.say([person(court.writer, 2, 'lead', ['set-up'])], OWNER), []);
    assert.deepEqual(court.say(forgery, LEAD, NOW + 1), ['device/number']);
    const settled = (id: string): Draft =>
      draft('looseEnd.settled', court.writer.newId(), null, {
        looseEnd: `entry:${id}`,
        how: 'accepted',
        reason: 'seen',
      });
    const sale = forgery.at(-1)!.id;
    assert.deepEqual(court.say([settled(sale)], LEAD, NOW + 2), ['looseEnd/own, barred']);
    assert.deepEqual(court.say([settled(sale)], OWNER, NOW + 3), []);
  });
  it('of a receipt for a sale that there is not is barred', () => {
    const court = new Court();
    const receipt = court.writer.steps({ does: 'receipt', isGift: false }, NOW);
    assert.deepEqual(court.say(receipt), ['receipt/unknown-sale, barred']);
  });
  it('of a part of a sale that stands is money given back, and asks for the right to it', () => {
    for (const [by, found] of [
      [HELPER, ['refund']],
      [LEAD, ['reversal/rung']],
    ] as const) {
      const court = new Court();
      const [part, sale] = court.sale();
      assert.deepEqual(court.say([part!, sale!]), []);
      const taken = readEntry(court.writer.append([part!], NOW)[0]!);
      assert.ok(taken.ok && taken.entry.kind === 'payment.taken');
      const back = reversalBody({ ...taken.entry.body, id: part!.id, by: null }, '');
      assert.deepEqual(
        court.say([draft('payment.reversed', court.writer.newId(), EVENT, back)], by),
        found,
      );
    }
  });
  it('is held against nobody while the business is being founded', () => {
    const writer = new DeviceWriter(1);
    const evidence = new Evidence(
      BUSINESS,
      { id: deviceId(1), number: 1, lastSale: 0, lastRead: 0 },
      new Map(),
      NOW,
    );
    for (const entry of writer.append(writer.sale([[1, 1]], 0, NOW), NOW)) {
      const known = readEntry(entry);
      assert.ok(known.ok);
      assert.equal(judgeEntry(known.entry, evidence), null);
    }
  });
  it('in the business’s own set-up is judged by what it says then', () => {
    const court = new Court();
    const step = draft('business.set', court.writer.newId(), null, {
      ...BUSINESS_BODY,
      cashStep: 10,
    });
    assert.deepEqual(court.say([step], OWNER), []);
    assert.deepEqual(court.say(forgedPart({ charge: 205, rounding: -5 })(court)), []);
  });
});
