/** Points and rewards: how rewards are set up, what each customer has, and what moved it (core/points). */
import { sumsBy } from '../sum-tables';
import { flag, json, records, text, whole } from '../table-spec';

export const pointTables = {
  rewards: records({
    set: {
      name: text(80),
      spend: whole(),
      value: whole(),
      from: text(10),
      until: text(10),
      categories: json<readonly string[]>([]),
      isActive: flag(),
    },
  }),
  /** Points of a customer by their account, and what they spent towards each reward, in minor units. */
  pointSums: sumsBy('pointSums', { account: text(60), item: text(40) }, { indexes: ['account'] }),
  /** By customer: the day on which their points moved last. */
  pointStates: records({ moved: { day: text(10) } }),
} as const;
