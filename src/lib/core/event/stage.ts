/** How far an event has come, and going back. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { STAGES, type Stage } from '../daybook/kinds/event-stage';

/** What a row keeps of its stages. */
export type Staged = Pick<
  Row<'events'>,
  'packedStamp' | 'tradingStamp' | 'countedStamp' | 'settledStamp' | 'backStamp' | 'backTo'
>;

/**
 * The furthest stage that was reached since it last went back, in whichever order devices say so: a device
 * that was out of touch and opens its drawer does not undo that the event has been counted.
 */
export function stageOf(event: Staged): Stage {
  const wentTo = STAGES.indexOf(event.backTo as Stage);
  const reached = STAGES.findLastIndex(
    (stage) => stage !== 'planned' && event[`${stage}Stamp`] > event.backStamp,
  );
  return STAGES[Math.max(0, wentTo, reached)] ?? 'planned';
}

/** Whether its day is done: the drawers are counted, or all of it is settled. */
export const isCounted = (event: Staged): boolean =>
  ['counted', 'settled'].includes(stageOf(event));

/** The stages that an event can go back to, the nearest first. */
export const earlierStages = (event: Staged): readonly BackTo[] =>
  STAGES.slice(0, STAGES.indexOf(stageOf(event)))
    .filter((stage) => stage !== 'settled')
    .reverse();

export type BackTo = BodyOf<'event.back'>['to'];

export type BackOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: { readonly code: BackRefusal } };
export type BackRefusal = 'stage/no-reason' | 'stage/not-earlier';

export interface GoBack {
  readonly newId: () => string;
  readonly event: Staged & { readonly id: string };
  readonly to: BackTo;
  readonly why: string;
}

/** Has an event go back to an earlier stage. */
export function goBack({ newId, event, to, why }: GoBack): BackOutcome {
  const reason = why.trim().slice(0, 500);
  if (reason === '') return { ok: false, refusal: { code: 'stage/no-reason' } };
  if (!earlierStages(event).includes(to))
    return { ok: false, refusal: { code: 'stage/not-earlier' } };
  const body = { event: event.id, to, why: reason };
  return { ok: true, drafts: [draft('event.back', newId(), event.id, body)] };
}
