<script lang="ts">
  import { goto } from '$app/navigation';
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { setCustomer, type CustomerRefusal } from '$lib/core/customer/set-customer';
  import { CONSENT_WAYS, type ConsentWay } from '$lib/core/daybook/kinds/customer-consent';
  import { readAmount } from '$lib/core/money/amount-text';
  import { agreementRight } from '$lib/core/people/judge';
  import { newId, newSalt } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { draftOr, dropDraft, keepDraft } from '$lib/ui/forms/typed-draft.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { consentWords, customerRefusalWords } from '$lib/ui/words/customer-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import RightButton from '../../RightButton.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    /** Nobody yet when somebody new is added. */
    customer?: Row<'customers'>;
  }
  const { customer }: Props = $props();
  const stall = useStall();
  const { db, money } = stall;
  // svelte-ignore state_referenced_locally
  const start = customer;
  const [form, from] = [`customer ${start?.id ?? 'new'}`, start?.setStamp ?? ''];
  const begin = {
    who: {
      name: start?.name ?? '',
      email: start?.email ?? '',
      phone: start?.phone ?? '',
      company: start?.company ?? '',
      address: start?.address ?? '',
      taxNumber: start?.taxNumber ?? '',
      note: start?.note ?? '',
    },
    discount: start?.discount ?? '0',
    terms: String(start?.terms ?? 0),
    isUnlimited: start !== undefined && start.creditLimit === null,
    credit: money.plain(start?.creditLimit ?? 0),
    consent: '' as ConsentWay | '',
  };
  const typed = $state(draftOr(form, from, begin));
  keepDraft(form, from, () => $state.snapshot(typed));
  let wrong = $state('');
  let where = $state('');

  const fieldOf: Readonly<Record<CustomerRefusal['code'], string>> = {
    'customer/no-name': 'name',
    'customer/email-wrong': 'email',
    'customer/discount-wrong': 'discount',
    'customer/terms-wrong': 'terms',
    'customer/too-long': 'note',
    'customer/erased': 'name',
  };
  const creditTyped = $derived(
    readAmount(typed.credit.trim() === '' ? '0' : typed.credit, stall.business.currency),
  );
  const creditLimit = $derived(
    typed.isUnlimited ? null : creditTyped.ok ? creditTyped.amount : (start?.creditLimit ?? 0),
  );
  /** What is agreed is worth money; noting somebody down is not. Wrong figures are refused later. */
  const right = $derived.by(() => {
    try {
      return agreementRight(
        { discount: typed.discount, creditLimit, terms: Number(typed.terms) },
        stall.seller,
      );
    } catch {
      return null;
    }
  });

  async function save(lentBy?: string): Promise<void> {
    if (!typed.isUnlimited && !creditTyped.ok) {
      where = 'credit';
      wrong = refusalWords(creditTyped.refusal, money);
      return;
    }
    const said = $state.snapshot(typed);
    const customers = await db.books.customers.toArray();
    const id = start?.id ?? newId();
    const outcome = await stall.daybook.append(
      () =>
        setCustomer({
          newId,
          newSalt,
          id,
          who: { ...said.who },
          discount: said.discount,
          terms: said.terms,
          creditLimit,
          isActive: true,
          consent: said.consent === '' ? null : said.consent,
          customers,
        }),
      lentBy === undefined ? {} : { lentBy },
    );
    if (!outcome.ok) {
      if (outcome.refusal.code === 'slip/gone') return;
      where = fieldOf[outcome.refusal.code];
      wrong = customerRefusalWords(outcome.refusal);
      return;
    }
    dropDraft(form);
    await stall.daybook.settle();
    toast(`${said.who.name.trim()} is saved.`);
    await goto('/customers');
  }
</script>

<form class="sheet grid gap-4 sm:grid-cols-2" onsubmit={(event) => event.preventDefault()}>
  <Field label="Name" bind:value={typed.who.name} maxlength={80} isWrong={where === 'name'} />
  <Field label="Company" bind:value={typed.who.company} maxlength={80} />
  <Field
    label="E-mail"
    type="email"
    bind:value={typed.who.email}
    maxlength={254}
    isWrong={where === 'email'}
  />
  <Field label="Phone" type="tel" bind:value={typed.who.phone} maxlength={40} />
  <Field label="Address" bind:value={typed.who.address} maxlength={300} />
  <Field label="Tax number" bind:value={typed.who.taxNumber} maxlength={40} />
  <div class="sm:col-span-2">
    <Field label="Note" bind:value={typed.who.note} maxlength={500} />
  </div>
  <Field
    label="Standing discount, percent"
    bind:value={typed.discount}
    inputmode="decimal"
    isWrong={where === 'discount'}
  />
  <Field
    label="Days to pay a bill"
    bind:value={typed.terms}
    inputmode="numeric"
    isWrong={where === 'terms'}
  />
  <div class="grid gap-2">
    {#if !typed.isUnlimited}
      <Field
        label="May owe at most"
        bind:value={typed.credit}
        inputmode="decimal"
        isWrong={where === 'credit'}
      />
    {/if}
    <Tick label="May owe without limit" bind:checked={typed.isUnlimited} />
  </div>
  {#if start === undefined}
    <label class="grid content-start gap-1 font-[560]">
      Agreed to be kept
      <select class="select min-h-12 w-full" bind:value={typed.consent}>
        <option value="">not yet asked</option>
        {#each CONSENT_WAYS as way (way)}<option value={way}>{consentWords[way]}</option>{/each}
      </select>
    </label>
  {/if}
  {#if wrong !== ''}<p class="text-error sm:col-span-2" role="alert">{wrong}</p>{/if}
  <div class="sm:col-span-2">
    <RightButton {right} label="Save" onGo={save} />
  </div>
</form>
