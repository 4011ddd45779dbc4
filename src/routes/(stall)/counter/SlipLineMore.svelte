<script lang="ts">
  import { readAmount } from '$lib/core/money/amount-text';
  import { isPaidIn, type OpenLine } from '$lib/core/slip/open-slip';
  import { discountText, readDiscount } from '$lib/core/slip/read-discount';
  import { live } from '$lib/device/live.svelte';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../stall.svelte';
  import { moveLineTo } from './keep-slip';
  import { faultWords } from '$lib/ui/words/fault-words';

  interface Props {
    line: OpenLine;
  }
  const { line }: Props = $props();
  const stall = useStall();
  async function move(to: string): Promise<void> {
    try {
      const moved = await moveLineTo(stall, line.key, to);
      if (!moved.ok) wrong = refusalWords(moved.refusal, stall.money);
    } catch (error) {
      const why = faultWords(error);
      wrong = `It stays on this slip, since the device would not write: ${why}`;
    }
  }
  const { slip, db } = stall;
  const money = $derived(stall.money);
  // All start afresh when the line changes, whoever changed it.
  let price = $derived(money.plain(line.price));
  let reason = $derived(line.reason ?? '');
  let discount = $derived(discountText(line.discount, (each) => money.plain(each)));
  let note = $derived(line.note ?? '');
  let person = $derived(line.person ?? '');
  /** Tabs that are open elsewhere than on this counter. */
  const tabs = live(() => {
    const own = slip.current.id;
    return async () =>
      (await db.books.slips.toArray()).filter(
        ({ id, sort, state }) => id !== own && sort === 'tab' && state !== 'gone',
      );
  }, []);
  let wrong = $state('');
  let where = $state<'price' | 'reason' | 'discount' | ''>('');

  function say(at: typeof where, refusal: Parameters<typeof refusalWords>[0] | null): void {
    where = refusal === null ? '' : at;
    wrong = refusal === null ? '' : refusalWords(refusal, money);
  }

  function setPrice(): void {
    const read = readAmount(price, money.currency);
    if (!read.ok && !(read.refusal.code === 'amount/empty')) say('price', read.refusal);
    else {
      const refusal = slip.setPrice(line.key, read.ok ? read.amount : 0, reason);
      say(refusal?.code === 'slip/no-reason' ? 'reason' : 'price', refusal);
    }
  }
  function setDiscount(): void {
    const read = readDiscount(discount, money.currency);
    say('discount', read.ok ? slip.sayOfLine(line.key, { discount: read.discount }) : read.refusal);
  }
  /** An amount and nothing else, or as it was agreed of an order. */
  const isFixed = $derived(isPaidIn(line) || line.ordered !== undefined);
  const isPriceTouched = $derived(
    line.listPrice !== undefined || price.trim() !== money.plain(line.price),
  );
</script>

<div class="grid grid-cols-2 gap-2 pb-3">
  {#if !isFixed}<label class="grid gap-0.5 text-sm">
      Price{line.listPrice === undefined ? '' : `, was ${money.figure(line.listPrice)}`}
      <input
        class={['input figure w-full', where === 'price' && '!border-error']}
        inputmode="decimal"
        autocomplete="off"
        bind:value={price}
        onchange={() => {
          if (reason.trim() !== '') setPrice();
        }}
        onfocus={(event) => event.currentTarget.select()}
      />
    </label>
    <label class="grid gap-0.5 text-sm">
      Discount, % or amount
      <input
        class={['input figure w-full', where === 'discount' && '!border-error']}
        autocomplete="off"
        bind:value={discount}
        onchange={setDiscount}
        onfocus={(event) => event.currentTarget.select()}
      />
    </label>
  {/if}
  {#if isPriceTouched && !isFixed}
    <label class="col-span-2 grid gap-0.5 text-sm">
      Why another price
      <span class="flex gap-2">
        <input
          class={['input min-w-0 flex-1', where === 'reason' && '!border-error']}
          maxlength="200"
          autocomplete="off"
          bind:value={reason}
          onkeydown={(event) => {
            if (event.key === 'Enter') setPrice();
          }}
        />
        <button type="button" class="btn btn-quiet" onclick={setPrice}>Set the price</button>
      </span>
    </label>
  {/if}
  <label class={['grid gap-0.5 text-sm', stall.staff.length === 0 && 'col-span-2']}>
    Note
    <input
      class="input w-full"
      maxlength="200"
      autocomplete="off"
      bind:value={note}
      onchange={() =>
        slip.sayOfLine(line.key, { note: note.trim() === '' ? undefined : note.trim() })}
    />
  </label>
  {#if stall.staff.length > 0}
    <label class="grid gap-0.5 text-sm">
      Sold by
      <select
        class="select min-h-12 w-full"
        value={line.seller ?? ''}
        onchange={(event) =>
          slip.sayOfLine(line.key, { seller: event.currentTarget.value || undefined })}
      >
        <option value="">whoever rings it up</option>
        {#each stall.staff as { id, name } (id)}<option value={id}>{name}</option>{/each}
      </select>
    </label>
  {/if}
  {#if stall.taxes.length > 0 && !isPaidIn(line)}
    <fieldset class="col-span-2 flex flex-wrap gap-x-4">
      <legend class="text-sm">Taxes</legend>
      {#each stall.taxes as tax (tax.id)}
        <label class="flex min-h-12 items-center gap-2">
          <input
            type="checkbox"
            class="checkbox size-6 !rounded-md"
            checked={line.taxes.includes(tax.id)}
            onchange={(event) => {
              const on = event.currentTarget.checked;
              const taxes = line.taxes.filter((id) => id !== tax.id);
              slip.sayOfLine(line.key, { taxes: on ? [...taxes, tax.id] : taxes });
            }}
          />
          {tax.name}
        </label>
      {/each}
    </fieldset>
  {/if}
  {#if slip.current.kept?.sort === 'tab'}
    <label class="grid gap-0.5 text-sm">
      For
      <input
        class="input w-full"
        maxlength="40"
        placeholder="all of them"
        autocomplete="off"
        bind:value={person}
        onchange={() =>
          slip.sayOfLine(line.key, { person: person.trim() === '' ? undefined : person.trim() })}
      />
    </label>
    <label class="grid gap-0.5 text-sm">
      Move to
      <select
        class="select min-h-12 w-full"
        value=""
        onchange={(event) => move(event.currentTarget.value)}
      >
        <option value="">another tab …</option>
        {#each tabs.value as tab (tab.id)}<option value={tab.id}>{tab.name}</option>{/each}
      </select>
    </label>
  {/if}
  {#if wrong !== ''}<p class="text-error col-span-2" role="alert">{wrong}</p>{/if}
</div>
