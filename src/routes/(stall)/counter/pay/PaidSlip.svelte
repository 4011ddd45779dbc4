<script lang="ts">
  import { quantityWords } from '$lib/ui/words/money-words';
  import { useStall } from '../../stall.svelte';
  import type { Paying } from './paying.svelte';
  import BackLines from '../BackLines.svelte';
  import Stubs from './Stubs.svelte';

  interface Props {
    paying: Paying;
  }
  const { paying }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const quote = $derived(stall.slip.quote?.cash);
</script>

<section
  class="hidden min-h-0 flex-col gap-3 overflow-y-auto px-4.5 pb-4 md:flex"
  aria-label="Slip"
>
  <div class="paper-shade flex min-h-64 flex-1 flex-col">
    <div class="paper torn-below flex min-h-0 flex-1 flex-col px-4.5 pt-7 pb-6">
      <h2>{stall.slip.current.customer?.name ?? 'Slip'}</h2>
      <ul class="min-h-0 flex-1 overflow-y-auto">
        {#each stall.slip.current.lines as line, at (line.key)}
          <li
            class="border-base-300 grid grid-cols-[auto_1fr_auto] items-baseline gap-2 border-b border-dashed py-2"
          >
            <span class="figure min-w-8 font-[650]">{quantityWords(line.quantity, line.unit)}</span>
            <span class="leading-tight"
              >{line.name} <span class="soft text-sm">{line.detail}</span></span
            >
            <span class="figure">{money.figure(quote?.lines[at]?.net ?? 0)}</span>
          </li>
        {/each}
      </ul>
      <BackLines />
      <p class="flex flex-wrap items-baseline justify-between pt-3">
        <span class="font-[600]">Total</span>
        <span class="amount text-2xl">{money.text(quote?.total ?? 0)}</span>
      </p>
    </div>
  </div>
  <Stubs {paying} />
</section>
