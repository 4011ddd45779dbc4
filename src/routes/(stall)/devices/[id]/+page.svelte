<script lang="ts">
  import { page } from '$app/state';
  import { useStall } from '../../stall.svelte';
  import DeviceForm from './DeviceForm.svelte';

  const stall = useStall();
  const device = $derived(stall.devices.find(({ id }) => id === page.params['id']));
</script>

<div class="page page-text gap-5">
  {#if device === undefined}
    <h1>No such device</h1>
    <p class="sheet">
      Nobody has enrolled it here. <a class="plain" href="/devices">Devices</a>
    </p>
  {:else}
    <h1>D{device.number} {device.name}</h1>
    {#key device.setStamp}<DeviceForm {device} />{/key}
  {/if}
</div>
