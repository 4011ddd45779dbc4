/** What can be priced: a slip with its lines, discounts and taxes, as facts of the moment. */

export type Side = 'cash' | 'card';

/** A discount either in percent (decimal text) or as an amount in minor units. */
export type Discount = { readonly percent: string } | { readonly amount: number };

export interface SlipTax {
  readonly id: string;
  readonly name: string;
  /** Percent, decimal text with up to four decimals. */
  readonly rate: string;
  readonly level?: string | undefined;
  /** Ids of the taxes that this one is charged on top of. */
  readonly on?: readonly string[] | undefined;
}

export interface SlipExtra {
  readonly name?: string | undefined;
  /** Minor units, on the typed side. */
  readonly price: number;
}

export interface SlipLine {
  readonly name?: string | undefined;
  /** Minor units for one unit of measure, on the typed side. */
  readonly price: number;
  /** The other side's price where the item has its own. */
  readonly otherSidePrice?: number | undefined;
  /** Decimal text with up to three decimals; negative for goods that come back. */
  readonly quantity: string;
  /** Ids of taxes of the slip; the slip's own order counts. */
  readonly taxes: readonly string[];
  readonly extras?: readonly SlipExtra[] | undefined;
  readonly discount?: Discount | undefined;
  /** Vouchers and deposits are never discounted. */
  readonly noDiscount?: boolean | undefined;
}

export type ServiceCharge = Discount & { readonly taxes: readonly string[] };

export interface Slip {
  readonly currency: string;
  readonly pricesIncludeTax: boolean;
  readonly taxRounding: 'line' | 'sale';
  /** Cash rounding step in minor units; 1 is none. */
  readonly cashStep: number;
  /** In set-up order. A tax may only be charged on taxes that stand before it. */
  readonly taxes: readonly SlipTax[];
  readonly lines: readonly SlipLine[];
  readonly typedSide?: Side | undefined;
  /** Percent by which the card price is above the cash price. */
  readonly uplift?: string | undefined;
  readonly standingDiscount?: string | undefined;
  readonly discount?: Discount | undefined;
  readonly serviceCharge?: ServiceCharge | undefined;
}

export interface QuotedLine {
  readonly gross: number;
  readonly lineDiscount: number;
  readonly standingDiscount: number;
  readonly wholeDiscount: number;
  readonly net: number;
  /** Minor units by tax id. */
  readonly tax: Readonly<Record<string, number>>;
  readonly total: number;
}

export interface QuotedTax {
  readonly id: string;
  readonly base: number;
  readonly amount: number;
}

/** A slip worked out for one side; every figure in minor units. */
export interface SideQuote {
  readonly lines: readonly QuotedLine[];
  readonly serviceCharge: number;
  readonly taxes: readonly QuotedTax[];
  readonly total: number;
}

export interface Quote {
  readonly cash: SideQuote;
  readonly card: SideQuote;
  /** The cash total rounded to the cash step. */
  readonly dueInCash: number;
}
