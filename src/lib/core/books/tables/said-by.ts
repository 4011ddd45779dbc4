import { id, text, textOrNull } from '../table-spec';

/** Of the envelope of an entry: where, on which device, by whom and when; in most rows of facts. */
export const saidBy = {
  event: textOrNull(40),
  device: id(),
  by: textOrNull(40),
  at: text(30),
} as const;
