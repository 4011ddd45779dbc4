<script lang="ts">
  import '../app.css';
  import { Toaster } from 'svelte-sonner';

  const { children } = $props();
</script>

<svelte:head><title>Stall Till</title></svelte:head>
{@render children()}
<Toaster
  position="top-center"
  offset="80px"
  mobileOffset={{ top: '80px' }}
  duration={3000}
  toastOptions={{ class: 'note-paper' }}
/>
