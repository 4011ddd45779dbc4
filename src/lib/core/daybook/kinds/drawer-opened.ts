import { z } from 'zod';
import { worthOf } from '../../money/worth';
import { amountFromZero, kind, name, pieces } from '../kind';

/** A drawer opened with a float; the entry's id is the drawer's. */
export const drawerOpened = kind(
  1,
  z
    .strictObject({ name, float: amountFromZero, counts: pieces })
    .refine(({ float, counts }) => worthOf(counts) === float, {
      path: ['float'],
      message: 'the float must be what the notes and coins add up to',
    }),
);
