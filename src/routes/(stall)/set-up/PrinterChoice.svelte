<script lang="ts">
  import { NO_PRINTER, type PrinterChoice } from '$lib/device/printer/printer';
  import { openDrawerFor, printerOf } from '../print-receipt';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const chosen = $derived(stall.choices.printer ?? NO_PRINTER);
  const choose = (change: Partial<PrinterChoice>): Promise<void> =>
    stall.choose({ printer: { ...chosen, ...change } });
</script>

<section class="sheet grid content-start gap-3" aria-labelledby="printer">
  <h2 id="printer">Printer and drawer</h2>
  <p class="soft">Receipts can always be printed by the printer of this phone or desk.</p>
  <label class="grid gap-1 font-[560]">
    Receipt printer
    <select
      class="select min-h-12 w-full"
      value={chosen.printer}
      onchange={(event) =>
        choose({ printer: event.currentTarget.value === 'practice' ? 'practice' : 'none' })}
    >
      <option value="none">none</option>
      <option value="practice">for practice: a roll on the screen</option>
    </select>
  </label>
  {#if chosen.printer !== 'none'}
    <label class="grid gap-1 font-[560]">
      Paper
      <select
        class="select min-h-12 w-full"
        value={String(chosen.width)}
        onchange={(event) => choose({ width: event.currentTarget.value === '58' ? 58 : 80 })}
      >
        <option value="58">58 mm</option>
        <option value="80">80 mm</option>
      </select>
    </label>
    <label class="flex min-h-12 items-center gap-3">
      <input
        type="checkbox"
        class="checkbox size-6 !rounded-md"
        checked={chosen.isEach}
        onchange={(event) => choose({ isEach: event.currentTarget.checked })}
      />
      Print the receipt of each sale
    </label>
    <div class="flex flex-wrap gap-2">
      <button type="button" class="btn btn-quiet" onclick={() => openDrawerFor(stall, 'a test')}
        >Open the drawer</button
      >
      {#if printerOf(stall) !== null}<a class="btn btn-quiet" href="/roll">Look at the roll</a>{/if}
    </div>
  {/if}
</section>
