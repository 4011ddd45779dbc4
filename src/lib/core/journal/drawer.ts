/** What cash moves: floats come from the safe, what was counted goes there or into a bag. Minor units. */
import type { EntryOf } from '../daybook/kinds';
import type { Account } from './accounts';
import { minus, money, type Posting } from './posting';

export const drawerOpened = ({ id, body }: EntryOf<'drawer.opened'>): Posting[] => [
  ...money(`drawer:${id}`, body.float, { drawer: id }),
  ...money('safe', minus(body.float), { drawer: id }),
];

/** With nothing wrong, nothing is left of the drawer; what arrives late, or was not known, is. */
export const drawerCounted = ({ id, body }: EntryOf<'drawer.counted'>): Posting[] => {
  const { drawer, counted, difference, bag } = body;
  const bagged = bag?.amount ?? 0;
  return [
    ...money(`drawer:${drawer}`, difference, { drawer }),
    ...money('drawer-difference', minus(difference), { drawer }),
    ...money('safe', counted - bagged, { drawer }),
    ...money(`bag:${id}`, bagged, { drawer }),
    ...money(`drawer:${drawer}`, minus(counted), { drawer }),
  ];
};

/** What came late is a difference: more was in the drawer than the read knew of, and nobody counted it. */
export const drawerLate = ({ body: { drawer, amount } }: EntryOf<'drawer.late'>): Posting[] => [
  ...money(`drawer:${drawer}`, minus(amount), { drawer }),
  ...money('drawer-difference', amount, { drawer }),
];

export const cashMoved = ({ id, body }: EntryOf<'cash.moved'>): Posting[] => {
  const { from, to, amount } = body;
  return from === to ? [] : [...at(from, id, minus(amount)), ...at(to, id, amount)];
};

function at(place: string, id: string, amount: number): Posting[] {
  if (place === 'bag') return money(`bag:${id}`, amount);
  if (place === 'spent:pitch') return money('pitch', amount);
  const drawer = place.startsWith('drawer:') ? place.slice('drawer:'.length) : undefined;
  return money(place as Account, amount, drawer === undefined ? {} : { drawer });
}
