/** How the demo writes its goods: short lines that become item entries. */
import type { BodyOf } from '../src/lib/core/daybook/kinds';
import { PLAIN_ITEM } from '../src/lib/core/goods/plain-item';
import { combinations } from '../src/lib/core/goods/variants';
import { recordIdOf } from './ids';

type ItemBody = BodyOf<'item.set'>;

/** One item as the demo lists it. */
export interface DemoItem {
  readonly table: string;
  readonly body: ItemBody;
  /** How many are taken to an event, in thousandths. */
  readonly load: number;
  readonly width: number;
  /** How often it is chosen, against the others. */
  readonly pull: number;
}

export interface DemoItemOptions {
  readonly unit?: string;
  readonly decimals?: number;
  readonly barcode?: string;
  readonly isStocked?: boolean;
  readonly load?: number;
  readonly width?: number;
  readonly pull?: number;
  readonly taxes?: readonly string[];
  readonly low?: number;
  /** What else there is to say of it. */
  readonly more?: Partial<ItemBody>;
}

/** Makes the items of one table. @param taxes Ids of the taxes an item carries unless it says so. */
export function goodsOn(business: string, table: string, colour: string, taxes: readonly string[]) {
  return (
    name: string,
    detail: string,
    code: string,
    price: number,
    options: DemoItemOptions = {},
  ): DemoItem => ({
    table,
    load: (options.load ?? 24) * 1000,
    width: options.width ?? 1,
    pull: options.pull ?? 3,
    body: {
      ...PLAIN_ITEM,
      id: recordIdOf(business, 'item', code),
      name,
      detail,
      code,
      barcodes: options.barcode === undefined ? [] : [options.barcode],
      category: recordIdOf(business, 'category', table),
      colour,
      unit: options.unit ?? '',
      decimals: options.decimals ?? 0,
      price,
      taxes: [...(options.taxes ?? taxes)],
      // Two fifths of the price, in thousandths of a minor unit.
      cost: price * 400,
      low: (options.low ?? 4) * 1000,
      isStocked: options.isStocked ?? true,
      ...options.more,
    },
  });
}

/** The item with its choices, and a variant for each combination; each is loaded as the item says. */
export function inVariants(
  base: DemoItem,
  choices: ItemBody['choices'],
  priceOf: (values: readonly string[]) => number,
): readonly DemoItem[] {
  const { body } = base;
  const cells = combinations(choices).map((values, at): DemoItem => {
    const code = `${body.code}${String(at + 1)}`;
    return {
      ...base,
      pull: 1,
      body: {
        ...body,
        id: recordIdOf(body.id, 'variant', ...values),
        code,
        detail: values.join(', '),
        price: priceOf(values),
        variantOf: body.id,
        values,
        extras: [],
      },
    };
  });
  return [{ ...base, load: 0, pull: 0, body: { ...body, choices } }, ...cells];
}
