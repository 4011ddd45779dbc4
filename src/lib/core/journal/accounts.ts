/** The accounts that entries move things on. Named `account`, or `account:id` where there are several. */

/** Every account there is, and what its id is; null where there is one of it. */
export const ACCOUNTS = {
  /** Cash in a drawer. */
  drawer: 'the drawer',
  /** Cash outside drawers and bags: floats come from it, what was counted goes back to it. */
  safe: null,
  /** Cash on its way to the bank. */
  bag: 'the bag',
  /** What statements confirm. */
  bank: null,
  /** What the owner put in or took out. */
  owner: null,
  /** The pitch, as far as it was paid. */
  pitch: null,
  /** What else was spent, by what for in one word. */
  spent: 'what for',
  /** What is still to come by a way to pay that is not cash. */
  owed: 'the way',
  /** What a slip comes to, less the parts taken for it. */
  slip: 'the slip',
  /** Tips that belong to whoever took them. */
  tips: 'the person',
  /** Tax taken and not handed on. */
  tax: 'the tax, @ and its rate',
  /** The vendor's own goods, at what they cost. */
  goods: null,
  /** Earned, without tax. */
  sales: null,
  service: null,
  uplift: null,
  surcharge: null,
  /** Cash steps. */
  rounding: null,
  /** Counted against should-be. */
  'drawer-difference': null,
  /** What points and rewards paid, less the taxes that they lowered. */
  promotions: null,
  /** What was left on vouchers that ran out. */
  breakage: null,
  /** What goods that were sold had cost. */
  cost: null,
  /** What acquirers keep of what cards paid. */
  'card-fees': null,
  /** What makers are paid for their goods, and people for having sold. */
  'makers-share': null,
  commission: null,
  /** What goods had cost that are gone and were not sold. */
  lost: null,
  /** What customers owe; what was kept for them of returns and of what they paid too much. */
  customer: 'the customer',
  credit: 'the customer',
  /** What is owed to whoever has its number. */
  voucher: 'its number',
  /** Tax of vouchers for one purpose, from when they are sold until they are spent. */
  'prepaid-tax': null,
  /** What was paid for goods that are kept, until they are handed over. */
  deposit: 'the order',
  /** What is owed for what was delivered. */
  supplier: 'the supplier',
  /** What lies at another event than what it paid for was sold at: below nothing where it lies, above where that was sold. */
  elsewhere: null,
  /** What an entry's own figures do not account for; an entry with anything here is doubted. */
  unexplained: null,
  /** Quantities: goods at a place; what has gone, and where it came from, is a place too. */
  place: 'the place',
  /** Quantities: what was done for a list of goods, and against it what is still to do. */
  packed: 'the list',
  sent: 'the list',
  received: 'the list',
  'to-do': 'the list',
  /** Quantities: what was handed over of an order, by its line, and against it what is still to hand over. */
  handed: 'the order',
  'to-hand': 'the order',
  /** Quantities: points of a customer and what they spent towards rewards, and against them what was given in all. */
  points: 'the customer, or given',
} as const satisfies Readonly<Record<string, string | null>>;

export type AccountHead = keyof typeof ACCOUNTS;

/** Accounts of quantities; all others are of money. */
const OF_GOODS = [
  ...(['place', 'packed', 'sent', 'received', 'to-do'] as const),
  ...(['handed', 'to-hand', 'points'] as const),
] as const;
export type MoneyHead = Exclude<AccountHead, (typeof OF_GOODS)[number]>;
export const moneyHeads: readonly MoneyHead[] = (Object.keys(ACCOUNTS) as AccountHead[]).filter(
  (head): head is MoneyHead => !OF_GOODS.some((each) => each === head),
);
type WithId = {
  [H in AccountHead]: (typeof ACCOUNTS)[H] extends null ? never : H;
}[AccountHead];
export type Account = Exclude<AccountHead, WithId> | `${WithId}:${string}`;

/** Where goods are sold from that nobody counts, and where they go. */
export const UNCOUNTED = 'uncounted';
export const GONE_UNCOUNTED = 'gone:uncounted';

export const headOf = (account: string): string => {
  const colon = account.indexOf(':');
  return colon === -1 ? account : account.slice(0, colon);
};

export function isAccount(text: string): text is Account {
  const head = headOf(text);
  if (!Object.hasOwn(ACCOUNTS, head)) return false;
  return (ACCOUNTS[head as AccountHead] === null) === (text === head) && !text.endsWith(':');
}
