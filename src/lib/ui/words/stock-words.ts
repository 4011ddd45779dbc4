/** Sentences about places, lists of goods, suppliers and counts. */
import type { Row } from '../../core/books/tables';
import type { ListUse } from '../../core/daybook/kinds/list-set';
import type { PlaceSort } from '../../core/daybook/kinds/place-set';
import type { CountRefusal } from '../../core/stock/count';
import type { ListState } from '../../core/stock/list-state';
import type { PlaceRefusal } from '../../core/stock/places';
import type { ListRefusal } from '../../core/stock/set-list';
import type { SupplyRefusal } from '../../core/stock/suppliers';
import type { Fault } from '../forms/faults.svelte';
import { quantityWords } from './money-words';

export { LIST_NAMES as useWords } from '../../core/stock/list-paper';

export const useHelp: Readonly<Record<ListUse, string>> = {
  load: 'What is taken to an event: packed one by one, then loaded.',
  unload: 'What comes back from an event.',
  transfer: 'From one place of your own to another; one sends it, another receives it.',
  order: 'From a supplier, or from another place of your own.',
  back: 'Goods that a supplier takes back, and what is owed for them.',
};

export const stateWords: Readonly<Record<ListState, string>> = {
  draft: 'draft',
  approved: 'approved',
  'under way': 'under way',
  'in part': 'done in part',
  done: 'done',
  off: 'called off',
};

/** What moves what is packed, as its button says. */
export const moveWords: Readonly<Record<ListUse, string>> = {
  load: 'Load',
  unload: 'Unload',
  transfer: 'Send',
  order: 'Send',
  back: 'Send back',
};

export const sortWords: Readonly<Record<PlaceSort, string>> = {
  base: 'the base',
  van: 'a van',
  store: 'a store',
  area: 'an area: a shelf, a crate',
};

const reasons: Readonly<Record<Row<'movements'>['reason'], string>> = {
  delivered: 'delivered',
  loaded: 'loaded',
  'brought back': 'brought back',
  moved: 'moved',
  sent: 'sent',
  received: 'received',
  'sent back': 'sent back',
  'put right': 'put right',
  lost: 'lost',
  broken: 'broken',
  sampled: 'sampled',
  given: 'given away',
  used: 'used',
  stolen: 'stolen',
  'out of date': 'out of date',
};
export const reasonWords = (reason: Row<'movements'>['reason']): string => reasons[reason];

export function listRefusalWords(refusal: ListRefusal, nameOf: (item: string) => string): string {
  switch (refusal.code) {
    case 'list/same-place':
      return 'Both ends are one place; say where the goods go.';
    case 'list/no-place':
      return 'Say where the goods come from and where they go.';
    case 'list/no-supplier':
      return 'Say which supplier it is.';
    case 'list/no-event':
      return 'Say which event it is for.';
    case 'list/day-wrong':
      return 'That is not a day; choose one from the calendar.';
    case 'list/nothing-on-it':
      return 'Nothing is on it yet; add what is wanted first.';
    case 'list/ended':
      return 'This list has ended; make a new one.';
    case 'list/not-approved':
      return 'It is still a draft; approve it first.';
    case 'list/no-address':
      return 'Its supplier has no e-mail address that can be written to; add it to the supplier first.';
    case 'list/no-reason':
      return 'Less came than was wanted: say why it is closed all the same.';
    case 'list/under-way':
      return 'Something is still on its way; say first whether it arrived.';
    case 'list/nothing-packed':
      return 'Nothing is packed that has not left already.';
    case 'list/nothing-chosen':
      return 'Say how much of what.';
    case 'list/quantity-wrong':
      return `“${refusal.typed}” is no quantity; type a figure such as 12.`;
    case 'list/decimals':
      return refusal.decimals === 0
        ? `“${refusal.typed}”: this is counted in whole things.`
        : `“${refusal.typed}”: this has ${String(refusal.decimals)} decimals at most.`;
    case 'list/more-than-wanted':
      return (
        `${quantityWords(refusal.found, '')} of ${nameOf(refusal.item)} are more than the ` +
        `${quantityWords(refusal.wanted, '')} still to come. Press again if that is what came.`
      );
  }
}

/** Beside its field where it has one, else at the foot of the form. */
export const listFault = (refusal: ListRefusal): Fault => ({
  field: '',
  says: listRefusalWords(refusal, () => 'it'),
});

export const placeFault = (refusal: PlaceRefusal): Fault => ({
  field: refusal.field,
  says: placeWords(refusal),
});

function placeWords(refusal: PlaceRefusal): string {
  switch (refusal.code) {
    case 'place/no-name':
      return 'Give the place a name.';
    case 'place/name-taken':
      return `There is a ${refusal.name} already; call this one something else.`;
    case 'place/within-itself':
      return 'A place is not inside itself; choose another one.';
    case 'place/no-within':
      return 'Say which place the area is in.';
    case 'place/code-taken':
      return `${refusal.code2} is the code of another place.`;
    case 'place/limit-wrong':
      return `“${refusal.typed}” is no such figure; type one such as 300, or leave it empty.`;
    case 'place/has-goods':
      return 'Something is still there; move it first, then put the place away.';
  }
}

export const supplyFault = (refusal: SupplyRefusal): Fault => ({
  field: refusal.field,
  says: supplyWords(refusal),
});

function supplyWords(refusal: SupplyRefusal): string {
  switch (refusal.code) {
    case 'supplier/no-name':
      return 'Give the supplier a name.';
    case 'supplier/name-taken':
      return `There is a ${refusal.name} already.`;
    case 'supplier/mail-wrong':
      return `“${refusal.typed}” is no e-mail address; it looks like orders@nursery.example.`;
    case 'supplier/days-wrong':
      return `“${refusal.typed}” is no number of days; type one from 0 to 365.`;
    case 'supply/no-supplier':
      return 'Choose the supplier, or take the line away.';
    case 'supply/supplier-twice':
      return 'This supplier is there already; each stands once.';
    case 'supply/pack-wrong':
      return `“${refusal.typed}” is no pack; type how many come at once, 1 or more.`;
    case 'supply/price-wrong':
      return `“${refusal.typed}” is no price; type one such as 1.50.`;
    case 'supply/figure-wrong':
      return `“${refusal.typed}” is no such figure; type one from nothing up.`;
    case 'supply/level-above-par':
      return (
        `It is bought again at ${quantityWords(refusal.level, '')}: the par level must be at ` +
        `least that, and not ${quantityWords(refusal.par, '')}.`
      );
  }
}

export function countRefusalWords({ code }: CountRefusal): string {
  switch (code) {
    case 'count/no-place':
      return 'Say which place is counted.';
    case 'count/ended':
      return 'This count is over; begin another one.';
    case 'count/nothing':
      return 'Nothing is counted that is not accepted already.';
    case 'count/too-old':
      return 'That was counted too long ago to be compared; count it again.';
    case 'count/no-reason':
      return 'Say what the differences come from, in a few words; it stands in the books.';
  }
}

/** What a move of goods was, by the kind of entry that said so. */
export function movedWords({ kind, quantity }: Pick<Row<'moves'>, 'kind' | 'quantity'>): string {
  const way = quantity < 0 ? 'left' : 'came';
  if (kind === 'sale.rung') return quantity < 0 ? 'sold' : 'came back with a sale';
  return movedBy[kind] ?? way;
}
const movedBy: Partial<Record<Row<'moves'>['kind'], string>> = {
  'sale.voided': 'a sale voided',
  'void.undone': 'a void taken back',
  'return.made': 'brought back by a customer',
  'refund.made': 'brought back, without a sale',
  'sale.corrected': 'a sale put right',
  'count.accepted': 'a count accepted',
};

/** What was done about a list, as its thread says it. */
export function actOfListWords(does: Row<'listActs'>['does'], use: ListUse): string {
  switch (does) {
    case 'set':
      return 'Set up';
    case 'draft':
      return 'A draft again';
    case 'approved':
      return 'Approved';
    case 'done':
      return 'Closed';
    case 'off':
      return 'Called off';
    case 'mailed':
      return 'Mailed to its supplier';
    case 'packed':
      return use === 'unload' ? 'Counted back' : 'Packed';
    case 'send':
      return 'Sent';
    case 'receive':
      return use === 'unload' ? 'Does not come back' : 'Arrived';
    case 'move':
      return use === 'order'
        ? 'Delivered'
        : `${moveWords[use]}ed`.replace('Send backed', 'Sent back');
  }
}

export const countFault = (refusal: CountRefusal): Fault => ({
  field: '',
  says: countRefusalWords(refusal),
});
