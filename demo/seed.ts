/** Puts a demo business into the daybook, by entries through the ordinary append. */
import { NO_FEE } from '../src/lib/core/event/pitch-fee';
import type { Row } from '../src/lib/core/books/tables';
import { BASE, SUPPLIERS } from '../src/lib/core/books/tables';
import { noteConsent } from '../src/lib/core/customer/set-customer';
import { draft, privateDraft, type BodyOf } from '../src/lib/core/daybook/kinds';
import type { Draft } from '../src/lib/core/daybook/chain';
import { countDrawer, openDrawer } from '../src/lib/core/drawer/commands';
import { bagsOf } from '../src/lib/core/drawer/move-cash';
import { localTime, momentOf } from '../src/lib/core/event/local-time';
import { piecesOf } from '../src/lib/core/payment/cash-handed';
import { makeReturn } from '../src/lib/core/sale/make-return';
import { saleDocument } from '../src/lib/server/books/find-sales';
import { BookReader } from '../src/lib/server/books/read-books';
import { Accounts } from '../src/lib/server/access/accounts';
import { noteAnswer, noteAsked } from '../src/lib/server/cards/cards-asked';
import { noteSeen } from '../src/lib/server/access/devices';
import { Enrolment } from '../src/lib/server/access/enrolment';
import type { Database } from '../src/lib/server/database/database';
import { DemoBank, type DemoFile } from './bank';
import type { DemoBusiness, DemoCustomer } from './business';
import { Chance } from './chance';
import { DemoDevice, newId } from './demo-device';
import { recordIdOf } from './ids';
import { bodyOf } from './person';
import { pastMarkets, seedSeason } from './season';
import { heldMatters } from './held';
import { standingCharges } from './charges';
import { invoiceMatters, invoicingSetUp } from './invoices';
import { pointMatters, pointsSetUp } from './points';
import { keptWithDeposit, todaysOrders } from './orders';
import { putRight } from './putting-right';
import { settleEdition } from './settling';
import { carriedAndDeclined, draftsOf, salesOfDay } from './trading-day';

const DAY = 86_400_000;

/**
 * Makes sure that the business is there, with its past editions, and has an event today.
 * What is there already stays as it is, so it can be run at every start.
 * @param now Milliseconds since 1970; the dates of all events follow it.
 * @returns Statements of its bank that nobody has taken in yet; none where it was there already.
 */
export async function seed(
  database: Database,
  demo: DemoBusiness,
  now: number,
): Promise<readonly DemoFile[]> {
  let files: readonly DemoFile[] = [];
  const enrolment = new Enrolment(database);
  const books = new BookReader(database);
  const isThere = (await books.rows(demo.id, 'businesses')).length > 0;
  const began = now - 120 * DAY;
  const enrol = (name: string): Promise<DemoDevice> =>
    DemoDevice.enrol(enrolment, demo.id, recordIdOf(demo.id, 'device', name), name, began);
  const { email, password } = demo.account;
  await new Accounts(database, enrolment).addOwner(demo.id, email, password, now);
  const desk = await enrol('Desk');
  if (!isThere) {
    const devices: DemoDevice[] = [];
    for (const name of demo.devices) devices.push(await enrol(name));
    await setUp(desk, demo, began);
    await desk.send();
    const bank = new DemoBank(desk, books, demo, ownerOf(demo));
    await bank.setUp(began + 60_000);
    const own = demo.editions.map(({ daysAgo, sales }) => ({
      ...{ daysAgo, sales, event: eventOn(demo, now - daysAgo * DAY) },
    }));
    const past = [...own, ...pastMarkets(demo, now)].sort((a, b) => b.daysAgo - a.daysAgo);
    for (const [at, { daysAgo, sales, event }] of past.entries()) {
      const isOpen = daysAgo === past.at(-1)?.daysAgo;
      // Enough that something of everything went wrong.
      const most = isOpen ? Math.max(sales, 30) : sales;
      const edition = { event, sales: most, seed: daysAgo * 7919 + sales, isOpen };
      const counted = await pastEdition(desk, devices, demo, {
        ...edition,
        before: past.length - 1 - at,
      });
      const settling = { bank, desk, books, demo, owner: ownerOf(demo) };
      await settleEdition(settling, { event: event.id, counted, isOpen });
      if (isOpen) files = await lastStatement(bank, books, demo, event, now);
    }
    const atBase = async (): Promise<ReadonlyMap<string, number>> => {
      const rows = await books.rows(demo.id, 'stock', { place: BASE });
      return new Map(rows.map(({ item, quantity }) => [item, quantity]));
    };
    await invoiceMatters(desk, books, demo, now);
    await standingCharges(desk, books, demo, now);
    await seedSeason(desk, devices[0] ?? desk, demo, { now, atBase });
  }
  const today = tonightAsWell(eventOn(demo, now), now);
  const date = today.days[0]!.date;
  const events = await books.rows(demo.id, 'events');
  if (!events.some(({ days }) => days.some((day) => day.date === date))) {
    prepare(desk, demo, today, now);
    await desk.send();
    if (!isThere) await todaysOrders(desk, demo, today, now);
  }
  return files;
}

/** What the bank has of the last market since: its bag, its pitch, and something that has nothing to do with it. */
async function lastStatement(
  bank: DemoBank,
  books: BookReader,
  demo: DemoBusiness,
  { id, name }: BodyOf<'event.set'>,
  now: number,
): Promise<readonly DemoFile[]> {
  const day = new Date(now).toISOString().slice(0, 10);
  const bags = await books.rows(demo.id, 'eventAccounts', { event: id });
  const reads = await books.rows(demo.id, 'drawerReads', { event: id });
  const moves = await books.rows(demo.id, 'cashMoves', { event: id });
  for (const { id: bag, number } of bagsOf(reads, moves)) {
    const amount = bags.find(({ account }) => account === `bag:${bag}`)?.amount ?? 0;
    bank.book(day, amount, 'Branch counter', `Cash paid in, bag ${number}`);
  }
  bank.book(day, -PITCH, 'Market office', `Pitch, ${name}`);
  bank.book(day, -1899, 'Lantern Energy', 'Electricity at home');
  return bank.files(day, day);
}

const ownerOf = (demo: DemoBusiness): string | null => demo.staff[0]?.id ?? null;

/** Sellers take turns, device by device. */
const sellerOf = (demo: DemoBusiness, device: number): string | null =>
  demo.staff[(device + 1) % demo.staff.length]?.id ?? null;

async function setUp(desk: DemoDevice, demo: DemoBusiness, at: number): Promise<void> {
  const drafts: Draft[] = [draft('business.set', newId(), null, demo.business)];
  // The owner first: whoever is set up after that is set up by the owner.
  for (const each of demo.staff) {
    drafts.push(draft('staff.set', newId(), null, await bodyOf(demo.id, each)));
  }
  for (const customer of [...demo.customers, demo.invoices.to, demo.charges.who])
    drafts.push(...customerDrafts(demo.id, customer));
  for (const { who, isOne } of demo.customers) {
    if (isOne === undefined) continue;
    const customer = recordIdOf(demo.id, 'customer', who.name);
    const into = recordIdOf(demo.id, 'customer', isOne);
    drafts.push(draft('customer.joined', newId(), null, { customer, into }));
  }
  for (const body of demo.taxes) drafts.push(draft('tax.set', newId(), null, body));
  for (const body of demo.makers) drafts.push(draft('maker.set', newId(), null, body));
  for (const body of demo.ways) drafts.push(draft('way.set', newId(), null, body));
  drafts.push(...pointsSetUp(demo), ...invoicingSetUp(demo));
  const names = [...new Set(demo.items.map(({ table }) => table))];
  for (const [sort, name] of names.entries()) {
    const body = { id: recordIdOf(demo.id, 'category', name), name, sort, isActive: true };
    drafts.push(draft('category.set', newId(), null, body));
  }
  for (const { body } of demo.items) drafts.push(draft('item.set', newId(), null, body));
  for (const [sort, name] of names.entries()) {
    const goods = demo.items
      .filter(({ table, body }) => table === name && body.variantOf === null)
      .map(({ body, width }) => ({ item: body.id, width }));
    const id = recordIdOf(demo.id, 'table', name);
    const body = { id, name, sort, goods, event: null, size: 'middle', isActive: true } as const;
    drafts.push(draft('table.set', newId(), null, body));
  }
  const stock = demo.items
    .filter(({ body, load }) => body.isStocked && load > 0)
    .map(({ body, load }) => ({ item: body.id, quantity: load * 8 }));
  drafts.push(
    draft('stock.moved', newId(), null, {
      reason: 'delivered',
      from: SUPPLIERS,
      to: BASE,
      goods: stock,
      note: 'season’s stock',
    }),
  );
  desk.write(drafts, at, ownerOf(demo));
}

type EventBody = BodyOf<'event.set'>;

/** The event that the demo has on the day of a moment, by the clock of its own place. */
function eventOn(demo: DemoBusiness, at: number): EventBody {
  const { opens, closes, ...rest } = demo.event;
  const { timeZone } = demo.business;
  const { day } = localTime(at, timeZone);
  return {
    ...rest,
    id: recordIdOf(demo.id, 'event', day),
    days: [{ date: day, opens, closes }],
    timeZone,
    notes: '',
  };
}

/** From eight in the evening the event goes on for another day, so that nobody who tries it is left at midnight. */
function tonightAsWell(event: EventBody, now: number): EventBody {
  const [day] = event.days;
  if (day === undefined || localTime(now, event.timeZone).hour < 20) return event;
  const next = localTime(now + DAY, event.timeZone).day;
  return { ...event, days: [day, { ...day, date: next }] };
}

/** What a day at a pitch costs, in minor units. */
const PITCH = 4500;

/** Announces an event, loads its goods and starts trading. */
function prepare(desk: DemoDevice, demo: DemoBusiness, event: EventBody, at: number): void {
  const goods = demo.items
    .filter(({ body, load }) => body.isStocked && load > 0)
    .map(({ body, load }) => ({ item: body.id, quantity: load }));
  const stage = (name: BodyOf<'event.stage'>['stage']) =>
    draft('event.stage', newId(), event.id, { event: event.id, stage: name });
  const fee = { ...NO_FEE, kind: 'fixed', fixed: PITCH } as const;
  const move = { reason: 'loaded', from: BASE, to: event.id, goods, note: 'the van' } as const;
  const drafts = [
    draft('event.set', newId(), event.id, event),
    draft('event.costs', newId(), event.id, { event: event.id, fee, costs: [] }),
    draft('stock.moved', newId(), event.id, move),
    stage('packed'),
    stage('trading'),
  ];
  desk.write(drafts, at, ownerOf(demo));
}

interface Edition {
  readonly event: EventBody;
  readonly sales: number;
  readonly seed: number;
  /** The last one: some of it does not tie up. */
  readonly isOpen: boolean;
  /** How many editions before the last one it was. */
  readonly before: number;
}

/** So many before the last one have customers who owe and vouchers that are spent. */
const WITH_ACCOUNTS = 4;

async function pastEdition(
  desk: DemoDevice,
  devices: readonly DemoDevice[],
  demo: DemoBusiness,
  { event, sales, seed: from, isOpen, before }: Edition,
): Promise<number> {
  const opens = momentOf(event.days[0]!.date, event.days[0]!.opens, event.timeZone);
  const hours =
    Number(event.days[0]!.closes.slice(0, 2)) - Number(event.days[0]!.opens.slice(0, 2));
  const chance = new Chance(from);
  prepare(desk, demo, event, opens - 2 * 3_600_000);

  const drawer = newId();
  const opened = openDrawer({
    id: drawer,
    event: event.id,
    name: 'Drawer 1',
    counts: demo.float,
    open: [],
  });
  if (!opened.ok) throw new Error(opened.refusal.code);
  desk.write(opened.drafts, opens - 900_000, ownerOf(demo));

  let [handed, change] = [0, 0];
  const cashSales: string[] = [];
  const left = new Map(demo.items.map(({ body, load }) => [body.id, body.isStocked ? load : 0]));
  const day = salesOfDay(demo, { opens, hours, sales }, chance, newId);
  const declined = isOpen ? day.findLast(({ handed: cash }) => cash === null) : undefined;
  for (const sale of day) {
    const device = devices[sale.device]!;
    const at = { event, drawer, deviceNumber: device.number, number: nextNumber(device, 'sale') };
    const rung = draftsOf(sale, demo, at, newId);
    const drafts = sale === declined ? carriedAndDeclined(rung, newId) : rung;
    device.write(drafts, sale.at, sellerOf(demo, sale.device));
    await noteCards(desk.database, device, drafts, demo.business.currency, sale.at);
    for (const { id, kind, body } of drafts) {
      if (kind === 'sale.rung' && sale.handed !== null) cashSales.push(id);
      if (kind === 'sale.rung')
        for (const { item, quantity } of (body as BodyOf<'sale.rung'>).lines)
          if (item !== null) left.set(item, (left.get(item) ?? 0) - quantity);
      if (kind !== 'payment.taken' || body['drawer'] === null) continue;
      handed += Number(body['charge']);
      change += Number(body['change']);
    }
  }
  await desk.send();
  for (const device of devices) await device.send();
  // A helper's phone has not sent all it has since.
  const quiet = devices.at(-1);
  if (isOpen && quiet !== undefined) await noteSeen(desk.database, quiet, quiet.head + 4, opens);
  const closes = opens + hours * 3_600_000;
  const gave = isOpen
    ? null
    : await cameBack(desk, demo, event, { drawer, sales: cashSales, at: closes });
  if (gave !== null) left.set(gave.item, (left.get(gave.item) ?? 0) + gave.quantity);
  const right = isOpen
    ? null
    : await putRight({
        ...{ desk, demo, owner: ownerOf(demo), event, drawer, at: closes + 300_000 },
        // The first may have come back already.
        sales: cashSales.slice(1),
        next: (of) => nextNumber(desk, of),
      });
  const matters =
    isOpen || before > WITH_ACCOUNTS
      ? null
      : await heldMatters({
          ...{
            desk,
            demo,
            owner: ownerOf(demo),
            event,
            drawer,
            at: closes + 600_000,
            edition: before,
          },
          next: (of) => nextNumber(desk, of),
        });
  const points =
    isOpen || before > WITH_ACCOUNTS
      ? null
      : await pointMatters({
          ...{ desk, demo, owner: ownerOf(demo), event, drawer, at: closes + 700_000 },
          ...{ edition: before, next: (of) => nextNumber(desk, of) },
        });
  const kept =
    before !== 1
      ? null
      : await keptWithDeposit({
          ...{ desk, demo, owner: ownerOf(demo), event, drawer, at: closes + 900_000 },
          next: (of) => nextNumber(desk, of),
        });
  const all = [right, matters, points, kept].flatMap((each) => each ?? []);
  for (const { item, quantity } of all.flatMap(({ goods }) => goods))
    left.set(item, (left.get(item) ?? 0) + quantity);
  const back = all.reduce((sum, each) => sum + each.gave, gave?.amount ?? 0);
  const taken = { drawer, parts: 0, handed, change, rounding: 0, back };
  const sums = { ...taken, movedIn: 0, movedOut: 0, late: 0 };
  count(desk, demo, event, {
    drawer,
    sums,
    at: closes + 1_800_000,
    short: chance.between(0, 2) * 50,
  });
  // Three of the one were never rung up; somebody tapped the other for four that were something else.
  if (isOpen) mixUp(demo, left);
  const goods = [...left]
    .filter(([, quantity]) => quantity > 0)
    .map(([item, quantity]) => ({ item, quantity }));
  const unloaded = { reason: 'brought back', from: event.id, to: BASE, goods, note: '' } as const;
  desk.write(
    [draft('stock.moved', newId(), event.id, unloaded)],
    closes + 2_400_000,
    ownerOf(demo),
  );
  await desk.send();
  return closes + 2_400_000;
}

/** Somebody brings one thing back that they had paid for in cash: it goes back to stock, and the cash to them. */
async function cameBack(
  desk: DemoDevice,
  demo: DemoBusiness,
  event: EventBody,
  { drawer, sales, at }: { drawer: string; sales: readonly string[]; at: number },
): Promise<{ readonly item: string; readonly quantity: number; readonly amount: number } | null> {
  const books = new BookReader(desk.database);
  const { business } = desk;
  for (const id of sales) {
    const found = await saleDocument(desk.database, books, business, id);
    const line = found?.lines.find(
      ({ unit, quantity, isStocked }) => unit === '' && isStocked && quantity >= 1000,
    );
    if (found === null || line?.item == null) continue;
    const outcome = makeReturn({
      newId,
      ...{ sale: found.sale, lines: found.lines, payments: found.payments },
      ...{ before: [], voids: [], undone: [], refunds: [], card: null },
      chosen: [{ line: line.line, typed: '1', to: 'stock' }],
      ...{ reason: 'The wrong colour', way: 'cash', drawer, cashStep: demo.business.cashStep },
      currency: demo.business.currency,
      ...{ deviceNumber: desk.number, number: nextNumber(desk, 'back') },
      ...{ event: event.id, place: event.id, ...localTime(at, event.timeZone) },
    });
    if (!outcome.ok) throw new Error(outcome.refusal.code);
    desk.write(outcome.drafts, at, ownerOf(demo));
    const { money } = outcome.drafts[0]!.body as BodyOf<'return.made'>;
    return { item: line.item, quantity: 1000, amount: money[0]?.amount ?? 0 };
  }
  return null;
}

/** Three of one item come back too few, and of one of like price, of which some were sold, four too many. */
function mixUp(demo: DemoBusiness, left: Map<string, number>): void {
  const counted = demo.items
    .filter(({ body, load }) => body.isStocked && body.unit === '' && load > 0)
    .map(({ body, load }) => ({ body, load, left: left.get(body.id) ?? 0 }));
  const one = counted.find((each) => each.left >= 3000);
  if (one === undefined) return;
  const other = counted
    .filter((each) => each !== one && each.load - each.left >= 4000)
    .sort(
      (a, b) => Math.abs(a.body.price - one.body.price) - Math.abs(b.body.price - one.body.price),
    )[0];
  left.set(one.body.id, one.left - 3000);
  if (other !== undefined) left.set(other.body.id, other.left + 4000);
}

/** As if this server had asked for its cards: what the books say of them is compared with that. */
async function noteCards(
  database: Database,
  { business, device }: DemoDevice,
  drafts: readonly Draft[],
  currency: string,
  at: number,
): Promise<void> {
  for (const { id, kind, body } of drafts) {
    if (kind !== 'payment.taken' || body['card'] === null) continue;
    const amount = Number(body['charge']) + Number(body['surcharge']) + Number(body['tip']);
    const { state } = body['card'] as { readonly state: string };
    await noteAsked(database, business, { payment: id, device, amount, currency }, at);
    const said = { approval: '', acquirer: '', reason: '', expires: '' };
    await noteAnswer(
      database,
      business,
      id,
      state === 'deferred'
        ? { ...said, state: 'declined', amount: 0 }
        : { ...said, state: 'captured', amount },
    );
  }
}

const numbers = new WeakMap<DemoDevice, Record<'sale' | 'read' | 'back', number>>();
/** The device's next number for a sale or a final read. */
function nextNumber(device: DemoDevice, of: 'sale' | 'read' | 'back'): number {
  const last = numbers.get(device) ?? { sale: 0, read: 0, back: 0 };
  last[of] += 1;
  numbers.set(device, last);
  return last[of];
}

function count(
  desk: DemoDevice,
  demo: DemoBusiness,
  event: EventBody,
  found: { drawer: string; sums: Row<'drawerSums'>; at: number; short: number },
): void {
  const float = demo.float.reduce((all, { value, count: n }) => all + value * n, 0);
  const there = float + found.sums.handed - found.sums.change - found.sums.back - found.short;
  const drawer = {
    id: found.drawer,
    event: event.id,
    device: desk.device,
    by: ownerOf(demo),
    at: '',
    name: 'Drawer 1',
    float,
    counts: demo.float,
  };
  const counted = countDrawer({
    newId,
    drawer,
    sums: found.sums,
    counts: piecesOf(there, demo.business.currency).pieces,
    // The float stays in the tin, and the rest goes to the bank.
    leaves: {
      stays: Math.min(float, there),
      bag:
        there > float ? { number: `B-${String(numberOfBag(desk))}`, amount: there - float } : null,
    },
    reason: found.short === 0 ? '' : 'change given wrong once, in the rush',
    number: nextNumber(desk, 'read'),
    reads: [],
    othersAreOpen: false,
  });
  if (!counted.ok) throw new Error(counted.refusal.code);
  desk.write(counted.drafts, found.at, ownerOf(demo));
}

const bags = new WeakMap<DemoDevice, number>();
function numberOfBag(desk: DemoDevice): number {
  const next = (bags.get(desk) ?? 100) + 1;
  bags.set(desk, next);
  return next;
}

function customerDrafts(
  business: string,
  { who, discount = '0', terms = 0, creditLimit = 0, consent }: DemoCustomer,
): readonly Draft[] {
  const id = recordIdOf(business, 'customer', who.name);
  const blank = { email: '', phone: '', company: '', address: '', taxNumber: '', note: '' };
  const body = { id, discount, terms, creditLimit, isActive: true };
  const noted = privateDraft('customer.set', newId(), body, newId(), { ...blank, ...who });
  const { drafts } = noteConsent(newId, id, true, consent ?? 'spoken');
  return consent === undefined ? [noted] : [noted, ...drafts];
}
