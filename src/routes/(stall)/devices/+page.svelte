<script lang="ts">
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const devices = $derived(stall.devices.toSorted((a, b) => a.number - b.number));
  const eventName = (id: string | null): string =>
    id === null ? '' : ` · sells for ${stall.events.find((each) => each.id === id)?.name ?? '…'}`;
</script>

<div class="page page-text gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Devices</h1>
    <a class="btn btn-quiet" href="/account">Add one, shut one out</a>
  </div>
  <ul class="sheet grid gap-1" data-testid="devices">
    {#each devices as { id, number, name, event } (id)}
      <li>
        <a
          class="hover:bg-base-200 flex min-h-14 flex-wrap items-center justify-between gap-2 rounded-lg px-3"
          href="/devices/{id}"
        >
          <b class="text-lg">D{number} {name}</b>
          <span class="soft"
            >{id === stall.identity.device ? 'this one' : ''}{eventName(event)}</span
          >
        </a>
      </li>
    {/each}
  </ul>
</div>
