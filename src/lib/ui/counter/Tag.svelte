<script lang="ts">
  import type { Row } from '../../core/books/tables';
  import { leftWords, quantityWords, type MoneyWords } from '../words/money-words';

  interface Props {
    item: Row<'items'>;
    /** Thousandths left here; null is not counted. */
    left: number | null;
    /** Thousandths on the slip. */
    onSlip: number;
    width: number;
    /** The price on the other side, where there are two; minor units. */
    other: { readonly side: 'cash' | 'card'; readonly price: number } | null;
    /** A picture as a data address, or null. */
    picture: string | null;
    money: MoneyWords;
    ontap: (item: Row<'items'>) => void;
  }
  const { item, left, onSlip, width, other, picture, money, ontap }: Props = $props();
  const rest = $derived(left === null ? null : left - onSlip);
  const isOut = $derived(rest !== null && rest <= 0);
  const isLow = $derived(rest !== null && !isOut && rest <= item.low);
  const price = $derived(
    item.isOpenPrice
      ? 'open'
      : money.figure(item.price) + (item.unit === '' ? '' : `/${item.unit}`),
  );
</script>

<button
  type="button"
  class={['tag', width === 2 && 'col-span-2 max-md:col-span-1', isOut && 'sold-out']}
  style:--eyelet={item.colour}
  onclick={() => ontap(item)}
>
  {#if picture !== null}
    <img
      src={picture}
      alt=""
      class="absolute top-1.5 right-1.5 size-11 rounded-md object-cover"
      loading="lazy"
    />
  {/if}
  <span
    class={[
      'leading-tight max-md:text-[0.94rem] max-md:tracking-[-0.01em]',
      picture !== null && 'pr-11',
    ]}
  >
    <b class={['font-[600]', isOut && 'struck']}>{item.name}</b>
    {#if item.detail !== ''}<span class="soft block text-[0.84rem] leading-tight"
        >{item.detail}</span
      >{/if}
  </span>
  <span
    class="flex flex-wrap items-baseline justify-between gap-1 max-md:flex-col-reverse max-md:gap-0"
  >
    <span class={['text-[0.82rem] md:whitespace-nowrap', isLow ? 'text-error font-[650]' : 'soft']}>
      {leftWords(rest, item.unit)}
    </span>
    <span class="text-right">
      <b class={['amount text-[1.15rem] whitespace-nowrap', isOut && 'struck']}>{price}</b>
      {#if other !== null && !item.isOpenPrice}
        <span class="soft figure block text-[0.8rem] whitespace-nowrap"
          >{other.side} {money.figure(other.price)}</span
        >
      {/if}
    </span>
  </span>
  {#if onSlip > 0}
    <span class="on-slip"
      ><span class="sr-only">on the slip: </span>{item.unit === ''
        ? quantityWords(onSlip, '')
        : '✓'}</span
    >
  {/if}
</button>
