<script lang="ts">
  /** One field to scan or type goods into; Enter takes what is shown. */
  import ScanBarcode from '@lucide/svelte/icons/scan-barcode';
  import type { Row } from '$lib/core/books/tables';
  import { goodsOf } from '$lib/core/entry-line/find-items';
  import { typedGoods } from '$lib/core/stock/typed-goods';
  import { quantityWords } from '$lib/ui/words/money-words';
  import ScanCamera from '../counter/ScanCamera.svelte';
  import { itemName } from '$lib/core/goods/item-name';

  interface Props {
    label: string;
    items: readonly Row<'items'>[];
    /** @returns What is wrong, or nothing. */
    onGoods: (item: Row<'items'>, quantity: number | null) => Promise<string>;
    /** What Enter would do with it. */
    does: (item: Row<'items'>, quantity: number | null) => string;
    /** A code of something else, such as a place; whether it was one. */
    onCode?: (code: string) => boolean;
  }
  const { label, items, onGoods, does, onCode = () => false }: Props = $props();
  let typed = $state('');
  let says = $state('');
  let isScanning = $state(false);
  let field = $state<HTMLInputElement>();
  const goods = $derived(goodsOf(items));
  const meant = $derived(typedGoods(typed, goods));
  const found = $derived(typed.trim() === '' ? [] : meant.found);

  async function take(item: Row<'items'> | undefined, quantity: number | null): Promise<void> {
    const said = typed;
    typed = '';
    if (item === undefined) {
      says = onCode(said) ? '' : `Nothing is called “${said.trim()}”.`;
      return;
    }
    says = await onGoods(item, quantity);
    field?.focus();
  }
  function enter(event: SubmitEvent): void {
    event.preventDefault();
    if (typed.trim() !== '') void take(found[0], meant.quantity);
  }
</script>

<form class="relative grid gap-2" onsubmit={enter}>
  <div class="flex gap-2">
    <label class="min-w-0 flex-1">
      <span class="sr-only">{label}</span>
      <input
        class="input w-full text-lg"
        placeholder={label}
        bind:this={field}
        bind:value={typed}
        autocomplete="off"
        autocapitalize="none"
        spellcheck="false"
        enterkeyhint="done"
      />
    </label>
    <button
      type="button"
      class="btn btn-quiet"
      aria-label="Scan with the camera"
      onclick={() => (isScanning = true)}><ScanBarcode aria-hidden="true" class="size-6" /></button
    >
  </div>
  {#if found.length > 0}
    <!-- Over what stands below: nothing moves with each key. -->
    <ul
      class="sheet absolute inset-x-0 top-full z-20 mt-1 grid gap-1 !p-2 shadow-xl"
      aria-label="What it can mean"
    >
      {#each found as item, at (item.id)}
        <li>
          <button
            type="button"
            class={[
              'hover:bg-base-200 flex min-h-12 w-full items-center justify-between gap-3 rounded-lg px-3 text-left',
              at === 0 && 'bg-base-200',
            ]}
            onclick={() => take(item, meant.quantity)}
          >
            <span class="min-w-0">{itemName(item)}</span>
            <span class="soft text-sm"
              >{at === 0
                ? does(item, meant.quantity)
                : quantityWords(meant.quantity ?? 1000, item.unit)}</span
            >
          </button>
        </li>
      {/each}
    </ul>
  {/if}
  {#if says !== ''}<p class="text-error" role="alert">{says}</p>{/if}
</form>
{#if isScanning}
  <ScanCamera
    onfound={(code) => {
      isScanning = false;
      typed = code;
      void take(typedGoods(code, goods).found[0], null);
    }}
    onclose={() => (isScanning = false)}
  />
{/if}
