<script lang="ts">
  import { page } from '$app/state';
  import { LIST_USES } from '$lib/core/daybook/kinds/list-set';
  import { useHelp, useWords } from '$lib/ui/words/stock-words';
  import ListForm from '../ListForm.svelte';

  const asked = $derived(page.url.searchParams);
  const use = $derived(LIST_USES.find((each) => each === asked.get('use')));
</script>

<div class="page page-text gap-5">
  {#if use === undefined}
    <h1>A new list</h1>
    <ul class="grid gap-3">
      {#each LIST_USES as each (each)}
        <li>
          <a class="sheet grid gap-1" href="?use={each}&{asked.toString()}">
            <b class="text-lg font-[650]">{useWords[each]}</b>
            <span class="soft">{useHelp[each]}</span>
          </a>
        </li>
      {/each}
    </ul>
  {:else}
    <h1>{useWords[use]}</h1>
    {#key use}<ListForm {use} {asked} />{/key}
  {/if}
</div>
