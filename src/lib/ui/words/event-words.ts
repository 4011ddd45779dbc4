/** Sentences about events and how far they are. */
import type { Stage } from '../../core/daybook/kinds/event-stage';
import type { COST_PER, FEE_KINDS } from '../../core/daybook/kinds/event-groups';
import type { GroupRefusal } from '../../core/event/set-groups';
import type { EventRefusal } from '../../core/event/plan-event';
import type { Recurrence } from '../../core/event/same-again';
import type { Need, Packing } from '../../core/event/season';
import type { BackRefusal } from '../../core/event/stage';
import type { Fault } from '../forms/faults.svelte';
import { quantityWords } from './money-words';

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

/** What an event still needs. */
export const needWords: Readonly<Record<Need, string>> = {
  pack: 'nothing is packed for it yet',
  open: 'packed; its drawer is not open yet',
  sell: 'trading',
  settle: 'counted, and not settled yet',
  nothing: 'settled',
};

/** What an event that is to come still needs before it is packed. */
export function packingWords({ isMade, isDraft, wanted, packed, short }: Packing): string {
  if (!isMade) return 'load list not made';
  if (isDraft) return 'load list not approved';
  if (short > 0) return `${quantityWords(short, '')} short`;
  return packed >= wanted
    ? 'packed, and not loaded yet'
    : `${quantityWords(packed, '')} of ${quantityWords(wanted, '')} packed`;
}

/** What is wrong with an event, and in which field. */
export const eventFault = (refusal: EventRefusal): Fault => ({
  field: refusal.field,
  says: eventRefusalWords(refusal),
});

function eventRefusalWords(refusal: EventRefusal): string {
  switch (refusal.code) {
    case 'event/no-name':
      return 'Give the event a name.';
    case 'event/no-days':
      return 'Say on which days it is, at least one and at most sixty.';
    case 'event/day-wrong':
      return `Day ${String(refusal.day)} is not a day; choose one from the calendar.`;
    case 'event/hours-wrong':
      return `Say when it opens and closes on day ${String(refusal.day)}. It may close after midnight, but not at the hour at which it opens.`;
    case 'event/days-overlap':
      return `Day ${String(refusal.day)} begins before the one ahead of it has closed, or is there twice.`;
    case 'event/planned':
      return 'That edition is planned already.';
    case 'event/zone-wrong':
      return `“${refusal.typed}” is not a time zone; choose one of the list, such as Europe/London.`;
  }
}

/** @example recurrenceWords({ every: 'weeks', count: 2 }, 'Saturday') // => 'every 2 weeks' */
export function recurrenceWords(recurrence: Recurrence, weekday: string): string {
  switch (recurrence.every) {
    case 'weeks':
      return recurrence.count === 1 ? 'every week' : `every ${String(recurrence.count)} weeks`;
    case 'month':
      return `on the ${NTH[String(recurrence.nth)] ?? ''} ${weekday} of the month`;
    case 'year':
      return 'every year';
  }
}

const NTH: Readonly<Record<string, string>> = {
  '1': 'first',
  '2': 'second',
  '3': 'third',
  '4': 'fourth',
  '-1': 'last',
};

export const feeWords: Readonly<Record<(typeof FEE_KINDS)[number], string>> = {
  none: 'nothing',
  fixed: 'a fixed amount',
  percent: 'a part of the takings',
  larger: 'whichever is larger',
  both: 'an amount and a part of the takings',
};

export const perWords: Readonly<Record<(typeof COST_PER)[number], string>> = {
  once: 'once',
  km: 'a kilometre',
  hour: 'an hour',
  day: 'a day',
};

/** What is wrong with what is set up of an event apart, and in which field. */
export const groupFault = (refusal: GroupRefusal): Fault => ({
  field: refusal.field,
  says: groupWords(refusal),
});

function groupWords(refusal: GroupRefusal): string {
  switch (refusal.code) {
    case 'event/amount-wrong':
      return `“${refusal.typed}” is no such figure; type one such as 45.00.`;
    case 'event/percent-wrong':
      return `“${refusal.typed}” is no such percentage; type one such as 7.5.`;
    case 'event/most-below-least':
      return 'The most is below the least; make it more, or leave one of them empty.';
    case 'event/cost-unnamed':
      return 'Say what it is for.';
    case 'event/duty-hours':
      return 'Say from when until when; it may end after midnight.';
    case 'event/no-person':
      return 'Say who it is.';
    case 'event/item-twice':
      return 'This item is there already; each stands once.';
  }
}
