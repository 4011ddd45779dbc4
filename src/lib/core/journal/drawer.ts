/** What a drawer moves: the float comes from the safe, and what was counted goes there. Minor units. */
import type { EntryOf } from '../daybook/kinds';
import { minus, money, type Posting } from './posting';

export const drawerOpened = ({ id, body }: EntryOf<'drawer.opened'>): Posting[] => [
  ...money(`drawer:${id}`, body.float, { drawer: id }),
  ...money('safe', minus(body.float), { drawer: id }),
];

/** With nothing wrong, nothing is left of the drawer; what arrives late, or was not known, is. */
export const drawerCounted = ({ body }: EntryOf<'drawer.counted'>): Posting[] => {
  const { drawer, counted, difference } = body;
  return [
    ...money(`drawer:${drawer}`, difference, { drawer }),
    ...money('drawer-difference', minus(difference), { drawer }),
    ...money('safe', counted, { drawer }),
    ...money(`drawer:${drawer}`, minus(counted), { drawer }),
  ];
};
