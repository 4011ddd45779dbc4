/** Tables of sums, made from where sums are declared (core/journal/sums.ts): nothing else says what they add up. */
import { sumSpecs, type SumName } from '../journal/sums';
import { sums, whole, type Field, type Keep, type TableSpec } from './table-spec';

type KeyOf<S extends SumName> = keyof (typeof sumSpecs)[S]['by'] & string;
type FieldOf<S extends SumName> = keyof (typeof sumSpecs)[S]['fields'] & string;

/** @param key How a store keeps each field of the key. */
export function sumsBy<
  S extends SumName,
  const K extends Record<KeyOf<S>, Field<unknown>>,
  P extends Keep = 'always',
>(
  name: S,
  key: K,
  options: {
    readonly indexes?: readonly (keyof K & string)[];
    readonly keep?: P;
  } = {},
): TableSpec<'sums', K & Record<FieldOf<S>, Field<number>>, P> {
  const { by, fields } = sumSpecs[name];
  const figures = Object.fromEntries(Object.keys(fields).map((field) => [field, whole()]));
  return sums(
    Object.keys(by) as (keyof K & string)[],
    { ...key, ...figures } as K & Record<FieldOf<S>, Field<number>>,
    options,
  );
}
