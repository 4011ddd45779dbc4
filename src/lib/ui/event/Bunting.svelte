<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import { STAGES, type Stage } from '../../core/daybook/kinds/event-stage';

  interface Props {
    stage: Stage;
  }
  const { stage }: Props = $props();
  const at = $derived(STAGES.indexOf(stage));
  const standing = $derived(
    STAGES.map((name, i) => {
      // Behind the last one nothing comes: whoever is there has done it.
      const isDone = i < at || (i === at && at === STAGES.length - 1);
      return { name, is: isDone ? 'done' : i === at ? 'now' : 'to come' };
    }),
  );
</script>

<ol class="bunting" aria-label="Stages of the event">
  {#each standing as { name, is } (name)}
    <li class={['pennant', is.replace(' ', '-')]} aria-current={is === 'now' ? 'step' : undefined}>
      <span class="flex items-center gap-0.5">
        {#if is === 'done'}<Check aria-hidden="true" class="size-3.5 max-md:hidden" />{/if}
        {name}<span class="sr-only">, {is}</span>
      </span>
    </li>
  {/each}
</ol>
