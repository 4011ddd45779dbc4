<script lang="ts">
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import type { ItemsContext, PlannedLine } from '$lib/core/formats/items-table';
  import { itemsCsv, readItemsFile, takeItemsIn } from '$lib/device/items-file/items-file';
  import { live } from '$lib/device/live.svelte';
  import { saveFile } from '$lib/ui/files/save-file';
  import PlannedLines from '$lib/ui/files/PlannedLines.svelte';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';
  import { faultWords } from '$lib/ui/words/fault-words';

  interface Props {
    items: readonly Row<'items'>[];
  }
  const { items }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  const makers = live(() => () => db.books.makers.toArray(), []);
  const categories = live(() => () => db.books.categories.toArray(), []);
  const context = $derived<ItemsContext>({
    business: stall.identity.business,
    currency: stall.business.currency,
    taxes: stall.taxes.map(({ id, name }) => ({ id, name })),
    makers: makers.value.map(({ id, number }) => ({ id, number })),
    categories: categories.value,
  });
  let planned = $state.raw<readonly PlannedLine[] | null>(null);
  let fault = $state('');
  let doing = $state('');
  let done = $state(0);
  let all = $state(0);
  let stop = $state.raw<AbortController | null>(null);
  const count = (verdict: PlannedLine['verdict']): number =>
    planned?.filter((each) => each.verdict === verdict).length ?? 0;
  const toDo = $derived(count('new') + count('changed'));

  async function run<T>(
    what: string,
    work: (signal: AbortSignal) => Promise<T>,
  ): Promise<T | null> {
    const controller = new AbortController();
    stop = controller;
    doing = what;
    [done, all] = [0, 0];
    try {
      return await work(controller.signal);
    } catch (error) {
      if (!controller.signal.aborted) fault = faultWords(error);
      return null;
    } finally {
      doing = '';
      stop = null;
    }
  }
  const onProgress = (now: number, of: number): void => {
    done = now;
    all = of;
  };

  async function look(files: FileList | null): Promise<void> {
    const [file] = files ?? [];
    if (file === undefined) return;
    fault = '';
    planned = null;
    const text = await file.text();
    const read = await run('Reading', (signal) =>
      readItemsFile(text, $state.snapshot(items) as Row<'items'>[], context, onProgress, signal),
    );
    if (read === null) return;
    fault = read.fault;
    planned = read.fault === '' ? read.lines : null;
  }

  async function takeIn(lentBy?: string): Promise<void> {
    const lines = planned ?? [];
    const written = await run('Taking in', (signal) =>
      takeItemsIn(stall.daybook, lines, lentBy, onProgress, signal),
    );
    if (written === null) return;
    planned = null;
    toast(`${String(written)} ${written === 1 ? 'item is' : 'items are'} added.`);
  }
</script>

<section class="sheet grid gap-3" aria-labelledby="as-file">
  <h2 id="as-file">As a file</h2>
  <p class="soft">
    A CSV file with a line for each item. Change it in a spreadsheet and take it in again, or bring
    your goods from elsewhere: only “name” and “price” must be there.
  </p>
  <div class="flex flex-wrap items-center gap-3">
    <button
      type="button"
      class="btn btn-quiet"
      disabled={items.length === 0}
      onclick={() => saveFile('items.csv', 'text/csv', itemsCsv(items, context))}
      >Save all goods as a file</button
    >
    <label class="flex flex-wrap items-center gap-2">
      <span class="font-[560]">Take in</span>
      <input
        type="file"
        accept=".csv,text/csv"
        class="file-input min-h-12"
        aria-label="Take goods in from a file"
        disabled={doing !== ''}
        onchange={(event) => {
          void look(event.currentTarget.files);
          event.currentTarget.value = '';
        }}
      />
    </label>
  </div>
  {#if doing !== ''}
    <div class="flex items-center gap-3">
      <progress class="progress flex-1" value={done} max={Math.max(1, all)} aria-label={doing}
      ></progress>
      <span class="figure">{doing} {done} of {all}</span>
      <button type="button" class="btn btn-quiet" onclick={() => stop?.abort()}>Stop</button>
    </div>
  {/if}
  {#if fault !== ''}<p class="text-error" role="alert">{fault}</p>{/if}
  {#if planned !== null}
    {#key planned}<PlannedLines {planned} />{/key}
    {#if count('wrong') > 0}
      <p>Lines that are wrong are left out; the others can be added.</p>
    {/if}
    <div class="flex flex-wrap gap-2">
      {#if toDo > 0}
        <RightButton
          right="set-up"
          label={`Take ${String(toDo)} in`}
          isBusy={doing !== ''}
          onGo={takeIn}
        />
      {/if}
      <button type="button" class="btn btn-quiet" onclick={() => (planned = null)}>Cancel</button>
    </div>
  {/if}
</section>
