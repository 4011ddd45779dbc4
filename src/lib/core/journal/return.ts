/** What a return moves: the sale's postings the other way, goods to where they are put, money to whoever had paid. */
import { goneTo } from '../books/names';
import type { BodyOf } from '../daybook/kinds';
import { sum } from '../money/units';
import { toOrFrom } from './payment';
import { explained, goods, minus, money, type Posting } from './posting';
import { postingsOf } from './take-back';

type Body = BodyOf<'return.made'>;

/** Minor units. */
export const returnPostings = (body: Body): Posting[] =>
  explained([
    ...body.takes.postings,
    ...postingsOf(body.promotions),
    ...body.lines.flatMap((line) => putAway(body, line)),
    ...body.surcharges.flatMap(({ way, amount }) => money('surcharge', amount, { way })),
    ...givenBack(body),
  ]);

/** What came back is where the sale had taken it from; from there it goes to where it is put, or is gone for good. */
function putAway({ takes, soldFrom, place }: Body, { line, to }: Body['lines'][number]): Posting[] {
  const whose = takes.postings.filter((posting) => posting.line === line);
  // Goods that nobody counts are at no such place.
  const counted = whose.filter((posting) => posting.place === soldFrom);
  const moved = counted.flatMap(({ item, quantity = 0 }) => {
    const about = item === undefined ? { line } : { item, line };
    return [
      ...(soldFrom === place ? [] : goods(soldFrom, place, quantity, about)),
      ...(to === 'stock' ? [] : goods(place, goneTo(to), quantity, about)),
    ];
  });
  if (to === 'stock') return moved;
  const cost = sum(whose.flatMap(({ account, amount = 0 }) => (account === 'goods' ? amount : [])));
  return [...moved, ...money('lost', cost, { line }), ...money('goods', minus(cost), { line })];
}

/** Money against the slip, way by way; of what is given back, the first of it is what was charged for paying by card. */
function givenBack({ slip, surcharges, money: ways }: Body): Posting[] {
  let charged: number = sum(surcharges.map(({ amount }) => amount));
  return ways.flatMap(({ way, drawer, amount, rounding, account }) => {
    const owed = amount - rounding;
    const ofCharge = Math.min(charged, owed);
    charged -= ofCharge;
    return [
      ...money(`slip:${slip}`, owed - ofCharge, { way }),
      ...(drawer === null
        ? money(toOrFrom(way, { account }), minus(amount), { way })
        : money(`drawer:${drawer}`, minus(amount), { drawer })),
      ...money('rounding', rounding, { way, ...(drawer === null ? {} : { drawer }) }),
    ];
  });
}
