<script lang="ts">
  import ScanBarcode from '@lucide/svelte/icons/scan-barcode';
  import type { Row } from '../../core/books/tables';
  import type { Understood } from '../../core/entry-line/understand';
  import { hoursText } from '../../core/goods/hours';
  import { itemName } from '../../core/goods/item-name';
  import { lineAmount } from '../../core/slip/line-amount';
  import { quantityWords, type MoneyWords } from '../words/money-words';
  import { refusalWords } from '../words/refusal-words';

  interface Props {
    typed: string;
    understood: Understood;
    /** Whether there is anything yet to understand it by; what is entered before then waits for it. */
    isReady: boolean;
    /** Whether something does. */
    isWaiting: boolean;
    money: MoneyWords;
    /** Does what is shown. */
    ondo: (chosen: Row<'items'> | null) => void;
    field?: HTMLInputElement | undefined;
    /** Opens the camera. */
    onscan: () => void;
  }
  let {
    typed = $bindable(),
    understood,
    isReady,
    isWaiting,
    money,
    ondo,
    field = $bindable(),
    onscan,
  }: Props = $props();

  let at = $state(0);
  $effect(() => {
    void typed;
    at = 0;
  });
  const fitting = $derived(understood.means === 'item' ? understood.fitting : []);
  const chosen = $derived(fitting[at] ?? null);
  const saying = $derived.by(() => {
    if (!isReady) return typed === '' && !isWaiting ? '' : 'Reading the goods …';
    switch (understood.means) {
      case 'nothing':
        return '';
      case 'item': {
        const item = chosen ?? understood.item;
        const name = itemName(item);
        const price = understood.price ?? item.price;
        if (item.choices.length > 0) return `${name}: choose which`;
        if (item.isOpenPrice && understood.price === undefined) return `${name}: type its price`;
        const amount = money.text(lineAmount(price, understood.quantity));
        const many = item.isTimed
          ? hoursText(understood.quantity)
          : quantityWords(understood.quantity, item.unit);
        return `${many} × ${name} — ${amount}`;
      }
      case 'unlisted':
        return `${understood.word === '' ? 'Unlisted' : understood.word} — ${money.text(understood.amount)}`;
      case 'tag':
        return `${understood.word === '' ? 'Goods' : understood.word} of ${understood.maker.name}${understood.tag === '' ? '' : `, tag ${understood.tag}`} — ${money.text(understood.amount)}`;
      case 'unknown code':
        return `${understood.barcode} is not among the goods yet`;
      case 'customer':
        return `The customer with card ${understood.code}`;
      case 'receipt':
        return `The receipt of ${understood.code.number}`;
      case 'refused':
        return refusalWords(understood.refusal, money);
    }
  });
  const isRefused = $derived(isReady && understood.means === 'refused');
  const canDo = $derived(understood.means !== 'nothing' && !isRefused);
  const does = $derived(
    { 'unknown code': 'Add the item', receipt: 'Open' }[understood.means as string] ?? 'Add',
  );

  function onkeydown(event: KeyboardEvent): void {
    if (event.key === 'ArrowDown' && fitting.length > 1) {
      at = (at + 1) % fitting.length;
      event.preventDefault();
    } else if (event.key === 'ArrowUp' && fitting.length > 1) {
      at = (at + fitting.length - 1) % fitting.length;
      event.preventDefault();
    } else if (event.key === 'Escape' && typed !== '') {
      typed = '';
      event.preventDefault();
    }
  }
</script>

<form
  class="relative"
  onsubmit={(event) => {
    event.preventDefault();
    if (canDo) ondo(chosen);
  }}
>
  <div
    class={[
      'bg-card flex min-h-13 flex-wrap items-center gap-x-3 rounded-[0.875rem] border-2 px-4 py-1 md:min-h-15',
      isRefused ? 'border-error' : 'border-primary',
    ]}
  >
    <input
      bind:this={field}
      bind:value={typed}
      {onkeydown}
      class="min-h-12 min-w-32 flex-1 bg-transparent py-2 text-lg outline-none placeholder:text-soft placeholder:opacity-100 md:text-xl"
      placeholder="Name, code or amount"
      aria-label="Name, code or amount"
      aria-describedby="understood"
      aria-invalid={isRefused}
      autocomplete="off"
      autocapitalize="off"
      spellcheck="false"
      enterkeyhint="done"
    />
    <output
      id="understood"
      class={['font-[600]', isRefused ? 'text-error' : 'text-secondary']}
      data-testid="understood">{saying}</output
    >
    {#if canDo}
      <button type="submit" class="btn btn-quiet !py-0"
        >{does} <kbd class="key max-md:hidden">Enter</kbd></button
      >
    {:else if typed === ''}
      <kbd class="key max-md:hidden">/</kbd>
      <button
        type="button"
        class="btn btn-quiet !px-3 !py-0"
        aria-label="Scan with the camera"
        onclick={onscan}><ScanBarcode aria-hidden="true" class="size-6" /></button
      >
    {/if}
  </div>
  {#if fitting.length > 1}
    <ul
      class="sheet border-base-300 absolute inset-x-0 top-full z-10 mt-1 max-h-80 overflow-y-auto border-2 !p-1"
      aria-label="Goods that fit"
    >
      {#each fitting as item, i (item.id)}
        <li>
          <button
            type="button"
            class={[
              'flex min-h-12 w-full items-baseline gap-3 rounded-lg px-3 py-2 text-left',
              i === at && 'bg-base-200',
            ]}
            aria-current={i === at}
            onclick={() => ondo(item)}
          >
            <b class="font-[600]">{item.name}</b>
            <span class="soft flex-1">{item.detail}</span>
            <span class="amount">{money.figure(item.price)}</span>
          </button>
        </li>
      {/each}
    </ul>
  {/if}
</form>
