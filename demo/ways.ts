/** Ways to pay as the demo lists them. */
import type { BodyOf } from '../src/lib/core/daybook/kinds';
import { CASH_WAY } from '../src/lib/core/payment/ways';
import { recordIdOf } from './ids';

type WayBody = BodyOf<'way.set'>;

const { setStamp: _stamp, ...cash } = CASH_WAY;
const PLAIN: WayBody = { ...cash, method: 'cash', side: 'cash' };

/** Cash first, then these in their order. */
export const waysOf = (
  business: string,
  others: readonly (Pick<WayBody, 'name' | 'method'> & Partial<WayBody>)[],
): readonly WayBody[] => [
  { ...PLAIN, ledger: '1000' },
  ...others.map((way, at) => ({
    ...PLAIN,
    id: recordIdOf(business, 'way', way.name),
    opensDrawer: false,
    givesChange: false,
    ...way,
    sort: at + 1,
  })),
];
