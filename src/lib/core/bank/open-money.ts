/** What is still to come to the bank, or to go from it, of all events: what lines of statements may be. Minor units. */
import { NO_EVENT } from '../books/names';
import type { Row } from '../books/tables';
import { bagsOf } from '../drawer/move-cash';
import { sum } from '../money/units';
import { paidWith } from '../payment/part-sums';

/** Rows that it is worked out from, of events of the last months. */
export interface OpenRows {
  /** What stands on `owed:…` and `bag:…` of each event. */
  readonly accounts: readonly Row<'eventAccounts'>[];
  readonly ways: readonly Pick<Row<'ways'>, 'id' | 'name' | 'method'>[];
  readonly cardLines: readonly Row<'cardLines'>[];
  /** Lines of the report that were joined to a payment by hand. */
  readonly cardJoins: readonly Row<'cardJoins'>[];
  readonly cards: readonly Pick<Row<'cardPayments'>, 'id' | 'event' | 'way'>[];
  /** Parts taken in ways that are no cards and no cash, where the event has any of it still to come. */
  readonly payments: readonly Row<'payments'>[];
  readonly handedIn: readonly Row<'handedIn'>[];
  readonly cashMoves: readonly Omit<Row<'cashMoves'>, 'photo'>[];
  readonly drawerReads: readonly Row<'drawerReads'>[];
  /** What came and was paid, and was not taken back. */
  readonly came: readonly Row<'moneyCame'>[];
  readonly paid: readonly Row<'paidOut'>[];
  /** Of what came and was paid: which line each is. */
  readonly joins: readonly Row<'bankJoins'>[];
}

/** What would be written if it came: of one event, or of none. */
export interface OpenPart {
  readonly event: string | null;
  readonly from: readonly { readonly account: string; readonly amount: number }[];
  readonly fees: number;
  readonly payments: readonly string[];
}

export interface OpenMoney {
  /** Names it: `payout PO-1`, `bag …`, `payment …`, `handed …`, `way … …`, `money …`. */
  readonly key: string;
  readonly is: 'payout' | 'bag' | 'payment' | 'handed in' | 'way' | 'noted' | 'paid';
  /** What it is called: a payout, the number of a bag, a reference. */
  readonly what: string;
  /** What the bank may write of it. */
  readonly references: readonly string[];
  /** What is expected at the bank; below nothing for what goes. */
  readonly amount: number;
  /** ISO date from which on it may come. */
  readonly day: string;
  readonly events: readonly string[];
  readonly parts: readonly OpenPart[];
  /** The entry, where it was noted already and only waits for its line. */
  readonly money: string | null;
}

const netOf = ({ from, fees }: OpenPart): number => sum(from.map(({ amount }) => amount)) - fees;

export function openMoneyOf(rows: OpenRows): readonly OpenMoney[] {
  return [...openPayouts(rows), ...openBags(rows), ...openWays(rows), ...unconfirmed(rows)].filter(
    ({ amount }) => amount !== 0,
  );
}

/** What is of no event has a name of its own among sums, and none in entries. */
const idOf = (event: string): string | null => (event === NO_EVENT ? null : event);
const eventsOf = (event: string): string[] => (event === NO_EVENT ? [] : [event]);
const isAt = (row: { readonly event: string | null }, event: string): boolean =>
  (row.event ?? NO_EVENT) === event;

const owedAt = ({ accounts }: OpenRows, event: string, account: string): number =>
  accounts.find((row) => row.event === event && row.account === account)?.amount ?? 0;

/** A payout may be of several events: each has its part, as far as that has not come. */
function openPayouts(rows: OpenRows): OpenMoney[] {
  const cards = new Map(rows.cards.map((card) => [card.id, card]));
  const byHand = new Map(rows.cardJoins.map(({ id, payment }) => [id, payment]));
  const payouts = new Map<string, { day: string; events: Map<string, Row<'cardLines'>[]> }>();
  for (const line of rows.cardLines) {
    if (line.payout === '' || line.sort === 'decline') continue;
    const card = cards.get(byHand.get(line.id) ?? line.reference);
    const payout = payouts.get(line.payout) ?? {
      day: line.payoutDay,
      events: new Map<string, Row<'cardLines'>[]>(),
    };
    payouts.set(line.payout, payout);
    // A line of no payment that is known is none of ours.
    if (card === undefined) continue;
    const event = card.event ?? NO_EVENT;
    const there = payout.events.get(event);
    if (there === undefined) payout.events.set(event, [line]);
    else there.push(line);
  }
  return [...payouts].flatMap(([what, { day, events }]): OpenMoney[] => {
    const parts = [...events].flatMap(([event, lines]): OpenPart[] => {
      if (rows.came.some((came) => isAt(came, event) && came.what === what)) return [];
      const ways = new Map<string, number>();
      for (const line of lines) {
        const way = cards.get(byHand.get(line.id) ?? line.reference)?.way ?? '';
        ways.set(way, (ways.get(way) ?? 0) + line.amount);
      }
      const from = [...ways].flatMap(([way, amount]) => {
        const due = Math.min(amount, owedAt(rows, event, `owed:${way}`));
        return due > 0 ? [{ account: `owed:${way}`, amount: due }] : [];
      });
      const fees = sum(lines.map(({ fee }) => fee));
      const part = { event: idOf(event), from, fees, payments: [] };
      return netOf(part) > 0 ? [part] : [];
    });
    return parts.length === 0
      ? []
      : [
          {
            key: `payout ${what}`,
            is: 'payout',
            what,
            references: [what],
            amount: sum(parts.map(netOf)),
            day,
            events: parts.flatMap(({ event }) => event ?? []),
            parts,
            money: null,
          },
        ];
  });
}

function openBags(rows: OpenRows): OpenMoney[] {
  const bags = new Map(
    bagsOf(rows.drawerReads, rows.cashMoves).map(({ id, number }) => [id, number]),
  );
  const filled = new Map(
    [...rows.cashMoves, ...rows.drawerReads].map(({ id, at }) => [id, at.slice(0, 10)]),
  );
  return rows.accounts
    .filter(({ account, amount }) => account.startsWith('bag:') && amount > 0)
    .map(({ event, account, amount }): OpenMoney => {
      const id = account.slice('bag:'.length);
      const what = bags.get(id) ?? '';
      return {
        key: `bag ${id}`,
        is: 'bag',
        what,
        references: [what],
        amount,
        day: filled.get(id) ?? '',
        events: eventsOf(event),
        parts: [{ event: idOf(event), from: [{ account, amount }], fees: 0, payments: [] }],
        money: null,
      };
    });
}

/**
 * Cheques, tokens, transfers: each payment by itself, what was handed in together, and all of it. What is handed in
 * comes together, so its payments are not looked for one by one.
 */
function openWays(rows: OpenRows): OpenMoney[] {
  const methods = new Map(rows.ways.map(({ id, method }) => [id, method]));
  const done = new Set(rows.came.flatMap(({ payments }) => payments));
  return rows.accounts
    .filter(({ account, amount }) => account.startsWith('owed:') && amount > 0)
    .flatMap(({ event, account, amount: open }): OpenMoney[] => {
      const way = account.slice('owed:'.length);
      if (['card', 'keyed'].includes(methods.get(way) ?? '')) return [];
      const parts = rows.payments.filter(
        (part) => part.event === event && part.way === way && !done.has(part.id),
      );
      const named = (
        key: string,
        is: OpenMoney['is'],
        amount: number,
        more: Pick<OpenMoney, 'what' | 'references' | 'day'>,
        payments: readonly string[],
      ): OpenMoney[] => {
        const due = Math.min(amount, open);
        if (due <= 0) return [];
        const part = { event: idOf(event), from: [{ account, amount: due }], fees: 0, payments };
        const of = { events: eventsOf(event), parts: [part], money: null };
        return [{ key, is, amount: due, ...of, ...more }];
      };
      const batches = rows.handedIn.filter(
        (batch) =>
          batch.event === event &&
          batch.way === way &&
          !rows.came.some((came) => isAt(came, event) && came.what === batch.what),
      );
      const inBatch = new Set(batches.flatMap(({ payments }) => payments));
      const single = parts.filter(({ id }) => !inBatch.has(id));
      const first = parts.map(({ at }) => at.slice(0, 10)).sort()[0] ?? '';
      const inAll = `way ${event} ${way}`;
      const whole = named(inAll, 'way', open, { what: '', references: [], day: first }, [
        ...parts.map(({ id }) => id),
      ]);
      return [
        ...batches.flatMap(({ id, amount, what, day, payments }) =>
          named(`handed ${id}`, 'handed in', amount, { what, references: [what], day }, payments),
        ),
        ...single.flatMap((part) =>
          named(
            `payment ${part.id}`,
            'payment',
            paidWith(part),
            {
              what: part.reference,
              references: [part.reference],
              day: part.at.slice(0, 10),
            },
            [part.id],
          ),
        ),
        ...(parts.length === 1 || batches.length > 0 ? [] : whole),
      ];
    });
}

/** What was noted by hand, as far as no line of a statement is it. */
function unconfirmed({ came, paid, joins }: OpenRows): OpenMoney[] {
  const joined = new Map<string, number>();
  for (const { money, amount } of joins)
    if (money !== null) joined.set(money, (joined.get(money) ?? 0) + amount);
  const noted = (
    row: Pick<Row<'moneyCame'>, 'id' | 'event' | 'what'>,
    is: 'noted' | 'paid',
    amount: number,
    day: string,
  ): OpenMoney => ({
    key: `money ${row.id}`,
    is,
    what: row.what,
    references: [row.what],
    amount: amount - (joined.get(row.id) ?? 0),
    day,
    events: row.event === null ? [] : [row.event],
    parts: [],
    money: row.id,
  });
  return [
    ...came.map((row) => noted(row, 'noted', row.amount, row.day)),
    ...paid.map((row) => noted(row, 'paid', 0 - row.amount, row.at.slice(0, 10))),
  ];
}
