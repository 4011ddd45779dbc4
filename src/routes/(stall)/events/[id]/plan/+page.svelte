<script lang="ts">
  import { page } from '$app/state';
  import { useStall } from '../../../stall.svelte';
  import EventForm from '../../EventForm.svelte';
  import EventCosts from './EventCosts.svelte';
  import EventPeople from './EventPeople.svelte';
  import EventPrices from './EventPrices.svelte';
  import SameAgain from './SameAgain.svelte';

  const stall = useStall();
  const event = $derived(stall.events.find(({ id }) => id === page.params.id));
</script>

<div class="page page-text gap-5">
  {#if event === undefined}
    <p class="sheet max-w-xl">
      There is no such event on this device. <a class="plain" href="/season">The season</a>
    </p>
  {:else}
    <h1>{event.name}</h1>
    {#key `${event.id} ${event.setStamp}`}<EventForm {event} />{/key}
    {#key `${event.id} ${event.costsStamp}`}<EventCosts {event} />{/key}
    {#key `${event.id} ${event.pricesStamp}`}<EventPrices {event} />{/key}
    {#key `${event.id} ${event.peopleStamp}`}<EventPeople {event} />{/key}
    {#key event.id}<SameAgain {event} />{/key}
  {/if}
</div>
