/** Cash for the whole slip: one append, and the slip is gone when it is on disk. */
import { ringUp, type RingUpRefusal, type RungUp } from '$lib/core/sale/ring-up';
import { saleNumber } from '$lib/core/sale/sale-number';
import type { SlipGone } from '$lib/device/daybook';
import { newId } from '$lib/device/new-id';
import { stageOf } from '$lib/core/event/todays-event';
import type { Stall } from '../stall.svelte';

export type CashTaken =
  | {
      readonly ok: true;
      readonly number: string;
      readonly total: number;
      readonly change: number;
      readonly handed: number;
    }
  | {
      readonly ok: false;
      readonly refusal:
        | RingUpRefusal
        | SlipGone
        | { readonly code: 'drawer/none' | 'event/not-trading' }
        | { readonly code: 'right/lacking' };
    };

let isTaking = false;

/**
 * Rings up the open slip for `handed` minor units. When it returns `ok`, the sale is on disk.
 * A second call while one is under way answers that the slip is gone.
 */
export async function takeCash(stall: Stall, handed: number): Promise<CashTaken> {
  const { event, drawer, slip, business, taxes, identity } = stall;
  if (event === undefined || stageOf(event) !== 'trading') {
    return { ok: false, refusal: { code: 'event/not-trading' } };
  }
  if (drawer === undefined) return { ok: false, refusal: { code: 'drawer/none' } };
  if (stall.slipLacks.length > 0) return { ok: false, refusal: { code: 'right/lacking' } };
  if (isTaking) return { ok: false, refusal: { code: 'slip/gone' } };
  isTaking = true;
  try {
    await slip.saved();
    const open = slip.current;
    let number = '';
    const rung: RungUp | { ok: false; refusal: SlipGone } = await stall.daybook.append(
      ({ saleNumber: count }) => {
        number = saleNumber(identity.number, count);
        return ringUp({
          newId,
          slip: open,
          pricing: business,
          taxes,
          event,
          drawer: drawer.id,
          handed,
          deviceNumber: identity.number,
          number: count,
          now: Date.now(),
        });
      },
      { settles: open.id, ...(open.lentBy === undefined ? {} : { lentBy: open.lentBy }) },
    );
    if (!rung.ok) return rung;
    slip.startAfresh();
    return { ok: true, number, total: rung.total, change: rung.change, handed };
  } finally {
    isTaking = false;
  }
}
