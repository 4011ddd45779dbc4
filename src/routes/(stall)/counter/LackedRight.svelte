<script lang="ts">
  import { favoursOn } from '$lib/core/slip/open-slip';
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
    onLent={(by) => stall.slip.say({ lent: { by, to: favoursOn(stall.slip.current) } })}
    onBack={() => stall.slip.takeFavoursBack()}
  />
{/if}
