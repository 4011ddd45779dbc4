<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { setEventTaxes } from '$lib/core/event/set-taxes';
  import { newId } from '$lib/device/new-id';
  import { StallForm as Form } from '../../forms/stall-form.svelte';
  import StallForm from '../../forms/StallForm.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    event: Row<'events'>;
  }
  const { event }: Props = $props();
  const stall = useStall();
  const NONE = 'none';
  // svelte-ignore state_referenced_locally
  const start = event;
  const form = new Form({
    about: `taxes of ${start.id}`,
    from: start.taxesStamp,
    // By tax, which is charged instead; a tax that is missing stands in its own place.
    begin: Object.fromEntries(start.swaps.map(({ from, to }) => [from, to ?? NONE])),
    command: (typed) => {
      const swaps = stall.taxes.map(({ id }) => {
        const to = typed[id] ?? id;
        return { from: id, to: to === NONE ? null : to };
      });
      return () => setEventTaxes(newId, start, swaps);
    },
    // Nothing of it is ever refused.
    says: () => ({ field: '', says: '' }),
    saved: () => `${event.short} charges these taxes from now on. Earlier sales stay as they were.`,
  });
  const chosen = form.typed;
  const isChanged = $derived(
    stall.taxes.some(({ id }) => {
      const swap = event.swaps.find(({ from }) => from === id);
      return (chosen[id] ?? id) !== (swap === undefined ? id : (swap.to ?? NONE));
    }),
  );
</script>

<section class="sheet grid content-start gap-3" aria-labelledby="event-taxes">
  <h2 id="event-taxes">Taxes here</h2>
  <p class="soft">Another county, another rate: what goods carry is charged here as</p>
  <StallForm {form} right="event.plan" {isChanged} class="grid gap-3">
    {#each stall.taxes as tax (tax.id)}
      <label class="flex flex-wrap items-center justify-between gap-2 font-[560]">
        {tax.name}
        <select
          class="select min-h-12 w-56"
          value={chosen[tax.id] ?? tax.id}
          onchange={(changed) => (chosen[tax.id] = changed.currentTarget.value)}
        >
          {#each stall.taxes as each (each.id)}
            <option value={each.id}
              >{each.id === tax.id ? 'itself' : `${each.name}, ${each.rate} %`}</option
            >
          {/each}
          <option value={NONE}>not charged</option>
        </select>
      </label>
    {:else}
      <p class="soft">No taxes are set up.</p>
    {/each}
  </StallForm>
</section>
