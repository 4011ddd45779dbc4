/** Ringing up a slip that what comes back pays for altogether: evenly, or with something to give back. */
import { localTime } from '../event/local-time';
import type { HeldAccount } from '../held/held-account';
import { priceSlip } from '../slip/price-slip';
import type { OpenSlip } from '../slip/open-slip';
import { broughtBack, exchangePart, exchangeReturns, overOf, type RestBy } from './exchange';
import { leftOnCard, mostOnAccount } from './make-return';
import type { SaleDocument } from './sale-document';
import { EXCHANGE } from '../payment/methods';
import { saleDrafts, type SaleSurroundings } from './sale-drafts';
import { fixedFor, partDraft, type PartRefusal } from './take-part';
import type { Draft } from '../daybook/chain';

export interface RingUpExchange extends SaleSurroundings {
  readonly slip: OpenSlip;
  readonly rest: RestBy | null;
  /** The sales that it is of, as far as they are known here. */
  readonly sold: readonly Pick<SaleDocument, 'payments' | 'refunds' | 'returns'>[];
}

export type ExchangeRefusal =
  | PartRefusal
  | { readonly code: 'exchange/nothing-back' }
  | { readonly code: 'exchange/still-to-pay'; readonly left: number }
  | { readonly code: 'exchange/no-way-back'; readonly over: number }
  | { readonly code: 'return/no-drawer' }
  | { readonly code: 'return/card-more' | 'return/account-more'; readonly left: number };

export type ExchangeOutcome =
  | {
      readonly ok: true;
      readonly drafts: readonly Draft[];
      readonly slip: null;
      /** What is to be given back. */
      readonly over: number;
      /** What the slip came to. */
      readonly total: number;
    }
  | { readonly ok: false; readonly refusal: ExchangeRefusal };

/** Units: minor units. */
export function ringUpExchange(asIs: RingUpExchange): ExchangeOutcome {
  const { slip, newId, rest } = asIs;
  const fixed = fixedFor(asIs);
  const { pricing, taxes, swaps } = fixed;
  const event = { ...asIs.event, swaps };
  const command = { ...asIs, pricing, taxes, event };
  if (slip.lines.length === 0) return refuse({ code: 'sale/nothing-on-it' });
  if (slip.back === undefined) return refuse({ code: 'exchange/nothing-back' });
  const quote = priceSlip(slip, pricing, taxes, swaps);
  const { total } = quote.cash;
  const isTaken = (slip.paid ?? []).some(({ way }) => way !== EXCHANGE);
  if (isTaken || total > broughtBack(slip))
    return refuse({ code: 'exchange/still-to-pay', left: Math.max(0, total - broughtBack(slip)) });
  const over = overOf(total, slip);
  if (over > 0 && rest === null) return refuse({ code: 'exchange/no-way-back', over });
  if (over > 0 && rest?.way === 'cash' && rest.drawer === null)
    return refuse({ code: 'return/no-drawer' });
  const onCard = rest === null || rest.card === null ? null : leftOf(rest.card, asIs.sold);
  if (onCard !== null && over > onCard) return refuse({ code: 'return/card-more', left: onCard });
  const onAccount = rest?.account == null ? null : accountMost(rest.account, asIs.sold);
  if (onAccount !== null && over > onAccount)
    return refuse({ code: 'return/account-more', left: onAccount });
  const part = exchangePart(slip, total, newId);
  const paid = [...(slip.paid ?? []), ...(part === null ? [] : [part])];
  const now: OpenSlip = { ...slip, paid, fixed };
  const { deviceNumber, returnNumber = 0 } = command;
  const drafts = [
    ...(part === null ? [] : [partDraft(part, command)]),
    ...exchangeReturns({
      ...{ newId, slip: now, event: event.id, deviceNumber, returnNumber, rest },
      ...localTime(command.now, event.timeZone),
      cashStep: pricing.cashStep,
    }),
    ...saleDrafts(now, quote, command),
  ];
  return { ok: true, drafts, slip: null, over, total };
}

/** What of a card's payment has not gone back to it; nothing of one that is not known. Minor units. */
function leftOf(payment: string, sold: RingUpExchange['sold']): number {
  for (const { payments, refunds } of sold) {
    const part = payments.find(({ id }) => id === payment);
    if (part !== undefined) return leftOnCard(part, refunds);
  }
  return 0;
}

/** What of them all can go back on an account; null for any amount. Minor units. */
const accountMost = (account: HeldAccount, sold: RingUpExchange['sold']): number | null =>
  mostOnAccount(
    account,
    sold.flatMap(({ payments }) => payments),
    sold.flatMap(({ returns }) => returns),
  );

const refuse = (refusal: ExchangeRefusal): ExchangeOutcome => ({ ok: false, refusal });
