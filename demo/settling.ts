/** How the demo's past editions were settled, and what is still loose of the last one. */
import type { Draft } from '../src/lib/core/daybook/chain';
import { draft } from '../src/lib/core/daybook/kinds';
import { typedText } from '../src/lib/core/money/amount-text';
import { takeReport, type CardLine } from '../src/lib/core/settle/take-report';
import { payOut, settleEvent, shareOutTips } from '../src/lib/core/settle/settle-event';
import { settlingOf, type Settling } from '../src/lib/core/settle/settling';
import { settlingRows } from '../src/lib/server/books/settling-rows';
import type { BookReader } from '../src/lib/server/books/read-books';
import type { DemoBusiness } from './business';
import type { DemoBank } from './bank';
import { newId, type DemoDevice } from './demo-device';

const DAY = 86_400_000;
/** As the acquirer's stand-in charges: hundredths of a percent, and minor units. */
const FEE = { rate: 175, fixed: 5, dispute: 1500 };
const feeOf = (amount: number): number => Math.round((amount * FEE.rate) / 10_000) + FEE.fixed;

export interface SettlingDemo {
  readonly bank: DemoBank;
  readonly desk: DemoDevice;
  readonly books: BookReader;
  readonly demo: DemoBusiness;
  readonly owner: string | null;
}

interface Edition {
  readonly event: string;
  /** Milliseconds since 1970: when it was counted. */
  readonly counted: number;
  /** What is still loose is left for whoever tries the demo. */
  readonly isOpen: boolean;
}

type Made = { readonly ok: true; readonly drafts: readonly Draft[] } | { readonly ok: false };

/** Report, bank, tips, makers, and what is left of it accepted; then it is settled, unless it is left open. */
export async function settleEdition(
  { bank, desk, books, demo, owner }: SettlingDemo,
  { event, counted, isOpen }: Edition,
): Promise<void> {
  const at = counted + DAY;
  const { currency } = demo.business;
  const plain = (amount: number): string => typedText(amount, currency);
  const now = async (): Promise<Settling> => {
    await desk.send();
    const rows = await settlingRows(desk.database, books, demo.id, event, at);
    if (rows === null) throw new Error('the demo has no such event');
    return settlingOf(rows);
  };
  const write = (made: Made, later = 0): void => {
    if (!made.ok) throw new Error('the demo could not settle its own event');
    desk.write(made.drafts, at + later, owner);
  };
  const day = new Date(at).toISOString().slice(0, 10);

  const lines = await reportOf(books, demo.id, event, day, isOpen);
  const [first] = lines;
  if (first !== undefined)
    desk.write(takeReport(newId, 'practice acquirer', first.at.slice(0, 10), lines), at, owner);
  const looked = await now();
  // What was taken back does not come: it is still to come, and the report says why.
  for (const { payout, gross, fees } of looked.cards.payouts)
    bank.book(day, gross - fees, 'Practice acquirer', 'Payout of cards', payout);
  for (const { way, open } of looked.toCome) {
    const named = demo.ways.find(({ id, method }) => id === way && method !== 'card');
    if (named !== undefined) bank.book(day, open, named.name, 'as listed');
  }
  if (!isOpen)
    for (const { number, amount } of looked.bags)
      bank.book(day, amount, 'Branch counter', `Cash paid in, bag ${number}`);
  await bank.takeIn(day, at + 60_000);
  if (looked.tips.open.length > 0)
    write(shareOutTips({ newId, event, how: 'taken', settling: looked }), 180_000);
  const shared = await now();
  for (const { person, amount } of shared.tips.owed)
    if (person !== 'nobody')
      write(
        payOut({
          ...{ newId, event, for: 'tips', whom: person, from: 'safe', what: 'tips', currency },
          ...{ typed: plain(amount), owed: amount },
        }),
        240_000,
      );
  for (const { maker, toPay, paid } of shared.makers)
    if (toPay > paid)
      write(
        payOut({
          ...{ newId, event, for: 'maker', whom: maker, from: 'bank', currency },
          ...{ what: 'goods sold', typed: plain(toPay - paid), owed: toPay - paid },
        }),
        300_000,
      );
  if (isOpen) {
    await desk.send();
    return;
  }
  const left = await now();
  const accepted = left.ends.map(({ looseEnd, code }) =>
    draft('looseEnd.settled', newId(), null, {
      looseEnd,
      how: 'accepted',
      reason: code === 'drawer/difference' ? 'change given wrong in the rush' : 'looked at',
    }),
  );
  desk.write(accepted, at + 360_000, owner);
  const settling = await now();
  write(settleEvent({ newId, event, settling, toSend: 0, isAddendum: false }), 420_000);
  await desk.send();
}

/** What the acquirer says of its cards: each of them, and of the one that is left open one that was disputed. */
async function reportOf(
  books: BookReader,
  business: string,
  event: string,
  payoutDay: string,
  isDisputed: boolean,
): Promise<readonly CardLine[]> {
  const cards = await books.rows(business, 'cardPayments', { event });
  const charged = cards.filter(({ state }) => state === 'captured');
  const payout = `PO-${payoutDay.replaceAll('-', '')}`;
  const lines = charged.map((card): CardLine => ({
    id: card.id,
    sort: 'payment',
    reference: card.id,
    amount: card.amount,
    fee: feeOf(card.amount),
    ...{ scheme: card.scheme, last4: card.last4, at: card.at, payout, payoutDay },
  }));
  const [first] = lines;
  if (!isDisputed || first === undefined) return lines;
  const dispute: CardLine = {
    ...first,
    id: `${first.id}-dispute`,
    sort: 'chargeback',
    amount: -first.amount,
    fee: FEE.dispute,
  };
  return [...lines, dispute];
}
