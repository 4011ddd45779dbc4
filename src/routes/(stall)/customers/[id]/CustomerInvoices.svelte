<!-- Invoices and credit notes to a customer, the latest first. -->
<script lang="ts">
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { invoiceNumberWords, STANDS_WORDS } from '$lib/ui/words/invoice-words';
  import { InvoicesNow } from '../../invoices/invoices-now.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    customer: string;
  }
  const { customer }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const { locale } = $derived(stall.business);
  const now = new InvoicesNow(() => customer);
  const all = $derived(now.all);
  const SHOWN = 20;
</script>

<section class="sheet grid gap-3" aria-labelledby="invoices">
  <div class="flex flex-wrap items-baseline justify-between gap-3">
    <h2 id="invoices">Invoices</h2>
    <a class="plain" href="/invoices/new?customer={customer}">Write one</a>
  </div>
  {#if all.length > 0}
    <ul class="grid" data-testid="customer-invoices">
      {#each all.slice(0, SHOWN) as each (each.invoice.id)}
        <li class="border-base-300 border-b border-dashed last:border-0">
          <a
            class="grid min-h-12 grid-cols-[1fr_auto] items-baseline gap-x-4 py-2 no-underline"
            href="/invoices/{each.invoice.id}"
          >
            <span
              ><b>{invoiceNumberWords(each.number)}</b>
              <span class={each.stands === 'overdue' ? 'text-error font-[600]' : 'soft'}
                >{STANDS_WORDS[each.stands]}{each.left > 0
                  ? `, due ${shortDayWords(each.invoice.due, locale)}`
                  : `, ${shortDayWords(each.invoice.issued, locale)}`}</span
              ></span
            >
            <span class="figure"
              >{money.figure(each.left > 0 ? each.left : each.invoice.total)}</span
            >
          </a>
        </li>
      {/each}
    </ul>
    {#if all.length > SHOWN}
      <p class="soft">
        And {String(all.length - SHOWN)} older: <a class="plain" href="/invoices">Invoices</a>
      </p>
    {/if}
  {/if}
</section>
