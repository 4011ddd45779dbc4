/** Settling in words: what is loose, who can settle it, and how. */
import type { EventEnd } from '../../core/settle/event-ends';
import type { SettleEventRefusal } from '../../core/settle/settle-event';
import type { Guess, StockSettled } from '../../core/settle/stock';
import { CARD_END_TITLES } from './payment-words';
import { kindInWords } from './loose-end-words';
import { quantityWords, type MoneyWords } from './money-words';

/** What the page knows the names of. */
export interface SettleNames {
  readonly money: MoneyWords;
  readonly item: (id: string) => string;
  readonly unit: (id: string) => string;
  readonly person: (id: string | null) => string;
  readonly maker: (id: string) => string;
  /** Where statements go; empty for nowhere. */
  readonly makerEmail: (id: string) => string;
  readonly way: (id: string) => string;
  readonly moment: (at: string) => string;
}

export interface EndWords {
  readonly title: string;
  /** What happened, and what can be done about it. */
  readonly story: string;
  /** Where it is put right, if it is elsewhere. */
  readonly href: string | null;
  readonly link: string;
}

const here = (title: string, story: string): EndWords => ({ title, story, href: null, link: '' });
const there = (title: string, story: string, href: string, link: string): EndWords => ({
  ...{ title, story, href, link },
});

export function endWords(end: EventEnd, names: SettleNames): EndWords {
  const { money } = names;
  switch (end.code) {
    case 'drawer/open':
      return there(
        `${end.name} has not been counted`,
        'Count it on the device that uses it; its final read is what cash is settled by.',
        '/drawer/count',
        'Count it',
      );
    case 'drawer/difference':
      return here(
        `${end.name} was ${money.off(end.amount)}`,
        `${end.reason === '' ? 'Nobody said why.' : `It was said: ${end.reason}.`} The read stays as it is; accept the difference with a reason once it is clear, or given up.`,
      );
    case 'drawer/late':
      return there(
        `${money.text(Math.abs(end.amount))} ${end.amount > 0 ? 'more' : 'less'} of ${end.name} was heard of after the count`,
        'A device sent later, or cash was given back since. Call it a difference of the drawer.',
        '/loose-ends',
        'Loose ends',
      );
    case 'device/not-sent':
      return here(
        `${deviceName(end.device)} has not sent everything`,
        `It says it has ${String(end.entries)} more ${end.entries === 1 ? 'entry' : 'entries'}; heard of last ${names.moment(new Date(end.device.seenAt).toISOString())}. Switch it on with network and wait until it says “All sent”.`,
      );
    case 'device/not-heard':
      return here(
        `${deviceName(end.device)} was there and has not been heard of since`,
        `Last heard of ${names.moment(new Date(end.device.seenAt).toISOString())}, before the event ended: it may hold sales. Switch it on with network.`,
      );
    case 'slip/waiting':
      return there(
        end.sort === 'tab' ? 'A tab was never settled' : 'A slip is still set aside',
        `${end.name === '' ? 'It has no name' : `“${end.name}”`}: ring it up, or throw it away if nothing was sold.`,
        '/waiting',
        'Waiting slips',
      );
    case 'order/uncollected':
      return there(
        `${end.number} was not collected`,
        `Ask them, and name another event, or call it off.${end.deposit === 0 ? '' : ` ${money.text(end.deposit)} was paid for it in advance.`}`,
        `/orders/${end.order}`,
        'Open it',
      );
    case 'slip/owing':
      return here(
        end.amount > 0
          ? `${money.text(end.amount)} was rung up and not paid`
          : `${money.text(-end.amount)} was paid and not rung up`,
        `Slip ${end.slip.slice(-8)}: a device may still hold the rest of it; else accept it with what came of it.`,
      );
    case 'slip/twice':
      return there(
        'One slip was rung up twice',
        `${end.numbers.join(' and ')}: two devices had it in hand. Void the one that is too much.`,
        '/loose-ends',
        'Loose ends',
      );
    case 'card/state':
      return there(
        CARD_END_TITLES[end.is],
        `${money.text(end.amount)}${end.last4 === '' ? '' : `, ending ${end.last4}`}, ${names.moment(end.at)}.`,
        '/loose-ends',
        'Loose ends',
      );
    case 'card/refund':
      return end.is === 'refused'
        ? here(
            'The acquirer will not give money back to a card',
            `${money.text(end.amount)} for goods that came back${end.reason === '' ? '' : `: ${end.reason}`}. Give it back another way, and accept this with a word on how.`,
          )
        : here(
            'Money for goods that came back has not gone to the card yet',
            `${money.text(end.amount)}. The device that took the goods back sends it as soon as it has network.`,
          );
    case 'card/no-report':
      return here(
        'The acquirer has not been asked yet',
        `${money.text(end.amount)} of cards is what the tills say. Fetch the report, or take it in as a file.`,
      );
    case 'card/missing':
      return here(
        'A card payment is not in the report',
        `${money.text(end.card.amount)}, ending ${end.card.last4}, ${names.moment(end.card.at)}, taken by ${names.person(end.card.by)}. It may come with a later day; ask the acquirer if it does not.`,
      );
    case 'card/odd':
      return here(...oddWords(end.odd, names));
    case 'payout/short':
      return here(
        `Payout ${end.payout} was ${money.off(-end.amount)}`,
        'What came to the bank is not what the report says would come after fees.',
      );
    case 'bag/on-its-way':
      return here(
        `Bag ${end.bag.number} is not at the bank yet`,
        `${money.text(end.bag.amount)}, filled by ${names.person(end.bag.by)} ${names.moment(end.bag.at)}. Say when it has come.`,
      );
    case 'way/to-come':
      return here(
        end.amount > 0
          ? `${money.text(end.amount)} by ${names.way(end.way)} has not come yet`
          : `${money.text(-end.amount)} more came by ${names.way(end.way)} than was taken`,
        'Say when it has come; until then it is still to come.',
      );
    case 'stock/off':
      return stockWords(end.stock, names);
    case 'goods/still-out':
      return there(
        'The goods have not come back yet',
        `${String(end.items)} ${end.items === 1 ? 'item' : 'items'} went out; unload what came back, or count it, so that stock can be compared with takings.`,
        '/stock',
        'Stock',
      );
    case 'tips/not-shared':
      return here(
        `${money.text(end.amount)} of tips are not shared out`,
        'Share them by hours, equally, or to whoever took them.',
      );
    case 'tips/not-paid':
      return here(
        `${names.person(end.person)} has not been paid ${money.text(end.amount)} of tips`,
        'Pay them out, from the safe or the bank.',
      );
    case 'maker/not-paid':
      return here(
        end.amount > 0
          ? `${names.maker(end.maker)} is owed ${money.text(end.amount)}`
          : `${names.maker(end.maker)} was paid ${money.text(-end.amount)} too much`,
        'Their statement says what for; pay it out, or accept that it is paid later.',
      );
    case 'pay/not-paid':
      return here(
        end.amount > 0
          ? `${names.person(end.person)} is owed ${money.text(end.amount)} of ${end.for}`
          : `${names.person(end.person)} was paid ${money.text(-end.amount)} more ${end.for} than was earned`,
        'By the hours on duty and what was sold; pay it out, or accept that it is paid another day.',
      );
    case 'entry/kept':
      return there(
        `${kindInWords(end.kind)} does not stand as it was written`,
        `${end.message} Written by ${names.person(end.by)}.`,
        '/loose-ends',
        'Loose ends',
      );
    case 'clock/off-day':
      return there(
        'Sales on a day that is none of the event’s',
        `${String(end.sales)} of ${money.text(end.amount)} are dated ${end.day}: a clock was wrong, or the event’s days are.`,
        '/loose-ends',
        'Loose ends',
      );
    case 'settled/changed':
      return here(
        'Something came after it was settled',
        `${end.changes
          .slice(0, 4)
          .map(
            ({ account, was, is }) =>
              `${account.split(':')[0] ?? account} ${money.figure(was)} → ${money.figure(is)}`,
          )
          .join(', ')}. The settled figures stay; settle it once more to add what came.`,
      );
  }
}

const deviceName = ({ name, number }: { name: string; number: number }): string =>
  name === '' ? `Device ${String(number)}` : name;

function oddWords(
  odd: Extract<EventEnd, { code: 'card/odd' }>['odd'],
  { money, moment }: SettleNames,
): [string, string] {
  const line = `${money.text(Math.abs(odd.amount))}${odd.last4 === '' ? '' : `, ending ${odd.last4}`}, ${moment(odd.at)}.`;
  switch (odd.is) {
    case 'double':
      return ['The report has a payment twice', `${line} Ask the acquirer to take one back.`];
    case 'unknown':
      return [
        'The report has a card that no till knows',
        `${line} ${odd.candidates.length === 0 ? 'A device may still have to send it.' : 'It is like more than one payment; join it by hand.'}`,
      ];
    case 'amount':
      return [
        'The report has another amount than the till',
        `${line} That is ${money.off(odd.difference)}.`,
      ];
    case 'chargeback':
      return ['A cardholder took a payment back', `${line} It comes off the payout, with a fee.`];
    case 'refund':
      return ['The acquirer gave a payment back', `${line} It comes off the payout.`];
    case 'decline':
      return ['A card was declined late', `${line} The goods are gone; ask whoever bought.`];
  }
}

/** How much and which way, with what may explain it. */
function stockWords(stock: StockSettled, names: SettleNames): EndWords {
  const { item, open, retail, guess } = stock;
  const much = quantityWords(Math.abs(open), names.unit(item));
  const worth = names.money.text(Math.abs(retail));
  return here(
    open > 0
      ? `${much} × ${names.item(item)} gone, and not rung up`
      : `${much} × ${names.item(item)} rung up more than went`,
    `${worth} at retail. ${guessWords(guess, names)}`,
  );
}

export function guessWords(guess: Guess | null, names: SettleNames): string {
  switch (guess?.is) {
    case undefined:
      return 'Nothing in the books explains it.';
    case 'taken for':
      return `Perhaps one was tapped for the other: ${names.item(guess.item)} is off the other way.`;
    case 'unlisted':
      return `Perhaps typed as an amount: ${quantityWords(guess.quantity, '')} of that price were sold without a name.`;
    case 'on a tab':
      return 'Perhaps on a slip that was never rung up.';
  }
}

export function settleEventWords(refusal: SettleEventRefusal, money: MoneyWords): string {
  switch (refusal.code) {
    case 'settle/loose-ends':
      return `${String(refusal.count)} loose ${refusal.count === 1 ? 'end is' : 'ends are'} left; settle or accept each first.`;
    case 'settle/settled':
      return 'It is settled already; go back a stage, with a reason, to open it again.';
    case 'settle/not-sent':
      return `This device still has ${String(refusal.entries)} to send; wait until it says “All sent”.`;
    case 'settle/no-reason':
      return 'Say why, in a few words; whoever looks at the books later will want to know.';
    case 'settle/no-slip':
      return 'Type what stands on the paying-in slip, or who took them: the bank’s line is found by it.';
    case 'settle/no-tips':
      return 'There are no tips that are not shared out.';
    case 'settle/nobody-on-duty':
      return 'Nobody was on duty, so hours say nothing. Share them equally, or enter who was there under “Where and when”.';
    case 'settle/no-address':
      return 'They have no mail address; it is entered under Taxes and makers.';
    case 'settle/amount-wrong':
      return refusal.typed.trim() === ''
        ? 'Type how much, such as 120.50.'
        : `“${refusal.typed}” is no amount; type one such as 120.50.`;
    case 'settle/more-than-owed':
      return `That is more than the ${money.text(refusal.owed)} that are owed.`;
  }
}
