/** Sentences about events and how far they are. */
import type { Stage } from '../../core/daybook/kinds/event-stage';
import type { BackRefusal } from '../../core/event/stage';
import type { Fault } from '../forms/faults.svelte';

export const stageWords: Readonly<Record<Stage, string>> = {
  planned: 'planned',
  packed: 'packed',
  trading: 'trading',
  counted: 'counted',
  settled: 'settled',
};

export function backFault({ code }: { readonly code: BackRefusal }): Fault {
  switch (code) {
    case 'stage/no-reason':
      return { field: 'why', says: 'Say why, in a few words; it stands in the books.' };
    case 'stage/not-earlier':
      return { field: 'to', says: 'The event is not that far, or has gone back already.' };
  }
}
