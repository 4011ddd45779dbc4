<script lang="ts">
  interface Props {
    /** What a practice card does at the stand-in: `approve`, `decline:reason`, `partial:minor units`. */
    outcome: string;
  }
  let { outcome = $bindable() }: Props = $props();
  const OUTCOMES = [
    { value: 'approve', words: 'the bank approves' },
    { value: 'decline:not enough money', words: 'the bank declines: not enough money' },
    { value: 'decline:reported lost', words: 'the bank declines: reported lost' },
    { value: 'partial:500', words: 'only 5.00 is left on the card' },
  ] as const;
</script>

<label class="flex flex-wrap items-center gap-2">
  <span class="font-[560]">Practice:</span>
  <select class="select min-h-12 min-w-0 flex-1" bind:value={outcome}>
    {#each OUTCOMES as each (each.value)}
      <option value={each.value}>{each.words}</option>
    {/each}
  </select>
</label>
