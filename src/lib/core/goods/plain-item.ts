/** An item with nothing special about it, to begin from. */
import type { BodyOf } from '../daybook/kinds';

type ItemBody = BodyOf<'item.set'>;

/** Everything but what must be known of any item: sold by the piece, one price, no variants. */
export const PLAIN_ITEM: Omit<ItemBody, 'id' | 'name' | 'price'> = {
  detail: '',
  description: '',
  code: '',
  barcodes: [],
  category: '',
  colour: '#1c684c',
  unit: '',
  decimals: 0,
  otherPrice: null,
  isOpenPrice: false,
  isTimed: false,
  taxes: [],
  cost: null,
  low: 3000,
  reorder: [],
  isStocked: true,
  variantOf: null,
  values: [],
  choices: [],
  extras: [],
  maker: null,
  commodityCode: '',
  isReturnable: true,
  earnsPoints: true,
  isActive: true,
};
