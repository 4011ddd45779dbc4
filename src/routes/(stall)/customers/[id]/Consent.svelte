<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { mayKeep } from '$lib/core/customer/joined';
  import { noteConsent } from '$lib/core/customer/set-customer';
  import { CONSENT_WAYS, type ConsentWay } from '$lib/core/daybook/kinds/customer-consent';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { consentWords } from '$lib/ui/words/customer-words';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { useStall } from '../../stall.svelte';

  interface Props {
    customer: Row<'customers'>;
    /** All of theirs. */
    rows: readonly Row<'customers'>[];
  }
  const { customer, rows }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  const consents = live(() => {
    const all = rows.map(({ id }) => id);
    return async () =>
      (await db.books.consents.where('customer').anyOf(all).sortBy('at')).reverse();
  }, []);

  async function note(isGiven: boolean, way: ConsentWay): Promise<void> {
    await stall.daybook.append(() => noteConsent(newId, customer.id, isGiven, way));
  }
</script>

<section class="sheet grid gap-3" aria-labelledby="consent">
  <h2 id="consent">Agreed to be kept</h2>
  <ul class="grid gap-1" data-testid="consents">
    {#each consents.value as { id, at, by, isGiven, way } (id)}
      <li>
        <b>{isGiven ? 'Yes' : 'No longer'}</b>, {consentWords[way]},
        <span class="soft"
          >{shortDayWords(at.slice(0, 10), stall.business.locale)}, noted by {stall.nameOf(
            by,
          )}</span
        >
      </li>
    {:else}
      <li class="soft">Not asked yet. Without it, keep only what a bill or an order needs.</li>
    {/each}
  </ul>
  <div class="flex flex-wrap gap-2">
    {#if mayKeep(rows)}
      <button type="button" class="btn btn-quiet" onclick={() => note(false, 'spoken')}
        >They no longer agree</button
      >
    {:else}
      {#each CONSENT_WAYS as way (way)}
        <button type="button" class="btn btn-quiet" onclick={() => note(true, way)}
          >They {consentWords[way]}</button
        >
      {/each}
    {/if}
  </div>
</section>
