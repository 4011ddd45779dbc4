<script lang="ts" module>
  /** What a line of a file will do. */
  export interface PlannedHere {
    /** As a person counts. */
    readonly line: number;
    readonly name: string;
    readonly verdict: 'new' | 'changed' | 'same' | 'wrong';
    readonly why: string;
  }
</script>

<script lang="ts">
  interface Props {
    planned: readonly PlannedHere[];
  }
  const { planned }: Props = $props();
  const VERDICTS = ['new', 'changed', 'same', 'wrong'] as const;
  const words = { new: 'new', changed: 'changed', same: 'the same', wrong: 'wrong' } as const;
  const AT_MOST = 300;
  let only = $state<PlannedHere['verdict'] | ''>('');
  const count = (verdict: PlannedHere['verdict']): number =>
    planned.filter((each) => each.verdict === verdict).length;
  const shown = $derived(
    planned.filter(({ verdict }) => (only === '' ? verdict !== 'same' : verdict === only)),
  );
</script>

<div class="flex flex-wrap gap-2" role="group" aria-label="What will happen">
  {#each VERDICTS as verdict (verdict)}
    <button
      type="button"
      class={['btn btn-quiet', only === verdict && '!border-primary !border-3']}
      aria-pressed={only === verdict}
      onclick={() => (only = only === verdict ? '' : verdict)}
      >{count(verdict)} {words[verdict]}</button
    >
  {/each}
</div>
<ul class="grid max-h-96 overflow-y-auto" data-testid="planned">
  {#each shown.slice(0, AT_MOST) as each, at (at)}
    <li class="border-base-300 flex flex-wrap gap-x-3 border-b py-1.5 last:border-0">
      <span class="soft figure w-16">line {each.line}</span>
      <b>{each.name === '' ? 'no name' : each.name}</b>
      <span class={each.verdict === 'wrong' ? 'text-error' : 'soft'}
        >{words[each.verdict]}{each.why === '' ? '' : `: ${each.why}`}</span
      >
    </li>
  {/each}
  {#if shown.length > AT_MOST}<li class="soft">and {shown.length - AT_MOST} more</li>{/if}
</ul>
