<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Row } from '$lib/core/books/tables';
  import { costText } from '$lib/core/money/cost-text';
  import { quantityText, thousandths } from '$lib/core/money/units';
  import { EACH_EVENT } from '$lib/core/stock/fill-list';
  import { setSupply } from '$lib/core/stock/suppliers';
  import { newId } from '$lib/device/new-id';
  import Choice from '$lib/ui/forms/Choice.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import Saying from '$lib/ui/forms/Saying.svelte';
  import { supplyFault } from '$lib/ui/words/stock-words';
  import { StallForm as Form } from '../../../../forms/stall-form.svelte';
  import StallForm from '../../../../forms/StallForm.svelte';
  import { useStall } from '../../../../stall.svelte';
  import type { Goods } from '../../../goods.svelte';
  import { itemName } from '$lib/core/goods/item-name';

  interface Props {
    goods: Goods;
    item: Row<'items'>;
  }
  const { goods, item }: Props = $props();
  const stall = useStall();
  // svelte-ignore state_referenced_locally
  const [of, start] = [item, goods.supplies.get(item.id)];
  const { currency } = stall.business;
  const figure = (n: number | null | undefined): string =>
    n == null ? '' : quantityText(thousandths(n));
  // svelte-ignore state_referenced_locally
  const parPlaces = [
    { value: EACH_EVENT, label: 'each event' },
    ...goods.places
      .filter(({ isActive, sort }) => isActive && sort !== 'area')
      .map(({ id }) => ({ value: id, label: goods.placeName(id) })),
  ];
  const form = new Form({
    about: `supply ${of.id}`,
    from: start?.setStamp ?? '',
    begin: {
      suppliers: (start?.suppliers ?? []).map(({ supplier, code, pack, price }) => ({
        supplier,
        code,
        pack: figure(pack),
        price: costText(price, currency),
      })),
      pars: Object.fromEntries(
        parPlaces.map(({ value }) => [
          value,
          figure(start?.pars.find(({ place }) => place === value)?.par),
        ]),
      ),
      levels: Object.fromEntries(
        parPlaces
          .filter(({ value }) => value !== EACH_EVENT)
          .map(({ value }) => [
            value,
            figure(of.reorder.find(({ place }) => place === value)?.level),
          ]),
      ),
      weight: start?.weight == null ? '' : String(start.weight),
      perCrate: figure(start?.perCrate),
    },
    command: (typed) => () => setSupply(newId, of, typed, currency),
    says: supplyFault,
    saved: () => `How ${itemName(of)} is bought is saved.`,
    then: () => goto(`/stock/items/${of.id}`),
  });
  const { typed } = form;
  const suppliers = $derived(
    goods.suppliers
      .filter(({ isActive }) => isActive)
      .map(({ id, name }) => ({ value: id, label: name })),
  );
  const add = (): void =>
    void typed.suppliers.push({
      supplier:
        suppliers.find(({ value }) => !typed.suppliers.some((e) => e.supplier === value))?.value ??
        '',
      code: '',
      pack: '',
      price: '',
    });
  const prefer = (at: number): void => {
    const chosen = typed.suppliers[at];
    if (chosen === undefined) return;
    typed.suppliers = [chosen, ...typed.suppliers.filter((_, i) => i !== at)];
  };
</script>

<StallForm {form}>
  <section class="sheet grid grid-cols-[minmax(0,1fr)] gap-4" aria-labelledby="from">
    <h2 id="from">Whom it is bought from</h2>
    {#each typed.suppliers as each, at (at)}
      <div
        class="border-base-300 grid grid-cols-2 items-end gap-3 border-b pb-4 last:border-0 sm:grid-cols-4"
      >
        <div class="col-span-2">
          <Choice
            label={at === 0 ? 'Preferred supplier' : 'Or from'}
            options={suppliers}
            bind:value={each.supplier}
            isWrong={form.faults.at(`supplier ${String(at)}`) !== ''}
          />
        </div>
        <Field label="They call it" bind:value={each.code} maxlength={40} autocomplete="off" />
        <Field
          label="In packs of"
          at="pack {at}"
          bind:value={each.pack}
          inputmode="decimal"
          placeholder="1"
        />
        <Field label="Price of one" at="price {at}" bind:value={each.price} inputmode="decimal" />
        <div class="flex flex-wrap gap-2 max-sm:col-span-2 sm:col-span-3">
          {#if at > 0}
            <button type="button" class="btn btn-quiet" onclick={() => prefer(at)}>Prefer</button>
          {/if}
          <button
            type="button"
            class="btn btn-quiet"
            onclick={() => (typed.suppliers = typed.suppliers.filter((_, i) => i !== at))}
            >Remove</button
          >
        </div>
        <div class="col-span-full"><Saying at="supplier {at}" /></div>
      </div>
    {:else}
      <p class="soft">Nobody is noted yet.</p>
    {/each}
    {#if suppliers.length > 0}
      <button type="button" class="btn btn-quiet justify-self-start" onclick={add}
        >Add a supplier</button
      >
    {:else}
      <a class="btn btn-quiet justify-self-start" href="/stock/suppliers/new">Add a supplier</a>
    {/if}
  </section>
  <section class="sheet grid gap-4 sm:grid-cols-3" aria-labelledby="par">
    <h2 id="par" class="sm:col-span-3">How much should be there</h2>
    {#each parPlaces as { value, label } (value)}
      <div class="grid grid-cols-2 items-end gap-3 sm:col-span-3 sm:grid-cols-[1fr_1fr_1fr]">
        <b class="col-span-2 font-[600] sm:col-span-1 sm:pb-3">{label}</b>
        {#if value in typed.levels}
          <Field
            label="Bought again at"
            at="level {value}"
            bind:value={typed.levels[value]!}
            inputmode="decimal"
          />
        {:else}<span class="max-sm:hidden"></span>{/if}
        <Field label="Up to" at="par {value}" bind:value={typed.pars[value]!} inputmode="decimal" />
      </div>
    {/each}
  </section>
  <section class="sheet grid gap-4 sm:grid-cols-3" aria-labelledby="carried">
    <h2 id="carried" class="sm:col-span-3">How it is carried</h2>
    <Field label="Grams of one" at="weight" bind:value={typed.weight} inputmode="numeric" />
    <Field
      label="How many fill a crate"
      at="perCrate"
      bind:value={typed.perCrate}
      inputmode="decimal"
    />
  </section>
</StallForm>
