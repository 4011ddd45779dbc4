/** Points and rewards: how the demo gives them, and customers who have some, one of them a reward to use today. */
import { draft } from '../src/lib/core/daybook/kinds';
import type { Draft } from '../src/lib/core/daybook/chain';
import { CASH_WAY, type WayToPay } from '../src/lib/core/payment/ways';
import type { PointsFacts } from '../src/lib/core/points/points-facts';
import { POINTS } from '../src/lib/core/points/promotion-methods';
import { takePart, type PartDone } from '../src/lib/core/sale/take-part';
import { emptySlip, putItem, type OpenSlip } from '../src/lib/core/slip/open-slip';
import { BookReader } from '../src/lib/server/books/read-books';
import type { DemoBusiness } from './business';
import { newId } from './demo-device';
import { recordIdOf } from './ids';
import type { PuttingRight, PutRight } from './putting-right';

type Day = Omit<PuttingRight, 'sales'> & { readonly edition: number };

/** As the demo sets them up. */
export const pointWays = [
  { name: 'Points', method: 'points', needsCustomer: true, offlineMost: 1000 },
  { name: 'Reward', method: 'reward', needsCustomer: true },
] as const;

/** A point for each pound or dollar, worth a twentieth of one; a reward again and again. */
export function pointsSetUp(demo: DemoBusiness): readonly Draft[] {
  const { rule, rewards } = asSetUp(demo);
  return [
    draft('business.points', newId(), null, rule),
    ...rewards.map(({ setStamp: _stamp, ...body }) =>
      draft('reward.set', newId(), null, { ...body, categories: [...body.categories] }),
    ),
  ];
}

const asSetUp = (demo: DemoBusiness): Pick<PointsFacts, 'rule' | 'rewards'> => ({
  rule: { isOn: true, per: 100, points: 1, worth: 5000, lowersTax: true, lasts: 400 },
  rewards: [
    {
      ...{ id: recordIdOf(demo.id, 'reward', demo.reward), setStamp: 'set', name: demo.reward },
      ...{ spend: 12_500, value: 500, from: '', until: '', categories: [], isActive: true },
    },
  ],
});

/** At an edition that is over: two customers come back for more, and every other time one pays a part with points. */
export async function pointMatters(day: Day): Promise<PutRight> {
  const { demo, edition } = day;
  const goods = demo.items
    .filter(({ body, load }) => body.isStocked && body.unit === '' && load > 9 && body.price > 0)
    .toSorted((a, b) => b.body.price - a.body.price);
  let gave = 0;
  const sold: { item: string; quantity: number }[] = [];
  // The last of them comes to every market, and buys of the dearest.
  const [loyal, other] = [demo.customers.at(-1), demo.customers.at(-2)];
  const buys = [
    { customer: loyal, item: goods[0], quantity: 2000 },
    { customer: other, item: goods.at(-1), quantity: 1000 },
  ];
  for (const { customer, item, quantity } of buys) {
    if (item === undefined || customer === undefined) continue;
    const { who, discount = '0' } = customer;
    const put = putItem(emptySlip(newId()), item.body, quantity, newId());
    if (!put.ok) throw new Error(put.refusal.code);
    const id = recordIdOf(demo.id, 'customer', who.name);
    gave -= await sell(
      day,
      { ...put.slip, customer: { id, name: who.name, discount } },
      customer === loyal && edition % 2 === 1,
    );
    sold.push({ item: item.body.id, quantity: -quantity });
  }
  return { gave, goods: sold };
}

/** @returns What came in, in cash; minor units. */
async function sell(day: Day, slip: OpenSlip, isWithPoints: boolean): Promise<number> {
  const { desk, demo, owner, event, drawer, at } = day;
  const number = day.next('sale');
  const take = async (open: OpenSlip, way: WayToPay, amount: number | null): Promise<PartDone> => {
    const taken = takePart({
      ...{ newId, slip: open, pricing: demo.business, taxes: demo.taxes, event, now: at, drawer },
      ...{ way, amount, business: demo.id, deviceNumber: desk.number, number },
      points: await factsOf(day, slip),
    });
    if (!taken.ok) throw new Error(taken.refusal.code);
    desk.write(taken.drafts, at, owner);
    await desk.send();
    return taken;
  };
  const points = demo.ways.find(({ method }) => method === 'points');
  const has = (await factsOf(day, slip)).has.get(POINTS) ?? 0;
  const first =
    isWithPoints && points !== undefined && has > 0
      ? await take(slip, { ...points, setStamp: 'set' }, Math.min(200, 5 * has))
      : null;
  const { total, part } = await take(first?.slip ?? slip, CASH_WAY, null);
  return first === null ? total : part.clears;
}

/** As the server has it by now. */
async function factsOf({ desk, demo }: Day, { customer, lines }: OpenSlip): Promise<PointsFacts> {
  await desk.send();
  const books = new BookReader(desk.database);
  const account = `points:${customer?.id ?? ''}`;
  const sums = await books.rows(demo.id, 'pointSums', { account });
  const items = lines.flatMap(({ item }) => demo.items.filter(({ body }) => body.id === item));
  return {
    ...asSetUp(demo),
    has: new Map(sums.map(({ item, quantity }) => [item, quantity])),
    movedOn: '',
    goods: new Map(items.map(({ body }) => [body.id, body])),
  };
}
