<script lang="ts">
  import { goto } from '$app/navigation';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  async function choose(id: string): Promise<void> {
    await stall.choose({ by: id });
    await goto('/');
  }
</script>

<section class="mx-auto grid w-full max-w-xl content-start gap-4 overflow-y-auto p-5 pt-10">
  <h1>Who is selling?</h1>
  <p class="soft">Everything that is rung up from now on says so.</p>
  <ul class="grid gap-3">
    {#each stall.staff as { id, name, role } (id)}
      <li>
        <button
          type="button"
          class={[
            'btn btn-quiet w-full !min-h-16 justify-between px-5 text-lg',
            stall.choices.by === id && '!border-primary !border-3',
          ]}
          aria-pressed={stall.choices.by === id}
          onclick={() => choose(id)}
        >
          <b>{name}</b><span class="soft"
            >{role}{stall.choices.by === id ? ' · selling now' : ''}</span
          >
        </button>
      </li>
    {:else}
      <li class="sheet">Nobody is set up yet. Sales are kept without a name until somebody is.</li>
    {/each}
  </ul>
</section>
