<script lang="ts">
  /** The reader asks for the card that money goes onto. */
  import type { CardReader } from '$lib/device/cards/card-reader';
  import { PracticeReader } from '$lib/device/cards/practice-reader.svelte';
  import PracticeHand from '../counter/pay/PracticeHand.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    reader: CardReader;
    /** Minor units. */
    amount: number;
    onStop: () => void;
  }
  const { reader, amount, onStop }: Props = $props();
  const stall = useStall();
  let panel = $state<HTMLElement>();
  // Below what was filled in: whoever stands there must see what the reader waits for.
  $effect(() => panel?.scrollIntoView({ block: 'nearest' }));
</script>

<section
  bind:this={panel}
  class="border-primary grid gap-3 rounded-lg border-2 p-3"
  aria-label="Card"
  aria-live="polite"
  data-testid="card"
>
  <p class="text-lg">
    <b>{reader.name}</b> asks for the card that {stall.money.text(amount)} goes onto
  </p>
  {#if reader instanceof PracticeReader}<PracticeHand {reader} />{/if}
  <button type="button" class="btn btn-quiet justify-self-start" onclick={onStop}
    >Stop asking</button
  >
</section>
