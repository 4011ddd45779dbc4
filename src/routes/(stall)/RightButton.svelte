<script lang="ts">
  import type { Right } from '$lib/core/people/rights';
  import LendRight from './LendRight.svelte';
  import { useStall } from './stall.svelte';

  interface Props {
    /** What it asks for, or null if everybody may. */
    right: Right | null;
    label: string;
    /** With who lent the right, if somebody did. */
    onGo: (lentBy?: string) => void | Promise<void>;
    look?: string;
    isBusy?: boolean;
  }
  const { right, label, onGo, look = 'btn-main', isBusy = false }: Props = $props();
  const stall = useStall();
  let isLending = $state(false);
  /** What was pressed is under way: a second tap is the same one. */
  let isGoing = $state(false);

  async function go(lentBy?: string): Promise<void> {
    if (isGoing) return;
    isGoing = true;
    try {
      await onGo(lentBy);
    } finally {
      isGoing = false;
    }
  }

  /** Enter in a field of its form presses it too. */
  function press(event: MouseEvent): void {
    event.preventDefault();
    if (right === null || stall.may(right)) void go();
    else isLending = true;
  }
</script>

{#if isLending && right !== null}
  <LendRight
    {right}
    onLent={(lender) => {
      isLending = false;
      void go(lender);
    }}
    onBack={() => (isLending = false)}
  />
{:else}
  <button
    type="submit"
    class={['btn justify-self-start px-6', look]}
    disabled={isBusy}
    onclick={press}>{label}</button
  >
{/if}
