/** What a demo business is made of. */
import type { BodyOf } from '../src/lib/core/daybook/kinds';
import type { ConsentWay } from '../src/lib/core/daybook/kinds/customer-consent';
import type { CustomerWho } from '../src/lib/core/daybook/kinds/customer-set';
import type { DemoItem } from './goods';
import type { DemoPerson } from './person';
import type { DemoMarket, DemoStock } from './season';

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

export interface DemoCustomer {
  readonly who: Pick<CustomerWho, 'name'> & Partial<CustomerWho>;
  readonly discount?: string;
  readonly terms?: number;
  /** Minor units. */
  readonly creditLimit?: number;
  readonly consent?: ConsentWay;
}

export interface DemoBusiness {
  readonly id: string;
  readonly business: BodyOf<'business.set'>;
  readonly taxes: readonly BodyOf<'tax.set'>[];
  readonly staff: readonly DemoPerson[];
  /** Who signs in as its owner, with a password that the start command prints. */
  readonly account: { readonly email: string; readonly password: string };
  /** People who buy here often; `consent` is how they agreed to be kept. */
  readonly customers: readonly DemoCustomer[];
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
