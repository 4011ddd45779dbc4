<script lang="ts">
  const { children } = $props();
</script>

<main class="mx-auto grid min-h-dvh w-full max-w-2xl content-start gap-5 p-5 pt-8">
  <a class="sign soft inline-flex min-h-12 items-center justify-self-start" href="/">Stall Till</a>
  {@render children()}
</main>
