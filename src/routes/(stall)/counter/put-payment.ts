/** What a customer pays in goes on the open slip: what they owe first, and what is more as their credit. */
import { headOfAccount } from '$lib/core/held/held-account';
import { documentOf, type OpenItem } from '$lib/core/held/statement';
import { paidInFor } from '$lib/core/held/set-held';
import { readAmount } from '$lib/core/money/amount-text';
import type { SlipCustomer } from '$lib/core/slip/open-slip';
import { HELD_LINES } from '$lib/ui/words/held-words';
import { refusalWords } from '$lib/ui/words/refusal-words';
import type { Stall } from '../stall.svelte';

/**
 * @param typed What is paid in; nothing typed is all that they owe.
 * @param debt The sale or invoice that is paid before older ones, and what is left of it; nothing typed is that.
 * @returns How much in minor units, or what is wrong, in words.
 */
export function putPayment(
  { slip, money }: Pick<Stall, 'slip' | 'money'>,
  customer: SlipCustomer,
  typed: string,
  owes: number,
  debt?: Pick<OpenItem, 'sale' | 'invoice' | 'number' | 'left'>,
): { readonly amount: number } | { readonly wrong: string } {
  const all = money.plain(debt?.left ?? Math.max(0, owes));
  const read = readAmount(typed.trim() === '' ? all : typed, money.currency);
  if (!read.ok) return { wrong: refusalWords(read.refusal, money) };
  const refusals = [
    slip.current.customer?.id === customer.id ? null : slip.say({ customer }),
    ...paidInFor(customer.id, read.amount, owes).map(({ account, amount }) =>
      slip.putPaidIn({
        ...{ account, amount, name: HELD_LINES[headOfAccount(account)] },
        ...(debt === undefined || headOfAccount(account) !== 'customer'
          ? { detail: '' }
          : { detail: `for ${debt.number}`, pays: documentOf(debt) }),
      }),
    ),
  ];
  const refusal = refusals.find((each) => each !== null);
  return refusal == null ? { amount: read.amount } : { wrong: refusalWords(refusal, money) };
}
