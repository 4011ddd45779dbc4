<!-- The sale or the invoice that something moved for, as a link behind what it was. -->
<script lang="ts">
  import type { HeldMove } from '$lib/core/held/statement';
  import { invoiceNumberWords } from '$lib/ui/words/invoice-words';

  interface Props {
    move: Pick<HeldMove, 'sale' | 'invoice' | 'number'>;
  }
  const { move }: Props = $props();
</script>

{#if move.sale !== ''}, <a class="plain whitespace-nowrap" href="/sales/{move.sale}"
    >{move.number}</a
  >{:else if move.invoice !== ''}, <a class="plain" href="/invoices/{move.invoice}"
    >{invoiceNumberWords(move.number)}</a
  >{/if}
