<script lang="ts">
  import { practicePrinter } from '$lib/device/printer/practice-printer.svelte';
  import { timeWords } from '$lib/ui/words/date-words';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const { locale, timeZone } = $derived(stall.business);
</script>

<div class="page page-narrow gap-4">
  <h1>Paper roll, practice</h1>
  <p class="soft">
    What a printer would have printed, and each pulse that would have opened the drawer, since this
    window was opened. The latest is on top.
  </p>
  <ul class="grid gap-4" data-testid="roll">
    {#each practicePrinter.roll as each (each.key)}
      <li>
        {#if each.is === 'pulse'}
          <p class="sheet border-accent border-l-8">
            <b>The drawer opens</b>
            <span class="soft">{each.why}, {timeWords(each.at, locale, timeZone)}</span>
          </p>
        {:else}
          <div class="paper-shade">
            <div class="torn-below bg-white p-4 pb-7">
              <img
                class="mx-auto"
                style:width="{each.width}mm"
                src="data:image/svg+xml;utf8,{encodeURIComponent(each.svg)}"
                alt="Receipt {each.number}, as printed"
              />
            </div>
          </div>
        {/if}
      </li>
    {:else}
      <li class="soft">Nothing has come out of it yet. Ring something up, or print a receipt.</li>
    {/each}
  </ul>
</div>
