<script lang="ts">
  import LendRight from '../LendRight.svelte';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const [first, ...also] = $derived(stall.slipLacks);
</script>

<!-- The slip can be changed by anybody; it is rung up once somebody who may has lent the right. -->
{#if first !== undefined}
  <LendRight
    right={first}
    {also}
    onLent={(lender) => stall.slip.say({ lentBy: lender })}
    onBack={() => stall.slip.takeFavoursBack()}
  />
{/if}
