/** The trial balance: what stands on each account once all entries are in it. */
import type { Posting } from './posting';

export type Balance =
  | { readonly account: string; readonly amount: number }
  | { readonly account: string; readonly item: string; readonly quantity: number };

export class Trial {
  readonly #amounts = new Map<string, number>();
  readonly #quantities = new Map<string, Map<string, number>>();

  add(postings: readonly Posting[]): void {
    for (const { account, amount, quantity, item = '' } of postings) {
      if (amount !== undefined)
        this.#amounts.set(account, (this.#amounts.get(account) ?? 0) + amount);
      if (quantity === undefined) continue;
      const items = this.#quantities.get(account) ?? new Map<string, number>();
      this.#quantities.set(account, items.set(item, (items.get(item) ?? 0) + quantity));
    }
  }

  amount(account: string): number {
    return this.#amounts.get(account) ?? 0;
  }

  quantity(account: string, item: string): number {
    return this.#quantities.get(account)?.get(item) ?? 0;
  }

  /** Everything that is not nothing, in order of name. */
  balances(): Balance[] {
    const all: Balance[] = [];
    for (const [account, amount] of this.#amounts) if (amount !== 0) all.push({ account, amount });
    for (const [account, items] of this.#quantities)
      for (const [item, quantity] of items)
        if (quantity !== 0) all.push({ account, item, quantity });
    const name = (of: Balance): string => `${of.account} ${'item' in of ? of.item : ''}`;
    return all.sort((a, b) => (name(a) < name(b) ? -1 : 1));
  }

  /** What all amounts add up to: nothing, or something is wrong. Minor units. */
  get total(): number {
    let total = 0;
    for (const amount of this.#amounts.values()) total += amount;
    return total;
  }
}
