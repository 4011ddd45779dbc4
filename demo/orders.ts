/** What customers were quoted, what is kept for them with a deposit, and what they ordered elsewhere and collect today. */
import type { Row } from '../src/lib/core/books/tables';
import { BASE } from '../src/lib/core/books/tables';
import { draft } from '../src/lib/core/daybook/kinds';
import { daysAfter } from '../src/lib/core/event/event-days';
import { localTime } from '../src/lib/core/event/local-time';
import {
  agreedLines,
  changeOrder,
  keepOrder,
  termsDraft,
  type OrderSort,
} from '../src/lib/core/order/set-order';
import { totalOf } from '../src/lib/core/order/agreed';
import { CASH_WAY } from '../src/lib/core/payment/ways';
import { takePart } from '../src/lib/core/sale/take-part';
import { emptySlip, putItem, putPaidIn, type OpenSlip } from '../src/lib/core/slip/open-slip';
import { BookReader } from '../src/lib/server/books/read-books';
import type { DemoBusiness } from './business';
import { newId, type DemoDevice } from './demo-device';
import { recordIdOf } from './ids';
import type { PuttingRight, PutRight } from './putting-right';

/** Nothing of the demo is anybody's. */
const SALT = 'nobody-is-in-here';

export const WEB_SHOP = 'Web shop';

type Day = Omit<PuttingRight, 'sales'>;

const whoIs = (demo: DemoBusiness, at: number) => {
  const customer = demo.customers[at % demo.customers.length];
  if (customer === undefined) throw new Error('the demo has nobody to keep anything for');
  const { name } = customer.who;
  return { id: recordIdOf(demo.id, 'customer', name), name, discount: customer.discount ?? '0' };
};

/** Some of the dearest goods that are counted by the piece. */
function goodsFor(demo: DemoBusiness, who: number, many: number): OpenSlip {
  const goods = demo.items
    .filter(
      ({ body, load }) =>
        body.isStocked && body.unit === '' && load > 4 && body.choices.length === 0,
    )
    .toSorted((a, b) => b.body.price - a.body.price);
  let slip: OpenSlip = { ...emptySlip(newId()), customer: whoIs(demo, who) };
  for (const [at, { body }] of goods.slice(who, who + many).entries()) {
    const put = putItem(slip, body, at === 0 ? 1000 : 2000, newId());
    if (!put.ok) throw new Error(put.refusal.code);
    slip = put.slip;
  }
  return slip;
}

interface Agreed {
  readonly sort: OrderSort;
  readonly number: string;
  readonly deposit: number;
  readonly until: string;
  readonly collectAt: string | null;
  readonly note: string;
}

/** @returns The order's id. */
function agree(
  desk: DemoDevice,
  demo: DemoBusiness,
  slip: OpenSlip,
  { at, by, day, event }: { at: number; by: string | null; day: string; event: string | null },
  agreed: Agreed,
): string {
  const kept = keepOrder({
    ...{ newId, slip, pricing: demo.business, taxes: demo.taxes, swaps: [], place: BASE },
    ...{ ...agreed, stage: 'ready', today: day, event, salt: SALT },
  });
  if (!kept.ok) throw new Error(kept.refusal.code);
  desk.write(kept.drafts, at, by);
  return kept.id;
}

/** At an edition that is over: something was kept for somebody, and a deposit paid for it in cash. */
export async function keptWithDeposit(day: Day): Promise<PutRight> {
  const { desk, demo, owner, event, drawer, at } = day;
  const slip = goodsFor(demo, 0, 2);
  const local = localTime(at, event.timeZone).day;
  const where = { at, by: owner, day: local, event: event.id };
  const number = `K${String(desk.number)}-1`;
  const said = { sort: 'kept', number, until: daysAfter(local, 40), collectAt: null } as const;
  const deposit = demo.business.currency === 'USD' ? 2000 : 1000;
  const id = agree(desk, demo, slip, where, { ...said, deposit, note: '' });
  const put = putPaidIn(
    { ...emptySlip(newId()), customer: whoIs(demo, 0) },
    { account: `deposit:${id}`, name: 'Deposit', detail: number, amount: deposit },
    newId(),
  );
  if (!put.ok) throw new Error(put.refusal.code);
  const taken = takePart({
    ...{ newId, slip: put.slip, pricing: demo.business, taxes: demo.taxes, event, now: at + 1000 },
    ...{ way: CASH_WAY, amount: null, drawer, business: demo.id },
    ...{ deviceNumber: desk.number, number: day.next('sale') },
  });
  if (!taken.ok) throw new Error(taken.refusal.code);
  desk.write(taken.drafts, at + 1000, owner);
  await desk.send();
  return { gave: -taken.total, goods: [] };
}

/** With today's event there: what is kept is collected there, and so is what was ordered and paid in the web shop. */
export async function todaysOrders(
  desk: DemoDevice,
  demo: DemoBusiness,
  event: { readonly id: string; readonly timeZone: string },
  now: number,
): Promise<void> {
  const by = demo.staff[0]?.id ?? null;
  const today = localTime(now, event.timeZone).day;
  const where = { at: now, by, day: today, event: null };
  const [kept] = await new BookReader(desk.database).rows(demo.id, 'orders');
  if (kept !== undefined) desk.write(collectedAt(kept, event.id, today), now, by);
  agree(desk, demo, goodsFor(demo, 1, 3), where, {
    ...{ sort: 'quote', number: `Q${String(desk.number)}-2`, deposit: 0 },
    ...{ until: daysAfter(today, 14), collectAt: null, note: 'For the summer fair' },
  });
  const web = goodsFor(demo, 2, 2);
  const lines = agreedLines(web, demo.business, demo.taxes, [], () => newId());
  const id = newId();
  const way = demo.ways.find(({ name }) => name === WEB_SHOP);
  const order = { id, number: '1042', source: WEB_SHOP, customer: web.customer?.id ?? '' };
  desk.write(
    [
      draft('order.set', newId(), null, { ...order, lines, standingName: '' }),
      termsDraft(
        newId,
        null,
        { order: id, customer: order.customer },
        {
          ...{ sort: 'collect', deposit: 0, collectAt: event.id, place: BASE, until: '' },
          ...{ note: 'Rings before they come', salt: SALT },
        },
      ),
      draft('order.stage', newId(), null, { order: id, stage: 'ready', reason: '' }),
      ...(way === undefined
        ? []
        : [
            draft('order.paid', newId(), null, {
              ...{ order: id, way: way.id, amount: totalOf(lines), reference: '1042' },
            }),
          ]),
    ],
    now,
    by,
  );
  await desk.send();
}

function collectedAt(order: Row<'orders'>, event: string, today: string) {
  const said = { ...order, collectAt: event, event: null, salt: SALT };
  const changed = changeOrder({ ...said, newId, order, today });
  if (!changed.ok) throw new Error(changed.refusal.code);
  return changed.drafts;
}
