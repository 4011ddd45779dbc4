<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Row } from '$lib/core/books/tables';
  import { setSupplier } from '$lib/core/stock/suppliers';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { supplyFault } from '$lib/ui/words/stock-words';
  import { StallForm as Form } from '../../../forms/stall-form.svelte';
  import StallForm from '../../../forms/StallForm.svelte';
  import type { Goods } from '../../goods.svelte';

  interface Props {
    goods: Goods;
    supplier?: Row<'suppliers'>;
  }
  const { goods, supplier }: Props = $props();
  // svelte-ignore state_referenced_locally
  const start = supplier;
  const form = new Form({
    about: `supplier ${start?.id ?? 'new'}`,
    from: start?.setStamp ?? '',
    begin: {
      name: start?.name ?? '',
      email: start?.email ?? '',
      phone: start?.phone ?? '',
      days: start === undefined ? '' : String(start.days),
      note: start?.note ?? '',
      isActive: start?.isActive ?? true,
    },
    command: (typed) => () => setSupplier(newId, start?.id ?? null, typed, goods.suppliers),
    says: supplyFault,
    saved: ({ name }) => `${name.trim()} is saved.`,
    then: () => goto('/stock/suppliers'),
  });
  const { typed } = form;
</script>

<StallForm {form}>
  <section class="sheet grid items-start gap-4 sm:grid-cols-2" aria-label="Who they are">
    <Field label="Name" at="name" bind:value={typed.name} maxlength={80} autocomplete="off" />
    <Field
      label="E-mail"
      at="email"
      bind:value={typed.email}
      maxlength={120}
      inputmode="email"
      autocomplete="off"
    />
    <Field
      label="Telephone"
      bind:value={typed.phone}
      maxlength={40}
      inputmode="tel"
      autocomplete="off"
    />
    <Field label="Days to deliver" at="days" bind:value={typed.days} inputmode="numeric" />
    <div class="sm:col-span-2"><Field label="Note" bind:value={typed.note} maxlength={500} /></div>
    {#if start !== undefined}<Tick
        label="Still buying from them"
        bind:checked={typed.isActive}
      />{/if}
  </section>
</StallForm>
