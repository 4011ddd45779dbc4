import type { Kind } from './kinds';

/**
 * Kinds whose entries the server hands out to no other device: what is in bank accounts and what people are paid is
 * nobody's business at the counter. They stand in the daybook like all others.
 */
export const SERVER_ONLY: readonly Kind[] = ['bank.set', 'bank.stated', 'bank.joined', 'staff.pay'];
