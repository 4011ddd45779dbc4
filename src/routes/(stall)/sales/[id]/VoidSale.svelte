<script lang="ts">
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { paidWith } from '$lib/core/payment/part-sums';
  import { EXCHANGE } from '$lib/core/payment/methods';
  import { isShiftOver, type VoidRefusal } from '$lib/core/sale/void-sale';
  import { voidOnce } from '$lib/device/void-sale';
  import Field from '$lib/ui/forms/Field.svelte';
  import { voidRefusalWords } from '$lib/ui/words/payment-words';
  import RightButton from '../../RightButton.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    sale: Row<'sales'>;
    payments: readonly Row<'payments'>[];
    voids: readonly Row<'voids'>[];
    returns: readonly Row<'returns'>[];
  }
  const { sale, payments, voids, returns }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const [done] = $derived(voids);
  let isOpen = $state(false);
  let reason = $state('');
  let wrong = $state.raw<VoidRefusal | null>(null);
  /** Another day, or counted: then goods come back as a return. */
  const openDrawers = $derived(stall.openDrawers.map(({ id }) => id));
  const event = $derived(stall.event?.id ?? null);
  const isThisShift = $derived(!isShiftOver({ sale, payments, event }, openDrawers));
  const gives = $derived(
    payments.map((part) => `${money.text(paidWith(part))} ${part.wayName}`).join(', '),
  );

  let isBusy = false;
  async function go(lentBy?: string): Promise<void> {
    if (isBusy) return;
    isBusy = true;
    try {
      const outcome = await voidOnce(stall.daybook, { sale: sale.id, reason, event, lentBy });
      if (!outcome.ok) {
        wrong = outcome.refusal.code === 'slip/gone' ? null : outcome.refusal;
        return;
      }
      toast(`${sale.number} is void. Give back ${gives === '' ? 'nothing' : gives}.`);
    } finally {
      isBusy = false;
    }
  }
</script>

{#if done !== undefined}
  <p
    class="sheet border-error mx-auto w-full max-w-md border-l-8 print:hidden"
    data-testid="voided"
  >
    <b>This sale is void.</b>
    {stall.nameOf(done.by)}: {done.reason}
  </p>
{:else if isThisShift && returns.length === 0 && payments.every(({ way }) => way !== EXCHANGE)}
  <section class="sheet mx-auto grid w-full max-w-md gap-3 print:hidden" aria-label="Void">
    {#if isOpen}
      <p>
        The goods go back to the stall{gives === '' ? '.' : `, and ${gives} is given back.`} The sale
        stays in the books, marked as void.
      </p>
      <Field label="Why" bind:value={reason} maxlength={200} isWrong={wrong !== null} />
      {#if wrong !== null}<p class="text-error" role="alert">{voidRefusalWords(wrong)}</p>{/if}
      <div class="flex flex-wrap gap-2">
        <RightButton
          right="sale.void"
          label={gives === '' ? 'Void it' : `Void it, give back ${gives}`}
          look="btn-quiet !border-error text-error"
          onGo={go}
        />
        <button type="button" class="btn btn-quiet" onclick={() => (isOpen = false)}>Cancel</button>
      </div>
    {:else}
      <button
        type="button"
        class="btn btn-quiet text-error justify-self-start"
        onclick={() => (isOpen = true)}>Void this sale …</button
      >
    {/if}
  </section>
{/if}
