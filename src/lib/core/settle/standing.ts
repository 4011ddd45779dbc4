/** What came or was paid, as far as nobody has said that it was not so. @param undone Ids of what was taken back. */
export const standing = <R extends { readonly id: string }>(
  money: readonly R[],
  undone: ReadonlySet<string>,
): R[] => money.filter(({ id }) => !undone.has(id));
