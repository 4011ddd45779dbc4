<script lang="ts">
  import type { Act } from '$lib/core/books/tables';
  import { live } from '$lib/device/live.svelte';
  import { actWords } from '$lib/ui/words/people-words';
  import { useStall } from '../stall.svelte';
  import ActList from './ActList.svelte';

  const stall = useStall();
  const { db } = stall;
  const acts = live(() => () => db.books.acts.orderBy('at').reverse().toArray(), []);
  const kinds = Object.entries(actWords) as [Act, string][];
  let only = $state<Act | ''>('');
  let by = $state('');
  const shown = $derived(
    acts.value.filter(
      (row) =>
        (only === '' || row.what === only) && (by === '' || row.by === by || row.lentBy === by),
    ),
  );
</script>

<div class="page page-text gap-5">
  <h1>What was changed, by whom</h1>
  <p class="soft">
    Prices and set-up, discounts, drawers. Nothing here can be changed or taken away.
  </p>
  <div class="flex flex-wrap gap-3">
    <label class="grid gap-1 font-[560]">
      What
      <select class="select min-h-12" bind:value={only}>
        <option value="">everything</option>
        {#each kinds as [what, words] (what)}<option value={what}>{words}</option>{/each}
      </select>
    </label>
    <label class="grid gap-1 font-[560]">
      By
      <select class="select min-h-12" bind:value={by}>
        <option value="">everybody</option>
        {#each stall.everybody as { id, name } (id)}<option value={id}>{name}</option>{/each}
      </select>
    </label>
  </div>
  <section class="sheet grid gap-3" aria-label="The list">
    <ActList acts={shown} />
  </section>
</div>
