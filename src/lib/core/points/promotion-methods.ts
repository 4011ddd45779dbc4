/** Ways to pay by which no money comes in, and none is owed: what the vendor gives. */
const PROMOTION_METHODS = ['points', 'reward'] as const;

export const isPromotion = (method: string): boolean =>
  PROMOTION_METHODS.some((each) => each === method);

/** What points are on the account of whoever has them; rewards are there under their ids. */
export const POINTS = 'points';

/** Against what customers have: what was given in all. */
const GIVEN = 'points:given';

/** Whether it is the account of a customer's points. */
export const isPointsOf = (account: string): boolean =>
  account.startsWith('points:') && account !== GIVEN;
