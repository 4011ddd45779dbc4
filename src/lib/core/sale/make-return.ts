/** Goods of a sale come back: chosen lines, to stock or gone for good, and money to whoever had paid. Minor units. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { overspends, type Balances } from '../held/overspends';
import { headOfAccount, type HeldAccount } from '../held/held-account';
import { standingVoids } from '../loose-end/voided-twice';
import { percentOf } from '../money/percent';
import { readQuantity } from '../money/typed';
import { sum } from '../money/units';
import { paidWith } from '../payment/part-sums';
import { roundToStep } from '../pricing/cash-step';
import { readDiscount } from '../slip/read-discount';
import {
  leftOf,
  leftValueOf,
  returnFigures,
  soldFrom,
  takenOff,
  type ComesBack,
  type SoldSale,
} from './return-figures';

type Body = BodyOf<'return.made'>;

/** A line of which something comes back, as it was chosen. */
export interface ChosenBack {
  readonly line: number;
  /** How much, as it was typed, or what is taken off its price: an amount, or so many percent; nothing typed is none. */
  readonly typed: string;
  readonly to: Body['lines'][number]['to'];
}

export interface MakeReturn extends SoldSale {
  readonly newId: () => string;
  readonly voids: readonly Row<'voids'>[];
  readonly undone: readonly Row<'voidsUndone'>[];
  readonly chosen: readonly ChosenBack[];
  /** The goods stay with the customer, and something is taken off their price. */
  readonly isOff?: boolean | undefined;
  readonly reason: string;
  /** By which way it is given back; a drawer where that is cash, the payment where it goes back to its card. */
  readonly way: string;
  readonly drawer: string | null;
  readonly card: string | null;
  /** The account that it goes on, where the way does so. */
  readonly account?: HeldAccount | null | undefined;
  /** How what is more than the card had paid is given back beside it; without it that is refused. */
  readonly rest?: RestOfCard | null | undefined;
  /** What stands on the accounts that its lines paid in on. */
  readonly balances?: Balances | undefined;
  /** What goes back to cards of this sale already. */
  readonly refunds: readonly Pick<Row<'cardRefunds'>, 'payment' | 'amount' | 'state'>[];
  /** ISO 4217. */
  readonly currency: string;
  readonly cashStep: number;
  readonly deviceNumber: number;
  /** The device's next. */
  readonly number: number;
  /** Where and when it comes back: the event that trades, its local day and hour, and where goods are put. */
  readonly event: string | null;
  readonly place: string;
  readonly day: string;
  readonly hour: number;
}

/** By which way, and out of which drawer where that is cash. */
export interface RestOfCard {
  readonly way: string;
  readonly drawer: string | null;
  readonly account?: HeldAccount | null | undefined;
}

export type ReturnRefusal =
  | { readonly code: 'return/voided' }
  | { readonly code: 'return/nothing' }
  | { readonly code: 'return/quantity-wrong'; readonly name: string; readonly typed: string }
  | {
      readonly code: 'return/more';
      readonly name: string;
      readonly left: number;
      readonly unit: string;
    }
  | { readonly code: 'return/off-wrong'; readonly name: string; readonly typed: string }
  /** More than what of its price has not been given back; minor units. */
  | { readonly code: 'return/off-more'; readonly name: string; readonly left: number }
  | { readonly code: 'return/no-reason' }
  | { readonly code: 'return/no-drawer' }
  /** The card paid less than what would go back to it; minor units. */
  | { readonly code: 'return/card-more'; readonly left: number }
  /** The account paid less than what would go back on it; minor units. */
  | { readonly code: 'return/account-more'; readonly left: number }
  /** Of what it had paid in on a voucher or as credit only so much has not been spent; minor units. */
  | { readonly code: 'return/spent'; readonly left: number };
export type ReturnOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: ReturnRefusal };
const refuse = (refusal: ReturnRefusal): ReturnOutcome => ({ ok: false, refusal });

/** Lines of which something can come back: not those that came back themselves, and not what is all back. */
export function canComeBack(sold: SoldSale): readonly Row<'saleLines'>[] {
  const left = leftOf(sold);
  return sold.lines.filter(({ line, quantity }) => quantity > 0 && (left.get(line) ?? 0) > 0);
}

/** What comes back of each line, or is taken off its price, or why that cannot be. @param currency ISO 4217. */
export const readChosen = (
  sold: SoldSale,
  chosen: readonly ChosenBack[],
  isOff: boolean,
  currency: string,
): readonly ComesBack[] | ReturnRefusal =>
  isOff ? readOff(sold, chosen, currency) : readBack(sold, chosen);

function readOff(
  sold: SoldSale,
  chosen: readonly ChosenBack[],
  currency: string,
): readonly ComesBack[] | ReturnRefusal {
  const left = leftValueOf(sold);
  const off: ComesBack[] = [];
  for (const { line, typed } of chosen) {
    const of = canComeBack(sold).find((each) => each.line === line);
    if (of === undefined || typed.trim() === '') continue;
    const read = readDiscount(typed, currency);
    if (!read.ok) return { code: 'return/off-wrong', name: of.name, typed };
    const still = left.get(line) ?? 0;
    const { discount = { amount: 0 } } = read;
    const amount = 'percent' in discount ? percentOf(of.total, discount.percent) : discount.amount;
    if (amount > still) return { code: 'return/off-more', name: of.name, left: still };
    if (amount > 0) off.push({ line, quantity: 0, off: amount });
  }
  return off.length === 0 ? { code: 'return/nothing' } : off;
}

function readBack(
  sold: SoldSale,
  chosen: readonly ChosenBack[],
): readonly ComesBack[] | ReturnRefusal {
  const left = leftOf(sold);
  const lines = new Map(canComeBack(sold).map((line) => [line.line, line]));
  const back: ComesBack[] = [];
  for (const { line, typed } of chosen) {
    const of = lines.get(line);
    if (of === undefined || typed.trim() === '') continue;
    const quantity = readQuantity(typed);
    const { name, unit } = of;
    if (quantity === null || quantity < 0 || (unit === '' && quantity % 1000 !== 0))
      return { code: 'return/quantity-wrong', name, typed };
    if (quantity === 0) continue;
    const still = left.get(line) ?? 0;
    if (quantity > still) return { code: 'return/more', name, left: still, unit };
    back.push({ line, quantity });
  }
  return back.length === 0 ? { code: 'return/nothing' } : back;
}

export function makeReturn(command: MakeReturn): ReturnOutcome {
  const { newId, sale, voids, undone, chosen, way, drawer } = command;
  if (standingVoids(voids, undone).some((each) => each.sale === sale.id))
    return refuse({ code: 'return/voided' });
  const back = readChosen(command, chosen, command.isOff === true, command.currency);
  if ('code' in back) return refuse(back);
  const reason = command.reason.trim().slice(0, 200);
  if (reason === '') return refuse({ code: 'return/no-reason' });
  const figures = returnFigures(command, back);
  const owed = takenOff(figures);
  // Where points had paid for all of it no money is given.
  if (owed > 0 && way === 'cash' && drawer === null) return refuse({ code: 'return/no-drawer' });
  const spent =
    command.balances === undefined ? null : overspends(figures.takes.postings, command.balances);
  if (spent !== null) return refuse({ code: 'return/spent', left: spent.left });
  const most = mostBack(command);
  const over = most === null ? 0 : Math.max(0, owed - most);
  const { rest } = command;
  if (over > 0 && rest == null)
    return refuse({
      code: command.account == null ? 'return/card-more' : 'return/account-more',
      left: most ?? 0,
    });
  if (over > 0 && rest?.way === 'cash' && rest.drawer === null)
    return refuse({ code: 'return/no-drawer' });
  const { day, hour, place, deviceNumber, number } = command;
  const body: Body = {
    ...{ sale: sale.id, saleNumber: sale.number, slip: sale.slip, number, deviceNumber },
    ...{ reason, day, hour, soldFrom: soldFrom(sale), place },
    lines: back.map(({ line, quantity, off }) => ({
      ...{ line, quantity },
      to: off === undefined ? (chosen.find((each) => each.line === line)?.to ?? 'stock') : 'stock',
      ...(off === undefined ? {} : { off }),
    })),
    ...figures,
    money: [
      ...given(
        owed - over,
        { way, drawer, account: command.account },
        toCard(command),
        command.cashStep,
      ),
      ...(rest == null ? [] : given(over, rest, null, command.cashStep)),
    ],
  };
  return { ok: true, drafts: [draft('return.made', newId(), command.event, body)] };
}

/** What is given back by one way, if anything is. */
function given(
  owed: number,
  { way, drawer, account }: RestOfCard,
  card: Body['money'][number]['card'],
  cashStep: number,
): Body['money'] {
  if (owed <= 0) return [];
  const amount = givenFor(owed, drawer !== null, cashStep);
  return [
    {
      ...{ way, drawer, amount, rounding: amount - owed, card },
      ...(account == null ? {} : { account }),
    },
  ];
}

/** What is given for what is owed: cash in the coins that there are. Minor units. */
export const givenFor = (owed: number, isCash: boolean, cashStep: number): number =>
  isCash ? roundToStep(owed, cashStep) : owed;

const toCard = ({ card, newId }: MakeReturn): Body['money'][number]['card'] =>
  card === null ? null : { payment: card, refund: newId() };

/** What can go back so at most: what of a card's or an account's payment has not; null for any amount. */
function mostBack({ card, account, payments, refunds, before }: MakeReturn): number | null {
  if (account != null) return mostOnAccount(account, payments, before);
  const part = payments.find(({ id }) => id === card);
  return part === undefined ? null : leftOnCard(part, refunds);
}

/**
 * What can go back on an account: what was paid from it and has not gone back; null for credit, which any of it becomes;
 * nothing on a deposit, since what it paid for was handed over. Minor units.
 */
export const mostOnAccount = (
  account: HeldAccount,
  payments: SoldSale['payments'],
  before: SoldSale['before'],
): number | null => {
  const head = headOfAccount(account);
  if (head === 'credit' || head === 'deposit') return head === 'credit' ? null : 0;
  return (
    // What a voucher for goods of one tax paid goes back on it beside the money.
    sum(
      payments.flatMap(({ held, charge }) =>
        held?.account === account && held.lowers === undefined ? charge : [],
      ),
    ) -
    sum(
      before.flatMap(({ money = [] }) =>
        money.flatMap((each) => (each.account === account ? each.amount : [])),
      ),
    )
  );
};

/** What a card paid and has not gone back to it, nor is to go. Minor units. */
export const leftOnCard = (
  part: SoldSale['payments'][number],
  refunds: MakeReturn['refunds'],
): number =>
  paidWith(part) -
  sum(
    refunds.flatMap(({ payment, state, amount }) =>
      payment === part.id && state !== 'refused' ? amount : [],
    ),
  );
