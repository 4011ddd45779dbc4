<script lang="ts">
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const here = $derived(stall.everybody.filter(({ isActive }) => isActive));
  const left = $derived(stall.everybody.filter(({ isActive }) => !isActive));
</script>

<div class="page page-text gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>People</h1>
    <a class="btn btn-quiet" href="/acts">What was changed, by whom</a>
  </div>
  <ul class="sheet grid gap-1">
    {#each here as { id, name, role, pin } (id)}
      <li>
        <a
          class="hover:bg-base-200 flex min-h-14 flex-wrap items-center justify-between gap-2 rounded-lg px-3"
          href="/people/{id}"
        >
          <b class="text-lg">{name}</b>
          <span class="soft">{role}{pin === null ? ' · no PIN' : ''}</span>
        </a>
      </li>
    {:else}
      <li class="soft p-3">
        Nobody yet. Whoever is set up first is the owner; sales then say who rang them up.
      </li>
    {/each}
  </ul>
  <a class="btn btn-main justify-self-start px-6" href="/people/new">Add a person</a>
  {#if left.length > 0}
    <section class="sheet" aria-labelledby="left">
      <h2 id="left">No longer here</h2>
      <ul>
        {#each left as { id, name } (id)}
          <li><a class="plain inline-flex min-h-12 items-center" href="/people/{id}">{name}</a></li>
        {/each}
      </ul>
    </section>
  {/if}
</div>
