<!-- The invoice of a sale, or the way to one. -->
<script lang="ts">
  import { standingOf } from '$lib/core/invoice/make-invoice';
  import { madeOf, numbersOf } from '$lib/device/invoices';
  import { live } from '$lib/device/live.svelte';
  import { invoiceNumberWords } from '$lib/ui/words/invoice-words';
  import { useStall } from '../../stall.svelte';

  interface Props {
    sale: string;
    isVoid: boolean;
  }
  const { sale, isVoid }: Props = $props();
  const { db } = useStall();
  const found = live(() => {
    const source = sale;
    return async () => {
      const made = await madeOf(db, source);
      const invoices = made.filter(({ sort }) => sort === 'invoice');
      return {
        ...{ invoices, numbers: await numbersOf(db, invoices) },
        stands: standingOf(source, made),
      };
    };
  }, undefined);
</script>

{#if found.value !== undefined && (!isVoid || found.value.invoices.length > 0)}
  <section class="sheet mx-auto grid w-full max-w-md gap-2 print:hidden" aria-labelledby="invoice">
    <h2 id="invoice">Invoice</h2>
    {#each found.value.invoices as { id } (id)}
      <p>
        <a class="plain" href="/invoices/{id}"
          >{invoiceNumberWords(found.value.numbers.get(id) ?? '')}</a
        >
      </p>
    {/each}
    {#if found.value.stands === undefined && !isVoid}
      <a class="btn btn-quiet justify-self-start" href="/invoices/new?sale={sale}"
        >Make an invoice</a
      >
    {/if}
  </section>
{/if}
