<script lang="ts">
  import { paidWith } from '$lib/core/payment/part-sums';
  import type { PaidPart } from '$lib/core/slip/open-slip';
  import { useStall } from '../../stall.svelte';
  import type { Finished } from './paying.svelte';

  interface Props {
    done: Finished;
    part: PaidPart;
    onnext: () => void;
  }
  const { done, part, onnext }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const STATES = {
    captured: 'Taken',
    authorised: 'Held, to be taken later',
    deferred: 'Carried until there is network',
  } as const;
  let next = $state<HTMLButtonElement>();
  $effect(() => next?.focus());
</script>

<section
  class="cloth flex min-h-0 flex-1 flex-col gap-5 overflow-y-auto p-4 pt-8 md:p-10"
  aria-label="Result"
  data-testid="distant"
>
  <p class="text-lg"><b>{done.number}</b> is rung up and safe</p>
  {#if part.card !== null}
    <div>
      <h1 class="soft text-xl font-[560]">{STATES[part.card.state]}</h1>
      <p class="amount text-[clamp(3.6rem,14vw,6.5rem)] leading-none">
        {money.text(paidWith(part))}
      </p>
    </div>
    <dl class="sheet grid max-w-md grid-cols-[auto_minmax(0,1fr)] gap-x-5 gap-y-2">
      <dt class="soft">Card</dt>
      <dd>{part.card.scheme} ending {part.card.last4}</dd>
      {#if part.card.approval !== '' || part.card.voice !== ''}
        <dt class="soft">Approval</dt>
        <dd class="code">{part.card.approval === '' ? part.card.voice : part.card.approval}</dd>
      {/if}
      {#if part.reference !== ''}
        <dt class="soft">For</dt>
        <dd>{part.reference}</dd>
      {/if}
    </dl>
  {/if}
  <div class="mt-auto flex flex-wrap gap-2">
    <button bind:this={next} type="button" class="btn btn-main px-6" onclick={onnext}
      >Next payment <kbd class="key max-md:hidden">Enter</kbd></button
    >
    <a class="btn btn-quiet" href="/sales/{done.sale}">Receipt: print it or send it</a>
    {#if part.card?.state === 'authorised'}
      <a class="btn btn-quiet" href="/waiting">All that is held</a>
    {/if}
  </div>
</section>
