/** Names that rows are kept under where nobody gave one: places, items, people, events. */

/** Stock: the vendor's base, and where goods go when they are sold. */
export const BASE = 'base';
export const GONE_SOLD = 'gone:sold';
/** Where goods come from when they are delivered. */
export const SUPPLIERS = 'suppliers';
/** Where goods are that were sent for a list and have not arrived. */
export const onTheWay = (list: string): string => `way:${list}`;
/** Where goods are that are gone: `gone:` and why, in one word. */
export const goneTo = (why: string): string => `gone:${why.replaceAll(' ', '-')}`;
/** Sums by item or event need a key also where there is none. */
export const UNLISTED = 'unlisted';
export const SERVICE = 'service';
export const UPLIFT = 'uplift';
export const NOBODY = 'nobody';
export const NO_EVENT = 'none';
