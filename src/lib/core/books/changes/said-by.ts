import type { Entry } from '../../daybook/entry';

/** The part of the envelope that rows of facts keep. */
export const saidBy = ({ event, at, by }: Pick<Entry, 'event' | 'at' | 'by'>) => ({
  event,
  at,
  by,
});
