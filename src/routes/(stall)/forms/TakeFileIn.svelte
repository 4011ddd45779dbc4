<script lang="ts">
  /** A file that is taken in: what each line of it will do is shown first, and what is wrong is left out. */
  import { toast } from 'svelte-sonner';
  import type { Planned } from '$lib/core/formats/goods-table';
  import type { Right } from '$lib/core/people/rights';
  import { faultWords } from '$lib/ui/words/fault-words';
  import PlannedLines from '$lib/ui/files/PlannedLines.svelte';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    label: string;
    /** What kinds of files it reads. */
    accept: string;
    right: Right | null;
    /** What the lines of a file will do; or what is wrong with the file. */
    read: (text: string) => Promise<readonly Planned[] | string>;
    /** What a line is about, in the words of its message. */
    things: readonly [one: string, many: string];
  }
  const { label, accept, right, read, things }: Props = $props();
  const stall = useStall();
  let planned = $state.raw<readonly Planned[] | null>(null);
  let text = '';
  let fault = $state('');
  let done = $state(-1);
  const count = (verdict: Planned['verdict']): number =>
    planned?.filter((each) => each.verdict === verdict).length ?? 0;
  const toDo = $derived(count('new') + count('changed'));
  const AT_ONCE = 100;

  async function look(files: FileList | null): Promise<void> {
    const [file] = files ?? [];
    if (file === undefined) return;
    fault = '';
    planned = null;
    try {
      text = await file.text();
      const found = await read(text);
      if (typeof found === 'string') fault = found;
      else planned = found;
    } catch (error) {
      fault = `This file cannot be read: ${faultWords(error)}.`;
    }
  }

  async function takeIn(lentBy?: string): Promise<void> {
    if (done >= 0) return;
    done = 0;
    try {
      // By what stands now: somebody may have written something since it was looked at.
      const found = await read(text);
      if (typeof found === 'string') {
        fault = found;
        return;
      }
      const drafts = found.flatMap((line) => line.drafts);
      const many = found.filter((line) => line.drafts.length > 0).length;
      // Each batch is on disk before the next: what was taken in stays so.
      for (let at = 0; at < drafts.length; at += AT_ONCE) {
        done = at;
        await stall.daybook.append(
          () => ({ ok: true as const, drafts: drafts.slice(at, at + AT_ONCE) }),
          lentBy === undefined ? {} : { lentBy },
        );
      }
      await stall.daybook.settle();
      planned = null;
      toast(`${String(many)} ${many === 1 ? things[0] : things[1]} taken in.`);
    } catch (error) {
      fault = `Not all of it was taken in: ${faultWords(error)}. Take it in again; what is there already stays.`;
    } finally {
      done = -1;
    }
  }
</script>

<div class="grid gap-3">
  <label class="flex flex-wrap items-center gap-2">
    <span class="font-[560]">{label}</span>
    <input
      type="file"
      {accept}
      class="file-input min-h-12 max-w-full"
      aria-label={label}
      disabled={done >= 0}
      onchange={(event) => {
        void look(event.currentTarget.files);
        event.currentTarget.value = '';
      }}
    />
  </label>
  {#if fault !== ''}<p class="text-error" role="alert">{fault}</p>{/if}
  {#if planned !== null}
    {#key planned}<PlannedLines {planned} />{/key}
    {#if count('wrong') > 0}<p>
        Lines that are wrong are left out; the others can be taken in.
      </p>{/if}
    <div class="flex flex-wrap gap-2">
      {#if toDo > 0}
        <RightButton {right} label="Take {toDo} in" isBusy={done >= 0} onGo={takeIn} />
      {/if}
      <button type="button" class="btn btn-quiet" onclick={() => (planned = null)}>Cancel</button>
    </div>
  {/if}
</div>
