import { v7 } from 'uuid';

/** A new id: UUID version 7, so that ids made later sort later. */
export const newId = (): string => v7();
