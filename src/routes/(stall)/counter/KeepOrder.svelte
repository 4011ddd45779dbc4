<!-- The slip becomes a quote, or goods that are kept for whoever is on it. -->
<script lang="ts">
  import { readAmount } from '$lib/core/money/amount-text';
  import { keptAt } from '$lib/core/order/advance';
  import type { OrderSort } from '$lib/core/order/set-order';
  import { lenderOf } from '$lib/core/slip/open-slip';
  import { newSalt } from '$lib/device/new-id';
  import { keepAsOrder } from '$lib/device/keep-order';
  import Field from '$lib/ui/forms/Field.svelte';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../stall.svelte';
  import CollectAt from '../orders/CollectAt.svelte';
  import { deskOf } from './keep-slip';
  import { isDepositWay, putDeposit } from './take-order';

  interface Props {
    /** Called with what was done. */
    ondone: (says: string) => void;
  }
  const { ondone }: Props = $props();
  const stall = useStall();
  const { slip } = stall;
  const money = $derived(stall.money);
  const SORTS: readonly (readonly [OrderSort, string])[] = [
    ['quote', 'Quote'],
    ['kept', 'Keep it for them'],
    ['collect', 'Order to collect'],
  ];

  let sort = $state<OrderSort | null>(null);
  let until = $state('');
  let deposit = $state('');
  let collectAt = $state('');
  let isReady = $state(true);
  let note = $state('');
  let wrong = $state('');
  let isBusy = $state(false);

  /** The next one is of somebody else. */
  function reset(): void {
    sort = null;
    [until, deposit, collectAt, note] = ['', '', '', ''];
    isReady = true;
  }

  async function keep(): Promise<void> {
    if (sort === null || isBusy) return;
    const asked = deposit.trim() === '' ? null : readAmount(deposit, money.currency);
    if (asked?.ok === false) {
      wrong = refusalWords(asked.refusal, money);
      return;
    }
    if (sort !== 'quote' && (asked?.amount ?? 0) > 0 && !stall.wayRows.some(isDepositWay)) {
      wrong = refusalWords({ code: 'order/no-way' }, money);
      return;
    }
    if (stall.slipLacks.length > 0) {
      wrong = refusalWords({ code: 'right/lacking' }, money);
      return;
    }
    const { customer } = slip.current;
    const { business: pricing, taxes, today, event } = stall;
    isBusy = true;
    try {
      const kept = await keepAsOrder(
        deskOf(stall),
        stall.identity.number,
        {
          ...{
            sort,
            until,
            note,
            salt: newSalt(),
            pricing,
            taxes,
            today,
            swaps: event?.swaps ?? [],
          },
          ...{ deposit: asked?.amount ?? 0, stage: isReady ? 'ready' : 'waiting' },
          collectAt: collectAt === '' ? null : collectAt,
          place: keptAt(isReady, collectAt === '' ? null : collectAt, event?.id),
        },
        lenderOf(slip.current),
      );
      wrong = kept.ok ? '' : refusalWords(kept.refusal, money);
      if (!kept.ok || customer === undefined) return;
      const { id, number } = kept;
      const advance = sort === 'quote' ? 0 : (asked?.amount ?? 0);
      const refused = advance === 0 ? null : putDeposit(stall, { id, number, customer }, advance);
      const isOnSlip = advance > 0 && refused === null;
      reset();
      ondone(
        isOnSlip
          ? `${number} is kept for ${customer.name}; its deposit is on the slip.`
          : refused === null
            ? `${number} is written down for ${customer.name}.`
            : `${number} is kept; its deposit is not on the slip: ${refusalWords(refused, money)}`,
      );
    } finally {
      isBusy = false;
    }
  }
</script>

<section class="grid gap-3" aria-labelledby="for-them">
  <h3 id="for-them" class="text-lg">For a customer</h3>
  <div class="flex flex-wrap gap-2" role="group" aria-label="What it is">
    {#each SORTS as [each, name] (each)}
      <button
        type="button"
        class={['btn btn-quiet', sort === each && '!border-primary !border-3']}
        aria-pressed={sort === each}
        disabled={slip.isEmpty}
        onclick={() => {
          sort = sort === each ? null : each;
          wrong = '';
          collectAt = each === 'collect' ? (stall.event?.id ?? '') : '';
        }}>{name}</button
      >
    {/each}
  </div>
  {#if sort !== null}
    <form
      class="grid grid-cols-2 items-end gap-3"
      aria-label="For a customer"
      onsubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <Field
        label={sort === 'quote' ? 'It holds until' : 'Kept until, if any'}
        bind:value={until}
        type="date"
      />
      {#if sort !== 'quote'}
        <Field label="Deposit" bind:value={deposit} inputmode="decimal" autocomplete="off" />
        <CollectAt bind:value={collectAt} />
        <label class="flex min-h-12 items-center gap-2 font-[560]">
          <input type="checkbox" class="checkbox size-6 !rounded-md" bind:checked={isReady} />
          The goods are there
        </label>
      {/if}
      <div class="col-span-2">
        <Field label="Note" bind:value={note} maxlength={500} autocomplete="off" />
      </div>
      <button class="btn btn-main col-span-2 justify-self-start" disabled={isBusy}
        >Write it down</button
      >
    </form>
  {/if}
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
</section>
