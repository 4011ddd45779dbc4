/** Any daybook that several devices of one business could write, for the property tests. */
import fc from 'fast-check';
import { chainEntry, EMPTY_CHAIN, headAfter, type ChainHead, type Draft } from '../daybook/chain';
import type { Posting } from '../journal/posting';
import { bankLineId } from '../books/changes/bank';
import { cardLineId } from '../books/changes/settling';
import { stampOf } from '../daybook/clock';
import { digestOf } from '../daybook/digest';
import type { Entry } from '../daybook/entry';
import { keepCard, takeCardOff } from '../customer/card-on-file';
import { draft, privateDraft } from '../daybook/kinds';
import type { BackTo } from '../event/stage';
import { STAGES } from '../daybook/kinds/event-stage';
import { inDrawer, type CashPlace } from '../drawer/cash-places';
import { countDrawer } from '../drawer/commands';
import { RIGHTS, type Right } from '../people/rights';
import { decideHold } from '../payment/decide-hold';
import { setPin } from '../people/set-pin';
import { CASH_WAY } from '../payment/ways';
import { givePartsBack } from '../sale/give-parts-back';
import { ringUp } from '../sale/ring-up';
import { takePart } from '../sale/take-part';
import type { Books } from '../books/books';
import { booksOf } from './books-of';
import { keepSlip, takeUp, throwAway } from '../set-aside/kept-slips';
import { emptySlip, putItem, type OpenSlip } from '../slip/open-slip';
import { SUPPLIERS } from '../books/names';
import type { Row } from '../books/tables';
import { LIST_STAGES } from '../daybook/kinds/list-set';
import { goodsGone } from '../stock/do-list';
import { setList } from '../stock/set-list';
import {
  idOf,
  BUSINESS,
  EVENT,
  TAX,
  DRAWER,
  LIST,
  COUNT,
  SUPPLIER,
  deviceId,
  itemId,
  pricing,
  CARD_WAY,
  tax,
  item,
  personId,
  customerId,
  customerDraft,
  personBody,
  eventBody,
  START,
} from './made-up-business';
import { ORDER_DOES, orderDrafts, type OrderStep } from './order-drafts';
import { INVOICE_DOES, invoiceDrafts, type InvoiceStep } from './invoice-drafts';
import { POINTS_DOES, pointsDrafts, type PointsStep } from './points-drafts';
import { HELD_DOES, heldDrafts, type HeldStep } from './held-drafts';
import { cameBack, corrected, exchanged, refunded, voided, type Writer } from './put-right-drafts';

export type Step =
  | {
      readonly does: 'sale';
      readonly goods: readonly (readonly [number, number])[];
      readonly over: number;
    }
  | {
      readonly does: 'parts';
      readonly goods: number;
      /** What the card clears first, and what becomes of it. */
      readonly clears: number;
      readonly tip: number;
      readonly isGivenBack: boolean;
      readonly isVoided: boolean;
      /** Where it stands: the goods come back, to stock or gone for good. */
      readonly comesBack?:
        | 'stock'
        | 'broken'
        | 'off'
        | 'exchange'
        | 'corrected'
        | 'refund'
        | undefined;
    }
  | {
      readonly does: 'card';
      readonly card: number;
      readonly became: 'asked' | 'captured' | 'declined' | 'reversed';
    }
  | { readonly does: 'hold'; readonly card: number; readonly amount: number }
  | { readonly does: 'pin'; readonly person: number; readonly isThere: boolean }
  | { readonly does: 'way'; readonly way: number; readonly surcharge: number }
  | { readonly does: 'category'; readonly category: number; readonly name: string }
  | { readonly does: 'price'; readonly item: number; readonly price: number }
  | { readonly does: 'stage'; readonly stage: (typeof STAGES)[number] }
  | { readonly does: 'event'; readonly name: string }
  | { readonly does: 'event back'; readonly to: BackTo }
  | { readonly does: 'event taxes'; readonly to: string | null }
  | { readonly does: 'event ways'; readonly ways: readonly string[] | null }
  | { readonly does: 'event group'; readonly which: (typeof GROUPS)[number]; readonly n: number }
  | { readonly does: 'lock'; readonly lockAfter: number }
  | { readonly does: 'person'; readonly person: number; readonly rights: readonly Right[] }
  | { readonly does: 'customer'; readonly customer: number; readonly name: string }
  | { readonly does: 'consent'; readonly customer: number; readonly isGiven: boolean }
  | { readonly does: 'erase'; readonly customer: number }
  | { readonly does: 'one person'; readonly customer: number; readonly into: number | null }
  | { readonly does: 'keep card'; readonly customer: number; readonly isKept: boolean }
  | { readonly does: 'aside'; readonly slip: number; readonly goods: number; readonly name: string }
  | { readonly does: 'take up' | 'throw away'; readonly slip: number }
  | { readonly does: 'maker'; readonly maker: number; readonly commission: number }
  | { readonly does: 'photo'; readonly item: number; readonly isThere: boolean }
  | { readonly does: 'settle'; readonly entry: number }
  | { readonly does: 'receipt'; readonly isGift: boolean }
  | { readonly does: 'load'; readonly item: number; readonly quantity: number }
  | {
      readonly does: 'list';
      readonly use: 'load' | 'order';
      readonly item: number;
      readonly wanted: number;
      readonly stage: (typeof LIST_STAGES)[number];
    }
  | { readonly does: 'pack'; readonly item: number; readonly quantity: number }
  | { readonly does: 'for list'; readonly item: number; readonly quantity: number }
  | { readonly does: 'gone'; readonly item: number; readonly quantity: number }
  | { readonly does: 'supply'; readonly item: number; readonly weight: number }
  | { readonly does: 'stock count'; readonly item: number; readonly quantity: number }
  | { readonly does: 'accept count'; readonly item: number; readonly found: number }
  | {
      readonly does: 'cash';
      readonly from: CashPlace;
      readonly to: CashPlace;
      readonly amount: number;
    }
  | { readonly does: 'late cash'; readonly amount: number }
  | { readonly does: 'report'; readonly line: number; readonly amount: number }
  | { readonly does: 'join'; readonly line: number; readonly isOurs: boolean }
  | { readonly does: 'came' | 'paid' | 'tips'; readonly amount: number }
  | { readonly does: 'settled'; readonly amount: number }
  | { readonly does: 'bank'; readonly which: (typeof BANK)[number]; readonly n: number }
  | { readonly does: 'cash rules'; readonly above: number }
  | HeldStep
  | PointsStep
  | InvoiceStep
  | OrderStep
  | { readonly does: 'open'; readonly float: number }
  | { readonly does: 'count'; readonly counted: number };

/** Kinds about the bank, and about who is paid what and looks after what. */
const BANK = [
  'bank.set',
  'bank.stated',
  'bank.joined',
  'money.undone',
  'handed.in',
  'staff.pay',
  'looseEnd.handed',
  'ledger.chart',
  'ledger.handed',
] as const;

const GROUPS = [
  'event.costs',
  'event.prices',
  'event.people',
  'event.bring',
  'event.ticked',
] as const;
const itemNumber = fc.integer({ min: 1, max: 4 });
const slipNumber = fc.integer({ min: 1, max: 2 });
const customerNumber = fc.integer({ min: 1, max: 2 });
export const step: fc.Arbitrary<Step> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({
      does: fc.constant('sale' as const),
      goods: fc.array(fc.tuple(itemNumber, fc.integer({ min: 1, max: 9 })), {
        minLength: 1,
        maxLength: 4,
      }),
      over: fc.integer({ min: 0, max: 500 }),
    }),
  },
  fc.record({
    does: fc.constant('parts' as const),
    goods: itemNumber,
    clears: fc.integer({ min: 1, max: 99 }),
    tip: fc.nat({ max: 200 }),
    isGivenBack: fc.boolean(),
    isVoided: fc.boolean(),
    comesBack: fc.constantFrom(
      undefined,
      ...(['stock', 'broken', 'off', 'exchange', 'corrected', 'refund'] as const),
    ),
  }),
  fc.record({
    does: fc.constant('card' as const),
    card: fc.integer({ min: 1, max: 2 }),
    became: fc.constantFrom('asked', 'captured', 'declined', 'reversed'),
  }),
  fc.record({
    does: fc.constant('hold' as const),
    card: fc.integer({ min: 1, max: 2 }),
    amount: fc.nat({ max: 1234 }),
  }),
  fc.record({
    does: fc.constant('pin' as const),
    person: fc.integer({ min: 1, max: 3 }),
    isThere: fc.boolean(),
  }),
  fc.record({
    does: fc.constant('way' as const),
    way: fc.integer({ min: 1, max: 2 }),
    surcharge: fc.nat({ max: 50 }),
  }),
  fc.record({
    does: fc.constant('category' as const),
    category: fc.integer({ min: 1, max: 2 }),
    name: fc.constantFrom('Herbs', 'Pots'),
  }),
  fc.record({
    does: fc.constant('price' as const),
    item: itemNumber,
    price: fc.nat({ max: 9999 }),
  }),
  fc.record({ does: fc.constant('stage' as const), stage: fc.constantFrom(...STAGES) }),
  fc.record({
    does: fc.constant('event back' as const),
    to: fc.constantFrom<BackTo>('planned', 'packed', 'trading', 'counted'),
  }),
  fc.record({ does: fc.constant('event taxes' as const), to: fc.constantFrom(null, TAX) }),
  fc.record({ does: fc.constant('event ways' as const), ways: fc.constantFrom(null, ['cash']) }),
  fc.record({ does: fc.constant('lock' as const), lockAfter: fc.constantFrom(0, 5, 15) }),
  fc.record({
    does: fc.constant('event' as const),
    name: fc.constantFrom('Green', 'Quay', 'Abbey'),
  }),
  fc.record({
    does: fc.constant('person' as const),
    person: fc.integer({ min: 1, max: 3 }),
    rights: fc.subarray([...RIGHTS]),
  }),
  fc.record({
    does: fc.constant('customer' as const),
    customer: customerNumber,
    name: fc.constantFrom('Wren', 'Alder', 'Moss'),
  }),
  fc.record({
    does: fc.constant('consent' as const),
    customer: customerNumber,
    isGiven: fc.boolean(),
  }),
  fc.record({ does: fc.constant('erase' as const), customer: customerNumber }),
  fc.record({
    does: fc.constant('one person' as const),
    customer: customerNumber,
    into: fc.option(customerNumber),
  }),
  fc.record({
    does: fc.constant('keep card' as const),
    customer: customerNumber,
    isKept: fc.boolean(),
  }),
  fc.record({
    does: fc.constant('aside' as const),
    slip: slipNumber,
    goods: itemNumber,
    name: fc.constantFrom('Wren', 'by the gate'),
  }),
  fc.record({ does: fc.constantFrom('take up' as const, 'throw away' as const), slip: slipNumber }),
  fc.record({
    does: fc.constant('maker' as const),
    maker: fc.integer({ min: 1, max: 2 }),
    commission: fc.nat({ max: 40 }),
  }),
  fc.record({ does: fc.constant('photo' as const), item: itemNumber, isThere: fc.boolean() }),
  fc.record({ does: fc.constant('receipt' as const), isGift: fc.boolean() }),
  fc.record({ does: fc.constant('settle' as const), entry: fc.integer({ min: 1, max: 9 }) }),
  fc.record({
    does: fc.constant('load' as const),
    item: itemNumber,
    quantity: fc.integer({ min: 1, max: 90_000 }),
  }),
  fc.record({
    does: fc.constant('list' as const),
    use: fc.constantFrom('load' as const, 'order' as const),
    item: itemNumber,
    wanted: fc.integer({ min: 0, max: 90_000 }),
    stage: fc.constantFrom(...LIST_STAGES),
  }),
  fc.record({
    does: fc.constant('pack' as const),
    item: itemNumber,
    quantity: fc.integer({ min: -5000, max: 20_000 }).filter((much) => much !== 0),
  }),
  fc.record({
    does: fc.constant('event group' as const),
    which: fc.constantFrom(...GROUPS),
    n: fc.integer({ min: 1, max: 3 }),
  }),
  ...(['for list', 'gone', 'stock count'] as const).map((does) =>
    fc.record({
      does: fc.constant(does),
      item: itemNumber,
      quantity: fc.integer({ min: 1, max: 20_000 }),
    }),
  ),
  fc.record({
    does: fc.constant('supply' as const),
    item: itemNumber,
    weight: fc.integer({ min: 0, max: 900 }),
  }),
  fc.record({
    does: fc.constant('accept count' as const),
    item: itemNumber,
    found: fc.integer({ min: 0, max: 20_000 }),
  }),
  fc.record({
    does: fc.constant('cash' as const),
    from: fc.constantFrom('safe', inDrawer(DRAWER)),
    to: fc.constantFrom('owner', 'bag', 'spent:travel', inDrawer(DRAWER)),
    amount: fc.integer({ min: 1, max: 900 }),
  }),
  fc.record({ does: fc.constant('late cash' as const), amount: fc.integer({ min: 1, max: 90 }) }),
  fc.record({
    does: fc.constant('report' as const),
    line: fc.integer({ min: 1, max: 3 }),
    amount: fc.integer({ min: -900, max: 900 }),
  }),
  fc.record({
    does: fc.constant('join' as const),
    line: fc.integer({ min: 1, max: 3 }),
    isOurs: fc.boolean(),
  }),
  ...(['came', 'paid', 'tips', 'settled'] as const).map((does) =>
    fc.record({ does: fc.constant(does), amount: fc.integer({ min: 1, max: 900 }) }),
  ),
  fc.record({
    does: fc.constant('bank' as const),
    which: fc.constantFrom(...BANK),
    n: fc.integer({ min: 1, max: 4 }),
  }),
  {
    weight: 2,
    arbitrary: fc.record({
      does: fc.constant('order' as const),
      what: fc.constantFrom(...ORDER_DOES),
      n: fc.integer({ min: 1, max: 2 }),
      quantity: fc.integer({ min: 1, max: 9 }),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      does: fc.constant('held' as const),
      what: fc.constantFrom(...HELD_DOES),
      on: fc.constantFrom('customer' as const, 'credit' as const, 'voucher' as const),
      n: fc.integer({ min: 1, max: 2 }),
      amount: fc.integer({ min: 1, max: 2000 }),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      does: fc.constant('points' as const),
      what: fc.constantFrom(...POINTS_DOES),
      n: fc.integer({ min: 1, max: 2 }),
      amount: fc.integer({ min: 1, max: 2000 }),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      does: fc.constant('invoice' as const),
      what: fc.constantFrom(...INVOICE_DOES),
      n: fc.integer({ min: 1, max: 2 }),
      amount: fc.integer({ min: 20, max: 2000 }),
    }),
  },
  fc.record({ does: fc.constant('cash rules' as const), above: fc.nat({ max: 500 }) }),
  fc.record({ does: fc.constant('open' as const), float: fc.nat({ max: 20 }) }),
  fc.record({ does: fc.constant('count' as const), counted: fc.nat({ max: 50 }) }),
);
const steps = fc.array(
  fc.record({
    device: fc.integer({ min: 1, max: 3 }),
    lag: fc.integer({ min: -90_000, max: 90_000 }),
    step,
  }),
  { minLength: 1, maxLength: 25 },
);

/**
 * Entries of up to three devices with clocks that are off by up to a minute and a half and may run
 * backwards, each device's in its own order.
 */
export const arbitraryDaybook: fc.Arbitrary<readonly Entry[]> = steps.map((all) => {
  const writers = new Map<number, DeviceWriter>();
  return all.flatMap(({ device, lag, step: what }, at) => {
    let writer = writers.get(device);
    if (writer === undefined) {
      writer = new DeviceWriter(device);
      writers.set(device, writer);
    }
    return writer.write(what, START + at * 60_000 + lag);
  });
});

/** One device of the daybook: its chain and its counters. */
export class DeviceWriter implements Writer {
  #head: ChainHead = EMPTY_CHAIN;
  #ids = 0;
  #sales = 0;
  #reads = 0;
  #returns = 0;

  constructor(readonly number: number) {}

  /** Where its chain stands. */
  get head(): ChainHead {
    return this.#head;
  }

  readonly nextSale = (): number => (this.#sales += 1);
  readonly nextReturn = (): number => (this.#returns += 1);

  /** On a chain of its own, since only the rows are wanted. */
  readonly booksOf = (drafts: readonly Draft[], by: string | null): Books =>
    booksOf(new DeviceWriter(this.number).append(drafts, START, by));

  readonly newId = (): string => idOf(100 + this.number, (this.#ids += 1));

  append(
    drafts: readonly Draft[],
    now: number,
    by: string | null = null,
    lentBy?: string,
  ): Entry[] {
    return drafts.map((each) => {
      const entry = chainEntry(each, this.#head, {
        business: BUSINESS,
        device: deviceId(this.number),
        by,
        lentBy,
        now,
      });
      this.#head = headAfter(entry);
      return entry;
    });
  }

  write(what: Step, now: number): Entry[] {
    return this.append(this.steps(what, now), now);
  }

  /** What a step would write, without a place in the chain yet. */
  steps(what: Step, now: number): readonly Draft[] {
    switch (what.does) {
      case 'sale':
        return this.sale(what.goods, what.over, now);
      case 'parts':
        return this.parts(what, now);
      case 'order':
        return orderDrafts(this, what, null, now);
      case 'points':
        return pointsDrafts(this, what, null, now);
      case 'invoice':
        return invoiceDrafts(this, what, null, now);
      case 'held':
        return heldDrafts(this, what, null, now);
      case 'card': {
        const payment = idOf(40, what.card);
        if (what.became === 'asked') {
          const body = { payment, slip: idOf(20, 1), way: CARD_WAY.id, amount: 1234 };
          return [draft('payment.asked', this.newId(), EVENT, body)];
        }
        const said = { amount: 1234, approval: '123456', acquirer: 'a', reason: '' };
        const body = { payment, state: what.became, ...said };
        return [draft('payment.result', this.newId(), EVENT, body)];
      }
      case 'hold': {
        const does = what.amount === 0 ? 'release' : 'capture';
        const held = { id: idOf(40, what.card), event: EVENT };
        return [decideHold(this.newId, held, does, what.amount)];
      }
      case 'pin': {
        const hash = String(this.number).repeat(64);
        const pin = what.isThere ? { hash, iterations: 1000, salt: 'salt' } : null;
        return setPin(this.newId, personId(what.person), pin).drafts;
      }
      case 'way': {
        const { setStamp: _stamp, ...body } = CARD_WAY;
        const id = idOf(32, what.way);
        const said = { name: `Way ${String(what.way)}`, surchargeFixed: what.surcharge };
        const plain = { ...body, ...said, id, method: 'own', side: 'card' } as const;
        return [draft('way.set', this.newId(), null, plain)];
      }
      case 'category': {
        const body = { id: idOf(31, what.category), name: what.name, sort: 0, isActive: true };
        return [draft('category.set', this.newId(), null, body)];
      }
      case 'price': {
        const { setStamp: _stamp, ...fields } = item(what.item, what.price);
        return [draft('item.set', this.newId(), null, { ...fields, barcodes: [], taxes: [TAX] })];
      }
      case 'stage':
        return [draft('event.stage', this.newId(), EVENT, { event: EVENT, stage: what.stage })];
      case 'event':
        return [draft('event.set', this.newId(), EVENT, eventBody(what.name))];
      case 'event back': {
        const body = { event: EVENT, to: what.to, why: 'the wrong tin' };
        return [draft('event.back', this.newId(), EVENT, body)];
      }
      case 'event taxes': {
        const swaps = [{ from: TAX, to: what.to }];
        return [draft('event.taxes', this.newId(), EVENT, { event: EVENT, swaps })];
      }
      case 'event ways':
        return [draft('event.ways', this.newId(), EVENT, { event: EVENT, ways: what.ways })];
      case 'event group':
        return [this.#group(what.which, what.n)];
      case 'lock':
        return [draft('business.lock', this.newId(), null, { lockAfter: what.lockAfter })];
      case 'person':
        return [draft('staff.set', this.newId(), null, personBody(what.person, what.rights))];
      case 'customer':
        return [customerDraft(what.customer, what.name, this.newId)];
      case 'consent': {
        const { isGiven } = what;
        const body = { customer: customerId(what.customer), isGiven, way: 'spoken' } as const;
        return [draft('customer.consent', this.newId(), null, body)];
      }
      case 'keep card': {
        const customer = customerId(what.customer);
        const last4 = String(this.number).padStart(4, '4');
        const card = { scheme: 'Visa', last4, expiry: '2029-04' };
        const [newId, newSalt] = [this.newId, () => 'sixteen-letters-'];
        const outcome = what.isKept
          ? keepCard({ newId, newSalt, customer, card, consent: 'spoken' })
          : takeCardOff(newId, customer);
        return outcome.ok ? outcome.drafts : [];
      }
      case 'one person': {
        const { customer, into } = what;
        if (customer === into) return [];
        const body = {
          customer: customerId(customer),
          into: into === null ? null : customerId(into),
        };
        return [draft('customer.joined', this.newId(), null, body)];
      }
      case 'erase': {
        const body = { customer: customerId(what.customer) };
        return [draft('customer.erased', this.newId(), null, body)];
      }
      case 'aside':
        return this.#aside(what.slip, what.goods, what.name);
      case 'take up':
        return takeUp(this.newId, EVENT, idOf(20, what.slip)).drafts;
      case 'throw away':
        return throwAway(this.newId, EVENT, { id: idOf(20, what.slip) }).drafts;
      case 'maker': {
        const { maker: number, commission } = what;
        const said = {
          number,
          name: `Maker ${String(number)}`,
          commission: String(commission),
          email: '',
        };
        const body = { id: idOf(21, number), ...said, isActive: true };
        return [draft('maker.set', this.newId(), null, body)];
      }
      case 'photo': {
        const picture = what.isThere ? 'data:image/webp;base64,UklGRg==' : null;
        return [draft('photo.set', this.newId(), null, { item: itemId(what.item), picture })];
      }
      case 'receipt': {
        const { isGift } = what;
        const body = { sale: idOf(41, this.number), way: 'email', isGift, customer: null } as const;
        const to = 'wren@green.example';
        return [privateDraft('receipt.asked', this.newId(), body, 'sixteen-letters-', { to })];
      }
      case 'settle': {
        const looseEnd = `entry:${idOf(100, what.entry)}`;
        const body = { looseEnd, how: 'accepted', reason: 'seen' } as const;
        return [draft('looseEnd.settled', this.newId(), null, body)];
      }
      case 'load':
        return [
          draft('stock.moved', this.newId(), EVENT, {
            reason: 'loaded',
            from: 'base',
            to: EVENT,
            goods: [{ item: itemId(what.item), quantity: what.quantity }],
            note: '',
          }),
        ];
      case 'list':
        return this.#list(what);
      case 'pack': {
        const goods = [{ item: itemId(what.item), quantity: what.quantity }];
        return [draft('list.packed', this.newId(), EVENT, { list: LIST, goods })];
      }
      case 'for list': {
        const goods = [{ item: itemId(what.item), quantity: what.quantity, amount: what.item }];
        const list = { id: LIST, does: 'move' } as const;
        const body = { reason: 'delivered', from: SUPPLIERS, to: 'base', goods, note: '' } as const;
        const said = { ...body, list, supplier: SUPPLIER };
        return [draft('stock.moved', this.newId(), EVENT, said)];
      }
      case 'gone':
        return goodsGone({
          newId: this.newId,
          event: EVENT,
          place: EVENT,
          goods: [{ item: itemId(what.item), quantity: what.quantity }],
          why: 'broken',
          costs: new Map([[itemId(what.item), item(what.item, 1)]]),
          note: '',
        });
      case 'supply': {
        const suppliers = [{ supplier: SUPPLIER, code: '', pack: 6000, price: 150_000 }];
        const said = { suppliers, pars: [], weight: what.weight, perCrate: null };
        return [draft('item.supply', this.newId(), null, { item: itemId(what.item), ...said })];
      }
      case 'stock count': {
        const goods = [{ item: itemId(what.item), quantity: what.quantity }];
        return [draft('count.noted', this.newId(), EVENT, { count: COUNT, goods })];
      }
      case 'accept count': {
        const figures = { counted: what.found, expected: 7000, lost: 12, retail: 34 };
        const stamp = stampOf({ millis: START, counter: 0 }, deviceId(this.number));
        const goods = [{ item: itemId(what.item), ...figures, stamp }];
        const body = { count: COUNT, place: EVENT, goods, reason: 'counted' };
        return [draft('count.accepted', this.newId(), EVENT, body)];
      }
      case 'cash': {
        const { from, to, amount } = what;
        const bag = to === 'bag' ? { bag: `B${String(this.number)}` } : {};
        const body = { from, to, amount, what: 'so it was', ...bag };
        return [draft('cash.moved', this.newId(), EVENT, body)];
      }
      case 'late cash': {
        const body = { drawer: DRAWER, amount: what.amount, reason: 'a phone sent late' };
        return [draft('drawer.late', this.newId(), EVENT, body)];
      }
      case 'report': {
        const { line: n, amount } = what;
        const id = `line-${String(n)}`;
        const said = { sort: 'payment', reference: idOf(40, n), amount, fee: n } as const;
        const line = { id, ...said, scheme: 'Visa', last4: '4242', at: '2026-11-22T10:00:00Z' };
        const lines = [{ ...line, payout: 'PO-1', payoutDay: '2026-11-23' }];
        const body = { source: 'acquirer', day: '2026-11-22', lines };
        return [draft('cards.reported', this.newId(), null, body)];
      }
      case 'join': {
        const line = cardLineId(BUSINESS, 'acquirer', `line-${String(what.line)}`);
        const payment = what.isOurs ? idOf(40, what.line) : null;
        return [draft('cards.joined', this.newId(), null, { line, payment, why: 'looked at' })];
      }
      case 'came': {
        const from = [{ account: `owed:${CARD_WAY.id}`, amount: what.amount + 5 }];
        const body = {
          ...{ day: '2026-11-24', amount: what.amount, fees: 5, from, payments: [], what: 'PO-1' },
        };
        return [draft('money.came', this.newId(), EVENT, body)];
      }
      case 'tips': {
        const taken = [{ seller: 'nobody', amount: what.amount }];
        const shares = [{ person: idOf(7, 1), amount: what.amount }];
        return [draft('tips.shared', this.newId(), EVENT, { how: 'equally', taken, shares })];
      }
      case 'paid': {
        const body = { for: 'tips', whom: idOf(7, 1), amount: what.amount, from: 'safe' } as const;
        return [draft('paid.out', this.newId(), EVENT, { ...body, what: 'tips' })];
      }
      case 'settled': {
        const balances = [
          { account: 'safe', amount: -what.amount },
          { account: 'sales', amount: what.amount },
        ] as const;
        const heads = [{ device: deviceId(1), seq: 1, hash: 'a'.repeat(64) }];
        const facts = { event: EVENT, balances, heads, leftOut: [] };
        const body = { ...facts, accepted: [], isAddendum: false, digest: digestOf(facts) };
        return [draft('event.settled', this.newId(), EVENT, body)];
      }
      case 'bank':
        return [this.#bank(what.which, what.n)];
      case 'cash rules': {
        const body = { isBlind: what.above % 2 === 0, refundMost: null, recountAbove: what.above };
        return [draft('business.cash', this.newId(), null, body)];
      }
      case 'open': {
        const counts = [{ value: 100, count: what.float }];
        const body = { name: 'Tin', float: what.float * 100, counts };
        return [draft('drawer.opened', this.newId(), EVENT, body)];
      }
      case 'count':
        return this.#count(what.counted);
    }
  }

  #bank(which: (typeof BANK)[number], n: number): Draft {
    const [account, id] = [idOf(75, 1), this.newId()];
    const line = bankLineId(BUSINESS, account, String(n).repeat(32));
    switch (which) {
      case 'bank.set': {
        const body = { id: account, name: `Bank ${String(n)}`, number: `GB0${String(n)}` };
        return draft('bank.set', id, null, { ...body, columns: null, isActive: n > 1 });
      }
      case 'bank.stated': {
        const said = { day: '2026-11-24', amount: n * 100, reference: '', text: '', other: '' };
        const lines = [{ id: String(n).repeat(32), ...said }];
        return draft('bank.stated', id, null, { account, source: 'nov.xml', lines });
      }
      case 'bank.joined': {
        const money = n === 4 ? null : idOf(76, n);
        return draft('bank.joined', id, null, { line, money, amount: n - 1, why: '' });
      }
      case 'money.undone': {
        const postings: Posting[] = [
          { account: 'bank', amount: -n },
          { account: `owed:${CARD_WAY.id}`, amount: n },
        ];
        const takes = { of: idOf(76, n), postings };
        return draft('money.undone', id, EVENT, { takes, why: 'another line' });
      }
      case 'handed.in': {
        const body = { way: CARD_WAY.id, day: '2026-11-24', amount: n, payments: [] };
        return draft('handed.in', id, EVENT, { ...body, what: 'slip 7' });
      }
      case 'staff.pay':
        return draft('staff.pay', id, null, {
          ...{ person: personId(n), wage: n * 100, commission: '2.5' },
        });
      case 'ledger.chart': {
        const accounts = [{ head: 'sales' as const, number: String(n), name: 'Plants' }];
        return draft('ledger.chart', id, null, { accounts });
      }
      case 'ledger.handed': {
        const heads = [{ device: deviceId(1), seq: n }];
        const body = { event: EVENT, groupedBy: 'day', heads, leftOut: [], postings: n } as const;
        return draft('ledger.handed', id, EVENT, body);
      }
      case 'looseEnd.handed': {
        const to = n === 4 ? null : personId(n);
        return draft('looseEnd.handed', id, null, { looseEnd: 'bag:one', to, note: 'please' });
      }
    }
  }

  #group(which: (typeof GROUPS)[number], n: number): Draft {
    const id = this.newId();
    switch (which) {
      case 'event.costs': {
        const fee = { kind: 'both', fixed: n, percent: '2.5', of: 'net' } as const;
        return draft(which, id, EVENT, { event: EVENT, fee, costs: [] });
      }
      case 'event.prices': {
        const over = [{ category: '', percent: String(n), isOff: false, step: 5 }];
        return draft(which, id, EVENT, { event: EVENT, single: [], over });
      }
      case 'event.people':
        return draft(which, id, EVENT, { event: EVENT, duty: [], devices: [deviceId(n)] });
      case 'event.bring': {
        const things = [{ id: idOf(54, n), name: `Cloth ${String(n)}` }];
        return draft(which, id, EVENT, { event: EVENT, things });
      }
      case 'event.ticked': {
        const body = { event: EVENT, thing: idOf(54, n), isDone: n % 2 === 0 };
        return draft(which, id, EVENT, body);
      }
    }
  }

  #list({ use, item: n, wanted, stage }: Extract<Step, { does: 'list' }>): readonly Draft[] {
    const typed = {
      use,
      name: '',
      to: use === 'load' ? EVENT : 'base',
      van: '',
      day: '',
      note: '',
    };
    const made = setList({
      newId: this.newId,
      known: null,
      typed: { ...typed, from: 'base', supplier: use === 'load' ? '' : SUPPLIER },
      event: EVENT,
      deviceNumber: this.number,
      lists: [],
    });
    if (!made.ok) throw new Error(made.refusal.code);
    const head = made.drafts.map((each) => ({
      ...each,
      body: { ...(each.body as object), list: LIST },
    }));
    const line = { list: LIST, item: itemId(n), wanted, price: null, note: '' };
    return [
      ...head,
      draft('list.line', this.newId(), EVENT, line),
      draft('list.stage', this.newId(), EVENT, { list: LIST, to: stage, why: 'so' }),
    ];
  }

  /** A slip with one line of its own making, so that two devices' lines both stay. */
  #aside(slip: number, goods: number, name: string): readonly Draft[] {
    const put = putItem(
      emptySlip(idOf(20, slip)),
      item(goods, 450),
      1000,
      idOf(22, this.number * 10 + goods),
    );
    if (!put.ok) throw new Error(put.refusal.code);
    const kept = keepSlip({
      newId: this.newId,
      event: EVENT,
      slip: put.slip,
      sort: 'aside',
      name,
      known: [],
    });
    if (!kept.ok) throw new Error(kept.refusal.code);
    return kept.drafts;
  }

  /** A sale of goods as [item number, how many], with `over` minor units handed over too much. */
  sale(goods: readonly (readonly [number, number])[], over: number, now: number): readonly Draft[] {
    let slip: OpenSlip = emptySlip(this.newId());
    let total = 0;
    for (const [n, count] of goods) {
      const put = putItem(slip, item(n, n * 105), count * 1000, `line-${String(n)}`);
      if (put.ok) {
        slip = put.slip;
        total += n * 105 * count;
      }
    }
    const rung = ringUp({
      newId: this.newId,
      slip,
      pricing,
      taxes: [tax],
      event: { id: EVENT, timeZone: 'Europe/London' },
      drawer: DRAWER,
      handed: total + over,
      deviceNumber: this.number,
      number: (this.#sales += 1),
      now,
    });
    if (!rung.ok) throw new Error(rung.refusal.code);
    return rung.drafts;
  }

  /** Part of a slip by card, which is then given back or followed by cash. */
  parts(
    what: Omit<Extract<Step, { does: 'parts' }>, 'does'>,
    now: number,
    by: string | null = null,
  ): readonly Draft[] {
    const put = putItem(emptySlip(this.newId()), item(what.goods, 105), 1000, 'line');
    if (!put.ok) throw new Error(put.refusal.code);
    const surroundings = {
      newId: this.newId,
      pricing: { ...pricing, uplift: '2' },
      taxes: [tax],
      event: { id: EVENT, timeZone: 'Europe/London' },
      drawer: DRAWER,
      deviceNumber: this.number,
      number: this.#sales + 1,
      now,
    };
    const { clears, tip } = what;
    const card = takePart({ ...surroundings, slip: put.slip, way: CARD_WAY, amount: clears, tip });
    if (!card.ok || card.slip === null) throw new Error('the card part was not taken');
    if (what.isGivenBack) {
      const parts = [card.part.id];
      const back = givePartsBack({
        takenBy: new Map(by === null ? [] : [[card.part.id, by]]),
        newId: this.newId,
        slip: card.slip,
        event: EVENT,
        parts,
        reason: 'left half-way',
      });
      return [...card.drafts, ...back.drafts];
    }
    const cash = takePart({ ...surroundings, slip: card.slip, way: CASH_WAY, amount: null });
    if (!cash.ok) throw new Error(cash.refusal.code);
    this.#sales += 1;
    const all = [...card.drafts, ...cash.drafts];
    if (what.isVoided) return [...all, ...voided(this, all, by, what.goods % 2 === 0)];
    const { comesBack } = what;
    if (comesBack === undefined) return all;
    if (comesBack === 'refund') return [...all, ...refunded(this, what.goods, now)];
    if (comesBack === 'corrected') return [...all, ...corrected(this, all, by)];
    return comesBack === 'exchange'
      ? [...all, ...exchanged(this, all, by, now)]
      : [...all, ...cameBack(this, all, by, comesBack)];
  }

  #count(counted: number): readonly Draft[] {
    const drawer: Row<'drawers'> = {
      id: DRAWER,
      event: EVENT,
      device: deviceId(1),
      by: null,
      at: '',
      name: 'Tin',
      float: 5000,
      counts: [],
    };
    const outcome = countDrawer({
      newId: this.newId,
      drawer,
      sums: undefined,
      counts: [{ value: 100, count: counted }],
      leaves: { stays: 0, bag: counted < 20 ? null : { number: 'B1', amount: 1500 } },
      reason: 'counted in the rain',
      number: (this.#reads += 1),
      reads: [],
      othersAreOpen: false,
    });
    if (!outcome.ok) throw new Error(outcome.refusal.code);
    return outcome.drafts;
  }
}
