import { z } from 'zod';
import {
  RIGHTS,
  rightsToBeginWith,
  ROLES,
  withLaterRights,
  withSettling,
} from '../../people/rights';
import { amountFromZero, kind, name, percent, recordId } from '../kind';
import { pinHash } from './pin-set';

/**
 * Somebody who sells. Version 2 brought rights, the discount everybody may give, and the PIN; version 3
 * a salt of each PIN's own, and `pin.set` beside it; version 4 rights to plan events and to move, order and count stock;
 * version 5 the right to settle events.
 */
export const staffSet = kind(
  5,
  z.strictObject({
    id: recordId,
    name,
    role: z.enum(ROLES),
    isActive: z.boolean(),
    /** Beyond what everybody may; an owner has all of them whatever stands here. */
    rights: z.array(z.enum(RIGHTS)).max(RIGHTS.length),
    /** Percent off a line without asking anybody. */
    discountUpTo: percent,
    /** Missing where it stays as it is. */
    pin: pinHash.nullable().optional(),
  }),
  {
    1: (body) => ({
      ...body,
      rights: rightsToBeginWith(body['role']),
      discountUpTo: '0',
      pin: null,
    }),
    2: ({ pin, ...body }) => ({
      ...body,
      pin: pin === null ? null : { ...(pin as object), salt: '' },
    }),
    3: (body) => ({ ...body, rights: withLaterRights(body['rights'] as readonly string[]) }),
    4: (body) => ({ ...body, rights: withSettling(body['rights'] as readonly string[]) }),
  },
);

/** What somebody is paid for being there and for selling; it is between them and the owner. */
export const staffPay = kind(
  1,
  z.strictObject({
    person: recordId,
    /** Minor units an hour on duty. */
    wage: amountFromZero,
    /** Percent of what they sold, without tax. */
    commission: percent,
  }),
);
