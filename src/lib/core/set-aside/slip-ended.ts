/** That a kept slip is no more, with what was known of it: what others put on it out of touch is found by that. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import type { OpenSlip } from '../slip/open-slip';

export const slipEnded = (
  newId: () => string,
  event: string | null,
  { id: slip, asTakenUp = [] }: Pick<OpenSlip, 'id' | 'asTakenUp'>,
  why: 'rung' | 'emptied',
): Draft => {
  const known = asTakenUp.map(({ id, stamp }) => ({ id, stamp }));
  return draft('slip.gone', newId(), event, { slip, why, known });
};
