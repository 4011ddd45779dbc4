<script lang="ts">
  /** A line that is done with; it opens into what it is. */
  import type { BankLineNow } from '$lib/core/bank/bank-lines';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { useStall } from '../stall.svelte';
  import type { AskedBank } from './bank.svelte';
  import JoinedTo from './JoinedTo.svelte';

  interface Props {
    bank: AskedBank;
    line: BankLineNow;
    eventName: (id: string) => string;
  }
  const { bank, line, eventName }: Props = $props();
  const stall = useStall();
  let isOpen = $state(false);
</script>

<li class="border-base-300 border-b last:border-0">
  <button
    type="button"
    class="grid min-h-12 w-full grid-cols-[minmax(0,1fr)_auto] items-center gap-3 py-1 text-left"
    aria-expanded={isOpen}
    onclick={() => (isOpen = !isOpen)}
  >
    <span class="min-w-0 break-words"
      >{line.other || line.reference || line.text || 'No words'}
      <span class="soft block text-sm"
        >{shortDayWords(line.day, stall.business.locale)}{line.reference === ''
          ? ''
          : ` · ${line.reference}`}</span
      ></span
    >
    <span class="figure">{stall.money.figure(line.amount)}</span>
  </button>
  {#if isOpen}
    <div class="pb-3"><JoinedTo {bank} {line} {eventName} /></div>
  {/if}
</li>
