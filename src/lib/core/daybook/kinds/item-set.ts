import { z } from 'zod';
import {
  amount,
  amountFromZero,
  colour,
  cost,
  kind,
  name,
  note,
  placeId,
  quantity,
  recordId,
} from '../kind';

/** One of the things that can be added to an item, at a price of its own. */
const extra = z.strictObject({
  name,
  /** Minor units on the typed side, for one unit of measure. */
  price: amount,
  /** Chosen unless somebody takes it off. */
  isDefault: z.boolean(),
});

/** Extras that belong together, of which at least and at most so many are chosen. */
const extraGroup = z
  .strictObject({
    name,
    least: z.int().min(0).max(20),
    most: z.int().min(1).max(20),
    options: z.array(extra).min(1).max(20),
  })
  .refine(({ least, most }) => least <= most, 'at least must not be more than at most');

/** A way in which variants differ: size, with 9 cm, 1 l, 2 l. */
const choice = z.strictObject({ name, values: z.array(name).min(1).max(30) });

/**
 * Something that is sold. Version 2 brought variants, extras, and everything beside price and stock
 * that a stall wants to know of its goods. A variant is an item of its own, so that it has its own
 * code, price and stock; it names the item it is one of and its value of each choice.
 */
export const itemSet = kind(
  2,
  z
    .strictObject({
      id: recordId,
      name,
      /** What tells it from others of the name: pot size, colour, maker. */
      detail: z.string().max(80),
      description: note,
      code: z.string().max(40),
      barcodes: z.array(z.string().min(1).max(40)).max(20),
      category: z.string().max(80),
      colour,
      /** Unit of measure as people write it; empty for things that are counted. */
      unit: z.string().max(12),
      /** Decimals of its quantity, 0 to 3. */
      decimals: z.int().min(0).max(3),
      /** Minor units per unit of measure on the typed side. */
      price: amountFromZero,
      /** The other side's own price, or null if it follows by the uplift. */
      otherPrice: amountFromZero.nullable(),
      /** The seller types the price. */
      isOpenPrice: z.boolean(),
      /** A service charged by the hour: the seller enters hours and minutes. */
      isTimed: z.boolean(),
      taxes: z.array(recordId).max(10),
      /** Thousandths of a minor unit per unit of measure, or null if it is not known. */
      cost: cost.nullable(),
      /** At or below this many thousandths the tag says that little is left. */
      low: quantity.min(0),
      /** When to buy again, place by place, in thousandths. */
      reorder: z.array(z.strictObject({ place: placeId, level: quantity.min(0) })).max(20),
      /** False for services: selling them moves no stock. */
      isStocked: z.boolean(),
      /** The item that this is a variant of, and its value of each of that item's choices. */
      variantOf: recordId.nullable(),
      values: z.array(name).max(4),
      /** In what its variants differ; without any, it is sold as it is. */
      choices: z.array(choice).max(4),
      extras: z.array(extraGroup).max(10),
      /** Whose goods they are, if they are sold on commission. */
      maker: recordId.nullable(),
      /** Of the customs tariff or another list of goods. */
      commodityCode: z.string().max(20),
      isReturnable: z.boolean(),
      earnsPoints: z.boolean(),
      isActive: z.boolean(),
    })
    .refine(({ variantOf, choices }) => variantOf === null || choices.length === 0, {
      path: ['choices'],
      message: 'a variant has no variants of its own',
    }),
  {
    1: (body) => ({
      ...body,
      description: '',
      otherPrice: null,
      isOpenPrice: false,
      isTimed: false,
      reorder: [],
      variantOf: null,
      values: [],
      choices: [],
      extras: [],
      maker: null,
      commodityCode: '',
      isReturnable: true,
      earnsPoints: true,
    }),
  },
);
