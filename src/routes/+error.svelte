<script lang="ts">
  import { page } from '$app/state';
</script>

<main class="mx-auto grid max-w-xl gap-4 p-8">
  <h1>{page.status === 404 ? 'There is nothing here' : 'This did not work'}</h1>
  <p>{page.error?.message}</p>
  <a class="btn btn-quiet justify-self-start" href="/">To today</a>
</main>
