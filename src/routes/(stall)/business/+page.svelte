<script lang="ts">
  import { useStall } from '../stall.svelte';
  import BusinessForm from './BusinessForm.svelte';

  const stall = useStall();
</script>

<div class="page page-text gap-5">
  <h1>The business</h1>
  {#key stall.business.setStamp}<BusinessForm />{/key}
</div>
