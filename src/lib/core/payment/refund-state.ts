/**
 * Money that goes back to the card that paid, because goods came back. A pure state machine:
 *
 *   to do ─ the acquirer has ─▶ done
 *     └──── the acquirer will not ─▶ refused: a loose end, until it went another way
 *
 * One id is one refund for ever, so that asking twice gives back once.
 */
import type { Row } from '../books/tables';

export type CardRefund = Row<'cardRefunds'>;
export type RefundState = 'to do' | 'done' | 'refused';

export const refundState = ({ state }: Pick<CardRefund, 'state'>): RefundState =>
  state === '' ? 'to do' : state === 'refunded' ? 'done' : 'refused';

/**
 * Those that a device still has to tell the acquirer of, the first first.
 * @param shutOut Devices that can do nothing any more: others see to theirs.
 */
export const refundErrands = (
  refunds: readonly CardRefund[],
  device: string,
  shutOut: ReadonlySet<string>,
): readonly CardRefund[] =>
  refunds
    .filter((each) => refundState(each) === 'to do' && each.askedStamp !== '')
    .filter((each) => each.device === device || shutOut.has(each.device))
    .sort((a, b) => (a.askedStamp < b.askedStamp ? -1 : 1));
