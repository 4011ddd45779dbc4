<!-- What is left of a deposit once its order is called off or handed over: a fee is kept, the rest goes back. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Row } from '$lib/core/books/tables';
  import { readAmount } from '$lib/core/money/amount-text';
  import { feeSlip } from '$lib/core/order/advance';
  import type { OrderNow } from '$lib/core/order/order-state';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    now: OrderNow;
    customer: Row<'customers'>;
    /** Keeps it as the customer's credit. */
    onCredit: (lentBy?: string) => Promise<void>;
  }
  const { now, customer, onCredit }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  let fee = $state('');
  let wrong = $state('');

  /** Onto the slip at the counter, where the deposit pays for it: it has its tax, and a receipt. */
  function keepFee(): void {
    const read = readAmount(fee, money.currency);
    const made = read.ok
      ? feeSlip({ newId, now, name: customer.name, amount: read.amount, taxes: stall.taxes })
      : read;
    const refusal = made.ok ? stall.slip.takeOrder(made.slip) : made.refusal;
    wrong = refusal === null ? '' : refusalWords(refusal, money);
    if (refusal === null) void goto('/counter');
  }
</script>

<section class="sheet grid gap-4" aria-label="Deposit left">
  <p>
    {money.text(now.deposit)} of the deposit is left. In money it goes back from the sale that took it,
    by <i>Take something off</i>; or it is kept for them.
  </p>
  <form
    class="flex flex-wrap items-end gap-3"
    aria-label="Keep a fee"
    onsubmit={(event) => {
      event.preventDefault();
      keepFee();
    }}
  >
    <div class="min-w-36 flex-1">
      <Field label="Fee that we keep" bind:value={fee} inputmode="decimal" autocomplete="off" />
    </div>
    <button class="btn btn-quiet">To the counter</button>
    <RightButton
      right="voucher.set"
      look="btn-quiet"
      label={`Keep ${money.text(now.deposit)} as credit`}
      onGo={onCredit}
    />
  </form>
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
</section>
