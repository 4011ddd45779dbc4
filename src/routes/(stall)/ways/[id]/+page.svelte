<script lang="ts">
  import { page } from '$app/state';
  import { allWays } from '$lib/core/payment/ways';
  import { useStall } from '../../stall.svelte';
  import WayForm from './WayForm.svelte';

  const stall = useStall();
  const id = $derived(page.params['id'] ?? 'new');
  const way = $derived(allWays(stall.wayRows).find((each) => each.id === id));
</script>

<div class="page page-text gap-5">
  {#if id === 'new'}
    <h1>Add a way to pay</h1>
    <WayForm />
  {:else if way === undefined}
    <h1>No such way to pay</h1>
    <p class="sheet">
      This device knows none of that kind. <a class="plain" href="/ways">Ways to pay</a>
    </p>
  {:else}
    <h1>{way.name}</h1>
    {#key way.setStamp}<WayForm {way} />{/key}
  {/if}
</div>
