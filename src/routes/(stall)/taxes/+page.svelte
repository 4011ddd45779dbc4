<script lang="ts">
  import { live } from '$lib/device/live.svelte';
  import { useStall } from '../stall.svelte';
  import TaxForm from './TaxForm.svelte';
  import MakerForm from './MakerForm.svelte';

  const { db } = useStall();
  const taxes = live(() => () => db.books.taxes.toArray(), []);
  const makers = live(() => () => db.books.makers.toArray(), []);
  const items = live(() => () => db.books.items.toArray(), []);
  const inOrder = $derived(
    taxes.value.filter(({ setStamp }) => setStamp !== '').sort((a, b) => a.sort - b.sort),
  );
  const byNumber = $derived(
    makers.value.filter(({ setStamp }) => setStamp !== '').sort((a, b) => a.number - b.number),
  );
  /** How many goods carry each tax: what a change touches. */
  const carriers = $derived.by(() => {
    const counts = new Map<string, number>();
    for (const item of items.value)
      if (item.isActive) for (const tax of item.taxes) counts.set(tax, (counts.get(tax) ?? 0) + 1);
    return counts;
  });
  let isAdding = $state<'tax' | 'maker' | ''>('');
</script>

<div class="page page-text gap-5">
  <h1>Taxes and makers</h1>
  <section class="grid gap-3" aria-labelledby="taxes">
    <h2 id="taxes">Taxes</h2>
    {#each inOrder as tax (`${tax.id} ${tax.setStamp}`)}
      <TaxForm {tax} taxes={taxes.value} carriers={carriers.get(tax.id) ?? 0} />
    {/each}
    {#if isAdding === 'tax'}
      <TaxForm taxes={taxes.value} carriers={0} onDone={() => (isAdding = '')} />
    {:else}
      <button
        type="button"
        class="btn btn-quiet justify-self-start"
        onclick={() => (isAdding = 'tax')}>Add a tax</button
      >
    {/if}
  </section>
  <section class="grid gap-3" aria-labelledby="makers">
    <h2 id="makers">Makers</h2>
    <p class="soft">People whose goods are sold on commission. Hang tags name them by number.</p>
    {#each byNumber as maker (`${maker.id} ${maker.setStamp}`)}
      <MakerForm {maker} makers={makers.value} />
    {/each}
    {#if isAdding === 'maker'}
      <MakerForm makers={makers.value} onDone={() => (isAdding = '')} />
    {:else}
      <button
        type="button"
        class="btn btn-quiet justify-self-start"
        onclick={() => (isAdding = 'maker')}>Add a maker</button
      >
    {/if}
  </section>
</div>
