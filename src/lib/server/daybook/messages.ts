/** Sentences for refusals of the daybook: the fact, the place, the remedy. */
import type { BodyFault } from '../../core/daybook/read-entry';
import type { KnownEntry } from '../../core/daybook/kinds';
import { isBarred, type Breach } from '../../core/people/judge';
import type { Right } from '../../core/people/rights';
import type { PushRefusal } from '../../core/daybook/sync-messages';

const sentences: Readonly<Record<PushRefusal['code'], string>> = {
  'chain/gap': 'There is a gap before it; send the entries from the last one the server has.',
  'chain/broken': 'It does not follow the entry before it; this device’s daybook has been changed.',
  'chain/hash-wrong': 'Its hash is not that of what it says; it was changed after it was written.',
  'chain/stamp-back': 'Its stamp is not later than that of the entry before it.',
  'chain/private-wrong': 'Its private part is not the one that its digest was made of.',
  'chain/forked':
    'The server has another entry under this number; a copy of this device is writing as well.',
  'entry/other-business':
    'It belongs to another business than the one this device is enrolled with.',
  'entry/other-device': 'It was written by another device; each device sends its own entries.',
  'entry/id-taken': 'Its id stands for another entry already; ids must be new for every entry.',
};

export const refusalMessage = (code: PushRefusal['code'], seq: number): string =>
  `Entry ${String(seq)} was not taken. ${sentences[code]} Nothing that was sent before is lost.`;

export function faultMessage(fault: BodyFault): string {
  switch (fault.code) {
    case 'kind/unknown':
      return `"${fault.kind}" is not a kind of entry that this version knows; it is kept until one does.`;
    case 'kind/newer':
      return (
        `"${fault.kind}" version ${String(fault.v)} is newer than version ${String(fault.known)}, ` +
        'which this one knows; it is kept until a newer version reads it.'
      );
    case 'body/wrong':
      return `${fault.kind}: ${fault.where}: ${fault.why}. It is kept as it was received.`;
  }
}

const deeds: Readonly<Record<Right, string>> = {
  'price.change': 'change a price',
  'discount.over': 'give so large a discount',
  refund: 'give money back',
  'refund.unlinked': 'give money back without a sale',
  'sale.void': 'void a sale',
  'cash.out': 'take cash out',
  'cash.expected': 'see what should be in the drawer',
  'card.carry': 'take cards beyond the limit with no network',
  'set-up': 'change the set-up',
};

export function breachMessage(entry: KnownEntry, { right }: Breach): string {
  const what = `${entry.kind}: whoever wrote it was not allowed to ${deeds[right]} then.`;
  return isBarred(entry)
    ? `${what} It is kept and changes nothing; somebody with the right can do it again.`
    : `${what} It has happened, so it counts; an owner should look at it.`;
}
