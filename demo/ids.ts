import { v5 } from 'uuid';

const NAMESPACE = '6f0d2f0e-6a55-5c4e-9c55-2f6d3a9a7b11';

/** The same name always gives the same id, so that the demo can be told apart and added to. */
export const recordIdOf = (...names: readonly string[]): string => v5(names.join('/'), NAMESPACE);
