<script lang="ts">
  import EventForm from '../EventForm.svelte';
</script>

<div class="page page-text gap-5">
  <h1>A new event</h1>
  <EventForm />
</div>
