<script lang="ts">
  interface Props {
    name: string;
    at: number;
    count: number;
    onmove: (to: number) => void;
  }
  const { name, at, count, onmove }: Props = $props();
</script>

<button
  type="button"
  class="btn btn-quiet"
  aria-label={`Move ${name} up`}
  disabled={at === 0}
  onclick={() => onmove(at - 1)}>↑</button
>
<button
  type="button"
  class="btn btn-quiet"
  aria-label={`Move ${name} down`}
  disabled={at === count - 1}
  onclick={() => onmove(at + 1)}>↓</button
>
