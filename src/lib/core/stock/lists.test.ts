import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import { BASE, onTheWay, SUPPLIERS } from '../books/names';
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type KnownEntry } from '../daybook/kinds';
import { readEntry } from '../daybook/read-entry';
import { PLAIN_ITEM } from '../goods/plain-item';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { EVENT, idOf } from '../testing/made-up-business';
import {
  goodsGone,
  movePacked,
  oneMore,
  pack,
  receive,
  restGone,
  restOf,
  settleWay,
} from './do-list';
import {
  fromLastTime,
  fromLevels,
  fromPar,
  fullOf,
  inPacks,
  loadOf,
  shortOnLists,
} from './fill-list';
import { listPaper, orderLetter, type ListDocument } from './list-paper';
import {
  freeOf,
  keptByLists,
  keptKey,
  linesNow,
  listNumber,
  stateOf,
  type LineNow,
} from './list-state';
import {
  approveList,
  endList,
  mailList,
  redraftList,
  setLines,
  setList,
  typedQuantity,
  type ListOutcome,
  type TypedList,
} from './set-list';

const NOW = Date.UTC(2026, 10, 22, 9);
const [A, B, C] = [idOf(6, 1), idOf(6, 2), idOf(6, 3)];
const [STORE, SUPPLIER] = [idOf(53, 1), idOf(52, 1)];
const TYPED: TypedList = {
  use: 'load',
  name: '',
  from: BASE,
  to: EVENT,
  supplier: '',
  van: '',
  day: '',
  note: '',
};
const COSTS = new Map([[A, { cost: 180_000 }]]);

/** What some devices wrote, and what it comes to. */
class Yard {
  readonly books = new Books();
  readonly entries: KnownEntry[] = [];
  readonly #writers = new Map<number, DeviceWriter>();
  #now = NOW;

  writer(device: number): DeviceWriter {
    const found = this.#writers.get(device) ?? new DeviceWriter(device);
    this.#writers.set(device, found);
    return found;
  }
  newId = (): string => this.writer(1).newId();

  say(drafts: readonly Draft[], device = 1): void {
    for (const entry of this.writer(device).append(drafts, (this.#now += 1000))) {
      const read = readEntry(entry);
      assert.ok(read.ok, JSON.stringify(read));
      this.entries.push(read.entry);
      this.books.apply(changesOf(read.entry));
    }
  }
  done(outcome: ListOutcome, device = 1): string {
    assert.ok(outcome.ok, JSON.stringify(outcome));
    this.say(outcome.drafts, device);
    return outcome.id;
  }
  make(typed: Partial<TypedList>, wanted: Readonly<Record<string, number>>): string {
    const made = setList({
      newId: this.newId,
      known: null,
      typed: { ...TYPED, ...typed },
      event: EVENT,
      deviceNumber: 4,
      lists: this.books.rows('lists'),
    });
    const id = this.done(made);
    const lines = Object.entries(wanted).map(([item, much]) => ({ item, wanted: much }));
    this.done(setLines(this.newId, this.list(id), [], lines));
    return id;
  }
  list(id: string): Row<'lists'> {
    const row = this.books.row('lists', id);
    assert.ok(row !== undefined);
    return row;
  }
  lines(id: string): readonly LineNow[] {
    return linesNow(
      this.books.rows('listLines').filter(({ list }) => list === id),
      this.books.rows('listSums').filter(({ list }) => list === id),
    );
  }
  line(id: string, item: string): LineNow | undefined {
    return this.lines(id).find((line) => line.item === item);
  }
  state(id: string): string {
    return stateOf(this.list(id), this.lines(id));
  }
  approve(id: string): void {
    this.done(approveList(this.newId, this.list(id), this.lines(id)));
  }
  stock(place: string, item: string): number {
    return this.books.row('stock', `${place} ${item}`)?.quantity ?? 0;
  }
  kept() {
    return keptByLists(
      this.books.rows('lists').map((list) => ({ list, lines: this.lines(list.id) })),
    );
  }
}

const refused = (outcome: ListOutcome): string => (outcome.ok ? 'done' : outcome.refusal.code);

describe('a load list', () => {
  it('keeps goods back once it is approved, is packed by taps and moves what was packed', () => {
    const yard = new Yard();
    const id = yard.make({}, { [A]: 48_000, [B]: 24_000 });
    assert.equal(listNumber(yard.list(id)), 'L4-1');
    assert.equal(yard.state(id), 'draft');
    assert.equal(yard.kept().size, 0);
    assert.equal(
      refused(pack(yard.newId, yard.list(id), yard.lines(id), [{ item: A, quantity: 1000 }])),
      'list/not-approved',
    );
    yard.approve(id);
    assert.equal(yard.kept().get(keptKey(BASE, A))?.reserved, 48_000);
    assert.equal(freeOf(50_000, yard.kept().get(keptKey(BASE, A))), 2000);
    for (const device of [1, 2])
      yard.done(
        pack(yard.newId, yard.list(id), yard.lines(id), [{ item: A, quantity: 1000 }]),
        device,
      );
    assert.equal(yard.line(id, A)?.packed, 2000);
    assert.equal(yard.state(id), 'under way');
    assert.equal(yard.stock(EVENT, A), 0);
    yard.done(movePacked(yard.newId, yard.list(id), yard.lines(id), COSTS));
    assert.equal(yard.stock(EVENT, A), 2000);
    assert.equal(yard.stock(BASE, A), -2000);
    assert.equal(yard.kept().get(keptKey(BASE, A))?.reserved, 46_000);
    // What was left behind stays on the list.
    assert.equal(yard.state(id), 'in part');
    assert.equal(
      refused(movePacked(yard.newId, yard.list(id), yard.lines(id), COSTS)),
      'list/nothing-packed',
    );
  });

  it('lets nobody take out more than is in and has not left', () => {
    const yard = new Yard();
    const id = yard.make({}, { [A]: 5000 });
    yard.approve(id);
    yard.done(pack(yard.newId, yard.list(id), yard.lines(id), [{ item: A, quantity: 3000 }]));
    yard.done(pack(yard.newId, yard.list(id), yard.lines(id), [{ item: A, quantity: -9000 }]));
    assert.equal(yard.line(id, A)?.packed, 0);
    assert.equal(
      refused(pack(yard.newId, yard.list(id), yard.lines(id), [{ item: A, quantity: -1000 }])),
      'list/nothing-packed',
    );
  });

  it('takes what somebody packs that is on no line', () => {
    const yard = new Yard();
    const id = yard.make({}, { [A]: 5000 });
    yard.approve(id);
    yard.done(pack(yard.newId, yard.list(id), yard.lines(id), [{ item: C, quantity: 2000 }]));
    assert.deepEqual(
      [
        yard.line(id, C)?.wanted,
        yard.line(id, C)?.packed,
        yard.kept().get(keptKey(BASE, C))?.reserved,
      ],
      [0, 2000, 2000],
    );
  });

  it('is one list with one line an item, whichever devices wrote it down', () => {
    const yard = new Yard();
    const id = yard.make({}, { [A]: 5000 });
    yard.done(setLines(yard.newId, yard.list(id), [], [{ item: A, wanted: 7000 }]), 2);
    assert.deepEqual(
      yard.lines(id).map(({ wanted }) => wanted),
      [7000],
    );
    // Nothing wanted takes it off; said twice it is written once.
    yard.done(setLines(yard.newId, yard.list(id), yard.lines(id), [{ item: A, wanted: 0 }]));
    assert.deepEqual(yard.lines(id), []);
    const again = setLines(yard.newId, yard.list(id), yard.lines(id), [{ item: A, wanted: 0 }]);
    assert.deepEqual(again.ok && again.drafts, []);
  });

  it('packs one of what is counted, and all that is left of what is weighed', () => {
    const line = {
      item: A,
      wanted: 2500,
      price: null,
      note: '',
      packed: 500,
      sent: 0,
      received: 0,
    };
    assert.equal(oneMore(line, { decimals: 0 }), 1000);
    assert.equal(oneMore(line, { decimals: 3 }), 2000);
  });
});

describe('an unload list', () => {
  it('is done once all of it came back or has a reason', () => {
    const yard = new Yard();
    const goods = [{ item: A, quantity: 5000 }];
    const move = { reason: 'loaded', from: BASE, to: EVENT, goods, note: '' } as const;
    yard.say([draft('stock.moved', yard.newId(), EVENT, move)]);
    const id = yard.make({ use: 'unload', from: EVENT, to: BASE }, { [A]: 5000 });
    yard.approve(id);
    assert.equal(yard.kept().size, 0);
    yard.done(pack(yard.newId, yard.list(id), yard.lines(id), [{ item: A, quantity: 3000 }]));
    yard.done(movePacked(yard.newId, yard.list(id), yard.lines(id), COSTS));
    const gone = (quantity: number): ListOutcome =>
      restGone({
        ...{ newId: yard.newId, list: yard.list(id), why: 'broken', costs: COSTS },
        goods: [{ item: A, quantity }],
        there: new Map([[A, yard.stock(EVENT, A)]]),
      });
    // Somebody has counted one more back than was seen.
    assert.equal(refused(gone(3000)), 'list/nothing-chosen');
    yard.done(gone(2000));
    assert.equal(yard.state(id), 'done');
    assert.deepEqual([yard.stock(EVENT, A), yard.stock('gone:broken', A)], [0, 2000]);
    assert.equal(yard.books.rows('movements').at(-1)?.amount, 360);
    // What is found after all is packed and unloaded as anything is.
    assert.deepEqual([yard.line(id, A)?.sent, yard.line(id, A)?.received], [3000, 5000]);
  });

  it('has no rest of what is packed and has not left', () => {
    const yard = new Yard();
    const id = yard.make({ use: 'unload', from: EVENT, to: BASE }, { [A]: 5000 });
    yard.approve(id);
    yard.done(pack(yard.newId, yard.list(id), yard.lines(id), [{ item: A, quantity: 3000 }]));
    const there = new Map([
      [A, 5000],
      [B, 1000],
      [C, 0],
    ]);
    assert.deepEqual(restOf(there, yard.lines(id)), [
      { item: A, quantity: 2000 },
      { item: B, quantity: 1000 },
    ]);
  });
});

describe('a transfer', () => {
  it('is on the way between two people, and what is missing has a reason', () => {
    const yard = new Yard();
    const id = yard.make({ use: 'transfer', to: STORE }, { [A]: 10_000 });
    yard.approve(id);
    assert.equal(yard.kept().get(keptKey(STORE, A))?.onOrder, 10_000);
    yard.done(pack(yard.newId, yard.list(id), yard.lines(id), [{ item: A, quantity: 10_000 }]));
    yard.done(movePacked(yard.newId, yard.list(id), yard.lines(id), COSTS));
    assert.equal(yard.stock(onTheWay(id), A), 10_000);
    assert.equal(
      refused(endList(yard.newId, yard.list(id), yard.lines(id), 'x')),
      'list/under-way',
    );
    const goods = [{ item: A, quantity: 9000, amount: null }];
    const came = { newId: yard.newId, costs: COSTS, note: '', isMoreMeant: false };
    yard.done(receive({ ...came, list: yard.list(id), lines: yard.lines(id), goods }));
    assert.equal(yard.stock(STORE, A), 9000);
    assert.equal(yard.state(id), 'in part');
    yard.done(settleWay(yard.newId, yard.list(id), yard.lines(id), 'broken', COSTS));
    assert.equal(yard.stock(onTheWay(id), A), 0);
    assert.equal(yard.stock('gone:broken', A), 1000);
    assert.equal(yard.state(id), 'done');
  });

  it('puts back what never left', () => {
    const yard = new Yard();
    const id = yard.make({ use: 'transfer', to: STORE }, { [A]: 4000 });
    yard.approve(id);
    yard.done(pack(yard.newId, yard.list(id), yard.lines(id), [{ item: A, quantity: 4000 }]));
    yard.done(movePacked(yard.newId, yard.list(id), yard.lines(id), COSTS));
    yard.done(settleWay(yard.newId, yard.list(id), yard.lines(id), 'never left', COSTS));
    assert.deepEqual([yard.stock(BASE, A), yard.stock(onTheWay(id), A)], [0, 0]);
  });

  it('is between two places, and says so', () => {
    const yard = new Yard();
    const made = (typed: Partial<TypedList>, event: string | null = null): string =>
      refused(
        setList({
          ...{ newId: yard.newId, known: null, typed: { ...TYPED, ...typed }, event },
          ...{ deviceNumber: 4, lists: [] },
        }),
      );
    assert.equal(made({ use: 'transfer', from: BASE, to: BASE }), 'list/same-place');
    assert.equal(made({ use: 'transfer', to: '' }), 'list/no-place');
    assert.equal(made({ use: 'back' }), 'list/no-supplier');
    assert.equal(made({ use: 'load' }), 'list/no-event');
    assert.equal(made({ use: 'transfer', to: STORE, day: 'soon' }), 'list/day-wrong');
  });
});

describe('an order', () => {
  const order = (yard: Yard): string => {
    const typed = { use: 'order', supplier: SUPPLIER, to: BASE } as const;
    const id = yard.make(typed, { [A]: 12_000, [B]: 6000 });
    yard.done(
      setLines(yard.newId, yard.list(id), yard.lines(id), [
        { item: A, wanted: 12_000, price: 150_000 },
      ]),
    );
    return id;
  };

  it('comes in two parts, at the price on the note or as agreed, and more only when it is meant', () => {
    const yard = new Yard();
    const id = order(yard);
    assert.deepEqual([yard.list(id).from, yard.list(id).supplier], [SUPPLIERS, SUPPLIER]);
    const come = (quantity: number, amount: number | null, isMoreMeant = false): ListOutcome =>
      receive({
        newId: yard.newId,
        list: yard.list(id),
        lines: yard.lines(id),
        goods: [{ item: A, quantity, amount }],
        ...{ costs: COSTS, note: 'note 81', isMoreMeant },
      });
    assert.equal(refused(come(1000, null)), 'list/not-approved');
    yard.approve(id);
    assert.equal(yard.kept().get(keptKey(BASE, A))?.onOrder, 12_000);
    yard.done(come(10_000, 1490));
    assert.equal(yard.state(id), 'in part');
    assert.equal(yard.kept().get(keptKey(BASE, A))?.onOrder, 2000);
    assert.equal(refused(come(3000, null)), 'list/more-than-wanted');
    yard.done(come(3000, null, true));
    // 3 at 1.50 as agreed.
    const amounts = yard.books.rows('movements').map(({ amount }) => amount);
    assert.deepEqual(amounts, [1490, 450]);
    assert.equal(yard.stock(BASE, A), 13_000);
    assert.equal(
      refused(endList(yard.newId, yard.list(id), yard.lines(id), ' ')),
      'list/no-reason',
    );
    yard.done(endList(yard.newId, yard.list(id), yard.lines(id), 'no fern before spring'));
    assert.equal(yard.state(id), 'done');
    assert.equal(yard.kept().get(keptKey(BASE, B)), undefined);
  });

  it('is a draft again as long as nothing has come', () => {
    const yard = new Yard();
    const id = order(yard);
    yard.approve(id);
    const again = approveList(yard.newId, yard.list(id), yard.lines(id));
    assert.deepEqual(again.ok && again.drafts, []);
    yard.done(redraftList(yard.newId, yard.list(id), yard.lines(id)));
    assert.equal(yard.state(id), 'draft');
    yard.done(endList(yard.newId, yard.list(id), yard.lines(id), ''));
    assert.equal(yard.state(id), 'off');
    assert.equal(refused(setLines(yard.newId, yard.list(id), yard.lines(id), [])), 'list/ended');
  });

  it('is mailed to its supplier once it is approved and there is an address', () => {
    const yard = new Yard();
    const id = order(yard);
    const mail = (to: string): ListOutcome =>
      mailList(yard.newId, yard.list(id), yard.lines(id), { to, before: 0 });
    assert.equal(refused(mail('sales@rootwell.example')), 'list/not-approved');
    yard.approve(id);
    assert.equal(refused(mail('')), 'list/no-address');
    assert.equal(refused(mail('rootwell')), 'list/no-address');
    const outcome = mail('sales@rootwell.example');
    assert.deepEqual(outcome.ok && outcome.drafts.map(({ kind, body }) => [kind, body]), [
      ['list.mailed', { list: id, before: 0 }],
    ]);
    yard.done(outcome);
    assert.equal(yard.books.rows('listActs').filter(({ does }) => does === 'mailed').length, 1);
    yard.done(endList(yard.newId, yard.list(id), yard.lines(id), 'too dear'));
    assert.equal(refused(mail('sales@rootwell.example')), 'list/ended');
    const other = yard.make({ use: 'transfer', to: STORE }, { [A]: 1000 });
    assert.equal(
      refused(
        mailList(yard.newId, yard.list(other), yard.lines(other), {
          ...{ to: 'sales@rootwell.example', before: 0 },
        }),
      ),
      'list/no-supplier',
    );
  });

  it('stands on paper and in its letter by what the supplier calls the goods', () => {
    const yard = new Yard();
    const id = order(yard);
    const named = {
      places: [],
      events: [],
      suppliers: [{ id: SUPPLIER, name: 'Rootwell' }],
    };
    const sold = {
      ...{ supplier: SUPPLIER, code: 'RW-9', pack: 1000, price: 180_000, days: null },
    };
    const document: ListDocument = {
      list: { ...yard.list(id), day: '2026-11-30', note: 'ring first' },
      lines: yard.lines(id),
      business: { name: 'Larkmoss', currency: 'GBP', locale: 'en-GB' },
      items: new Map([[A, { name: 'Fern', detail: '9 cm', code: 'F9', unit: '' }]]),
      supplies: new Map([[A, { suppliers: [sold] }]]),
      named,
    };
    const paper = listPaper(document);
    assert.deepEqual(paper.facts, [
      ['From', 'Rootwell'],
      ['To', 'Base'],
      ['Wanted by', 'Monday 30 November'],
      ['Note', 'ring first'],
    ]);
    assert.ok(paper.rows.some(([name, code]) => name === 'Fern, 9 cm' && code === 'RW-9'));
    assert.ok(paper.columns.every((_, at) => paper.rows.every((row) => row[at] !== undefined)));
    const letter = orderLetter(document);
    assert.match(letter.subject, /^Order .* from Larkmoss$/);
    assert.match(letter.text, /\d+ × Fern, 9 cm \(RW-9\)/);
    // What is not known on this device is still on it.
    const bare = listPaper({ ...document, items: new Map(), supplies: new Map() });
    assert.equal(bare.rows.length, paper.rows.length);
    assert.match(bare.rows[0]![0]!, /not known here/);
  });

  it('of nothing is not approved', () => {
    const yard = new Yard();
    const id = yard.make({ use: 'transfer', to: STORE }, {});
    assert.equal(
      refused(approveList(yard.newId, yard.list(id), yard.lines(id))),
      'list/nothing-on-it',
    );
  });

  it('goes back to the supplier for what is owed', () => {
    const yard = new Yard();
    const id = yard.make({ use: 'back', supplier: SUPPLIER }, { [A]: 2000 });
    yard.approve(id);
    yard.done(pack(yard.newId, yard.list(id), yard.lines(id), [{ item: A, quantity: 2000 }]));
    yard.done(movePacked(yard.newId, yard.list(id), yard.lines(id), COSTS));
    assert.deepEqual(
      yard.books.rows('movements').map(({ to, amount }) => [to, amount]),
      [[SUPPLIERS, 360]],
    );
  });
});

describe('filling a list', () => {
  const items = [A, B, C].map((id, n) => ({
    ...{ ...PLAIN_ITEM, id, setStamp: 'x', name: `Thing ${String(n)}`, price: 1 },
    reorder: [{ place: BASE, level: 5000 }],
  }));
  const supply = (supplier: string, pack: number, par: number | null) => ({
    suppliers: [{ supplier, code: '', pack, price: 150_000 }],
    pars: par === null ? [] : [{ place: BASE, par }],
  });
  const supplies = new Map([
    [A, supply(SUPPLIER, 6000, 20_000)],
    [B, supply(SUPPLIER, 4000, null)],
    [C, supply(idOf(52, 2), 1000, 9000)],
  ]);
  const standing =
    (onHand: number, onOrder = 0, reserved = 0) =>
    () => ({
      ...{ onHand, onOrder, reserved },
    });

  it('orders what is low up to par in whole packs, of what that supplier is preferred for', () => {
    const fill = (is: ReturnType<typeof standing>, more = {}) =>
      fromLevels({
        ...{ place: BASE, supplier: SUPPLIER, items, supplies, standing: is },
        ...more,
      }).map(({ item, wanted }) => [item, wanted]);
    // 20 less 3 are 17: three packs of six. At 5 with no par, 2 are lacking: one pack of four.
    assert.deepEqual(fill(standing(3000)), [
      [A, 18_000],
      [B, 4000],
    ]);
    assert.deepEqual(fill(standing(5000)), [
      [A, 18_000],
      [B, 4000],
    ]);
    assert.deepEqual(fill(standing(6000)), []);
    assert.deepEqual(fill(standing(3000, 6000)), []);
    assert.deepEqual(fill(standing(8000, 0, 4000)), [
      [A, 18_000],
      [B, 4000],
    ]);
    assert.deepEqual(fill(standing(3000), { canGive: () => 5000 }), [
      [A, 5000],
      [B, 4000],
    ]);
    const own = fromLevels({
      ...{ place: BASE, supplier: null, items, supplies },
      standing: standing(3000),
    });
    assert.deepEqual(
      own.map(({ wanted }) => wanted),
      [17_000, 2000, 6000],
    );
  });

  it('takes what was sold last time, and what a par level lacks', () => {
    const byId = new Map(items.map((each) => [each.id, each]));
    const sold = [
      { item: A, quantity: 20_000 },
      { item: B, quantity: -1000 },
      { item: idOf(6, 9), quantity: 1000 },
    ];
    assert.deepEqual(fromLastTime(sold, byId), [{ item: A, wanted: 20_000 }]);
    assert.deepEqual(
      fromPar(BASE, supplies, items, () => 8000),
      [
        { item: A, wanted: 12_000 },
        { item: C, wanted: 1000 },
      ],
    );
    assert.equal(inPacks(12_001, 6000), 18_000);
  });

  it('asks for what load lists want and is not there, less what is to come', () => {
    const yard = new Yard();
    const id = yard.make({}, { [A]: 8000, [B]: 3000 });
    yard.approve(id);
    yard.approve(yard.make({}, { [A]: 4000 }));
    yard.done(pack(yard.newId, yard.list(id), yard.lines(id), [{ item: B, quantity: 3000 }]));
    const lists = yard.books.rows('lists').map((list) => ({ list, lines: yard.lines(list.id) }));
    assert.deepEqual(
      shortOnLists(BASE, lists, (item) => (item === A ? 5000 : 3000)),
      [{ item: A, wanted: 7000 }],
    );
    assert.deepEqual(
      shortOnLists(STORE, lists, () => 0),
      [],
    );
  });

  it('weighs what goes into the van, and says when something has no weight', () => {
    const known = new Map([[A, { weight: 420, perCrate: 12_000 }]]);
    assert.deepEqual(loadOf([{ item: A, quantity: 30_000 }], known), {
      ...{ weight: 12_600, crates: 2500, isWhole: true },
    });
    assert.equal(loadOf([{ item: B, quantity: 1000 }], known).isWhole, false);
    const load = { weight: 150_000, crates: 30_000, isWhole: true };
    assert.equal(fullOf(load, { mostWeight: 300_000, mostCrates: 40_000 }), 0.75);
    assert.equal(fullOf(load, { mostWeight: null, mostCrates: null }), 0);
  });

  it('reads quantities with as many decimals as the item has', () => {
    assert.deepEqual(typedQuantity('2,5', { decimals: 1 }), { ok: true, quantity: 2500 });
    for (const [typed, code] of [
      ['2.5', 'list/decimals'],
      ['-1', 'list/quantity-wrong'],
      ['many', 'list/quantity-wrong'],
    ] as const) {
      const read = typedQuantity(typed, { decimals: 0 });
      assert.equal(read.ok ? 'ok' : read.refusal.code, code);
    }
  });
});

describe('lists on several devices', () => {
  const act = fc.record({
    device: fc.integer({ min: 1, max: 3 }),
    does: fc.constantFrom('pack', 'unpack', 'move', 'gone', 'sale', 'receive', 'approve', 'draft'),
    item: fc.constantFrom(A, B),
    quantity: fc.integer({ min: 1, max: 9 }).map((n) => n * 1000),
  });

  it('add up in any order: on hand is what moved, and what is kept back follows from the lists', () => {
    fc.assert(
      fc.property(fc.array(act, { maxLength: 30 }), fc.nat(), (acts, seed) => {
        const yard = new Yard();
        const load = yard.make({}, { [A]: 8000, [B]: 3000 });
        const order = yard.make({ use: 'order', supplier: SUPPLIER, to: BASE }, { [A]: 6000 });
        yard.approve(load);
        yard.approve(order);
        for (const { device, does, item, quantity } of acts) {
          const at = (id: string) => [yard.list(id), yard.lines(id)] as const;
          const writer = yard.writer(device);
          const outcome = (): ListOutcome => {
            switch (does) {
              case 'pack':
                return pack(writer.newId, ...at(load), [{ item, quantity }]);
              case 'unpack':
                return pack(writer.newId, ...at(load), [{ item, quantity: -quantity }]);
              case 'move':
                return movePacked(writer.newId, ...at(load), COSTS);
              case 'receive':
                return receive({
                  ...{ newId: writer.newId, list: at(order)[0], lines: at(order)[1] },
                  ...{ goods: [{ item, quantity, amount: null }], costs: COSTS, note: '' },
                  isMoreMeant: true,
                });
              case 'approve':
                return approveList(writer.newId, ...at(load));
              case 'draft':
                return redraftList(writer.newId, ...at(load));
              case 'gone': {
                const goods = [{ item, quantity }];
                const gone = { newId: writer.newId, event: EVENT, place: EVENT, goods, note: '' };
                return {
                  ...{ ok: true, id: load },
                  drafts: goodsGone({ ...gone, why: 'broken', costs: COSTS }),
                };
              }
              case 'sale':
                return { ok: true, id: load, drafts: writer.sale([[1, 1]], 0, NOW) };
            }
          };
          const now = outcome();
          if (now.ok) yard.say(now.drafts, device);
        }
        // The same entries in another order give the same rows.
        const other = new Books();
        for (const entry of shuffled(yard.entries, seed)) other.apply(changesOf(entry));
        for (const table of ['stock', 'lists', 'listLines', 'listSums', 'moves'] as const)
          assert.deepEqual(sorted(other.rows(table)), sorted(yard.books.rows(table)));
        for (const place of [BASE, EVENT])
          for (const item of [A, B]) {
            const moved = yard.books
              .rows('moves')
              .filter((move) => move.place === place && move.item === item)
              .reduce((total, { quantity }) => total + quantity, 0);
            assert.equal(yard.stock(place, item), moved);
          }
        const kept = yard.kept();
        const line = yard.line(load, A);
        const isOpen = ['approved', 'under way', 'in part'].includes(yard.state(load));
        const should = isOpen && line ? Math.max(0, Math.max(8000, line.packed) - line.sent) : 0;
        assert.equal(kept.get(keptKey(BASE, A))?.reserved ?? 0, should);
      }),
      { numRuns: 60 },
    );
  });
});

const sorted = (rows: readonly object[]): string[] =>
  rows.map((row) => JSON.stringify(row, Object.keys(row).sort())).sort();

/** In an order made from a number, the same for the same one. */
function shuffled<T>(all: readonly T[], seed: number): T[] {
  const rest = [...all];
  const found: T[] = [];
  let at = seed + 1;
  while (rest.length > 0) {
    at = (at * 48_271) % 2_147_483_647;
    found.push(...rest.splice(at % rest.length, 1));
  }
  return found;
}
