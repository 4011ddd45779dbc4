/** Ids of what has a name in the outside world: goods of a file, a line of a bank, an order from elsewhere. */
import { v5 } from 'uuid';

/**
 * The same name always gives the same id (UUID v5, RFC 9562 section 5.5, the business being its namespace): what
 * is taken in twice, or on two devices that have not heard of each other, is once.
 * @param sort What it is, so that goods and a category of one name differ.
 * @param name As it is called outside: a code, a reference. Blanks around it say nothing.
 */
export const outsideId = (business: string, sort: string, name: string): string =>
  v5(`${sort}/${name.trim()}`, business);
