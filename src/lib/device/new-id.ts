import { v4, v7 } from 'uuid';

/** A new id: UUID version 7, so that ids made later sort later. */
export const newId = (): string => v7();

/** Salt for a private part: 122 random bits. */
export const newSalt = (): string => v4();
