/** What a demo business is made of. */
import type { BodyOf } from '../src/lib/core/daybook/kinds';
import type { ConsentWay } from '../src/lib/core/daybook/kinds/customer-consent';
import type { CustomerWho } from '../src/lib/core/daybook/kinds/customer-set';
import type { DemoItem } from './goods';
import type { DemoPerson } from './person';

/** One day at one pitch, relative to the day the demo is started. */
export interface DemoEvent {
  readonly series: string;
  readonly name: string;
  readonly short: string;
  readonly organiser: string;
  readonly place: string;
  readonly pitch: string;
  readonly opens: string;
  readonly closes: string;
  readonly stripe: string;
  readonly cloth: string;
}

/** A market that comes back; days from today on which its editions begin, those behind us below nothing. */
export interface DemoMarket {
  readonly name: string;
  readonly short: string;
  readonly organiser: string;
  readonly place: string;
  readonly pitch: string;
  readonly opens: string;
  readonly closes: string;
  readonly stripe: string;
  readonly editions: readonly number[];
  /** How many days each is long. */
  readonly days: number;
}

export interface DemoStock {
  readonly van: { readonly name: string; readonly kilograms: number; readonly crates: number };
  readonly stores: readonly string[];
  readonly areas: readonly string[];
  readonly suppliers: readonly {
    readonly name: string;
    readonly email: string;
    readonly phone: string;
    readonly days: number;
    /** Codes of what they sell, how many come at once, and the part of the price that one costs, in percent. */
    readonly sells: readonly (readonly [code: string, pack: number])[];
    readonly percent: number;
  }[];
  /** Code, grams of one, how many fill a crate. */
  readonly carried: readonly (readonly [code: string, grams: number, perCrate: number])[];
  /** Code, when it is bought again at the base, up to how many. */
  readonly levels: readonly (readonly [code: string, level: number, par: number])[];
}

export interface DemoCustomer {
  readonly who: Pick<CustomerWho, 'name'> & Partial<CustomerWho>;
  readonly discount?: string;
  readonly terms?: number;
  /** Minor units. */
  readonly creditLimit?: number;
  readonly consent?: ConsentWay;
  /** They were noted down before under this name: both records are of one person. */
  readonly isOne?: string;
}

export interface DemoBusiness {
  readonly id: string;
  readonly business: BodyOf<'business.set'>;
  readonly taxes: readonly BodyOf<'tax.set'>[];
  /** Where payouts and bags go. */
  readonly bank: { readonly name: string; readonly number: string };
  readonly staff: readonly DemoPerson[];
  /** Who signs in as its owner, with a password that the start command prints. */
  readonly account: { readonly email: string; readonly password: string };
  /** People who buy here often; `consent` is how they agreed to be kept. */
  readonly customers: readonly DemoCustomer[];
  /** Whom its invoices are from, and somebody whom it sells to beside its markets. */
  readonly invoices: {
    readonly vendor: BodyOf<'business.invoicing'>['vendor'];
    readonly series: string;
    /** Who that is, what they are asked money for, and for how much each, with tax where prices have it. */
    readonly to: DemoCustomer;
    /** The number that they have for it. */
    readonly reference: string;
    readonly lines: readonly (readonly [what: string, many: string, price: string])[];
  };
  /** What is charged every month: whom invoices go to, and somebody whose card is on file no more. */
  readonly charges: {
    readonly monthly: readonly [what: string, price: string];
    readonly byCard: readonly [what: string, price: string];
    readonly who: DemoCustomer;
  };
  /** What the reward of those is called who come back. */
  readonly reward: string;
  /** Ways to pay, in the vendor's order. */
  readonly ways: readonly BodyOf<'way.set'>[];
  /** Whose goods are sold on commission. */
  readonly makers: readonly BodyOf<'maker.set'>[];
  /** Tables in their order, each with its goods. */
  readonly items: readonly DemoItem[];
  readonly event: DemoEvent;
  /** Other markets of its year, and its stock beyond what it sells from. */
  readonly markets: readonly DemoMarket[];
  readonly stock: DemoStock;
  /** Past editions: days before today, and how many sales each had. */
  readonly editions: readonly { readonly daysAgo: number; readonly sales: number }[];
  /** Devices that rang up the past editions. */
  readonly devices: readonly string[];
  /** Notes and coins of the float, largest first. */
  readonly float: readonly { readonly value: number; readonly count: number }[];
}
