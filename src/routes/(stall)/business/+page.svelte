<script lang="ts">
  import { useStall } from '../stall.svelte';
  import BusinessForm from './BusinessForm.svelte';

  const stall = useStall();
</script>

<div class="page mx-auto w-full max-w-3xl gap-5">
  <h1>The business</h1>
  {#key stall.business.setStamp}<BusinessForm />{/key}
</div>
