/** A list with one of its things moved to another place. */
export function moved<T>(list: readonly T[], from: number, to: number): readonly T[] {
  const next = [...list];
  const [thing] = next.splice(from, 1);
  if (thing === undefined) return list;
  next.splice(to, 0, thing);
  return next;
}
