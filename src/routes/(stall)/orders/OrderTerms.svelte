<!-- What an order is, until when, and where it is collected. -->
<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { readAmount } from '$lib/core/money/amount-text';
  import { BASE } from '$lib/core/books/tables';
  import type { OrderNow } from '$lib/core/order/order-state';
  import { changeOrder, type OrderSort } from '$lib/core/order/set-order';
  import { newId, newSalt } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { SORT_WORDS } from '$lib/ui/words/order-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { Goods } from '../stock/goods.svelte';
  import { useStall } from '../stall.svelte';
  import CollectAt from './CollectAt.svelte';

  interface Props {
    now: OrderNow;
  }
  const { now }: Props = $props();
  const stall = useStall();
  const goods = new Goods();
  const money = $derived(stall.money);
  // svelte-ignore state_referenced_locally
  const { order } = now;
  let sort = $state<OrderSort>(order.sort);
  let until = $state(order.until);
  let deposit = $state(order.deposit === 0 ? '' : stall.money.plain(order.deposit));
  let collectAt = $state(order.collectAt ?? '');
  let place = $state(order.place ?? BASE);
  let note = $state(order.note);
  let wrong = $state('');

  async function save(): Promise<void> {
    const asked = deposit.trim() === '' ? null : readAmount(deposit, money.currency);
    if (asked?.ok === false) {
      wrong = refusalWords(asked.refusal, money);
      return;
    }
    const salt = newSalt();
    const made = await stall.daybook.append(() =>
      changeOrder({
        ...{ newId, order, sort, until, note, salt, place, today: stall.today },
        deposit: asked?.amount ?? 0,
        collectAt: collectAt === '' ? null : collectAt,
        event: stall.event?.id ?? null,
      }),
    );
    wrong = made.ok ? '' : refusalWords(made.refusal, money);
    if (!made.ok) return;
    await stall.daybook.settle();
    toast('Saved.');
  }
</script>

<form
  class="sheet grid grid-cols-2 items-end gap-3"
  aria-label="What was agreed"
  onsubmit={(event) => {
    event.preventDefault();
    void save();
  }}
>
  <label class="grid gap-1 font-[560]">
    What it is
    <select class="select min-h-12 w-full" bind:value={sort}>
      {#each Object.entries(SORT_WORDS) as [each, name] (each)}<option value={each}>{name}</option
        >{/each}
    </select>
  </label>
  <Field
    label={sort === 'quote' ? 'It holds until' : 'Kept until, if any'}
    bind:value={until}
    type="date"
  />
  {#if sort !== 'quote'}
    <CollectAt bind:value={collectAt} />
    <label class="grid gap-1 font-[560]">
      The goods are kept at
      <select class="select min-h-12 w-full" bind:value={place}>
        {#each goods.choices as each (each.value)}<option value={each.value}>{each.label}</option
          >{/each}
      </select>
    </label>
    <Field label="Deposit" bind:value={deposit} inputmode="decimal" autocomplete="off" />
  {/if}
  <div class="col-span-2">
    <Field label="Note" bind:value={note} maxlength={500} autocomplete="off" />
  </div>
  <button class="btn btn-quiet justify-self-start">Save</button>
  {#if wrong !== ''}<p class="text-error col-span-2" role="alert">{wrong}</p>{/if}
</form>
