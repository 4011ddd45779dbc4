<script lang="ts">
  import { quantityWords } from '../words/money-words';

  interface Props {
    name: string;
    detail: string;
    unit: string;
    /** Thousandths. */
    done: number;
    wanted: number;
    /** Why it is short, or what else there is to say. */
    says: string;
    isShort: boolean;
    isBusy?: boolean;
    /** Not safe yet. */
    isBeingWritten?: boolean;
    onAdd: () => void;
    onTake: () => void;
  }
  const {
    name,
    detail,
    unit,
    done,
    wanted,
    says,
    isShort,
    isBusy = false,
    isBeingWritten = false,
    onAdd,
    onTake,
  }: Props = $props();
  const full = $derived(wanted <= 0 ? 1 : Math.min(1, Math.max(0, done / wanted)));
  const isDone = $derived(done >= wanted);
</script>

<li
  class={['crate', isDone && 'crate-done']}
  style:--full={`${String(Math.round(full * 100))}%`}
  data-crate={name}
>
  <button type="button" class="crate-tap" disabled={isBusy} onclick={onAdd}>
    <span class="min-w-0 flex-1 text-left">
      <span class="sr-only">One more </span>
      <b class="font-[600]">{name}</b>
      <span class="soft text-sm">{detail}</span>
      <span
        class={['block text-sm', isShort ? 'text-error font-[650]' : 'soft']}
        data-testid="crate-says">{says}</span
      >
    </span>
    <span class="flex-none text-right">
      <span
        class={['amount text-3xl', isBeingWritten && 'text-current/60']}
        data-testid="crate-done">{quantityWords(done, '')}</span
      >
      <span class="soft text-sm">of {quantityWords(wanted, unit)}</span>
    </span>
  </button>
  <button
    type="button"
    class="crate-less"
    disabled={isBusy || done <= 0}
    aria-label="One less {name} {detail}"
    onclick={onTake}>−</button
  >
</li>
