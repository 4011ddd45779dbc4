<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Row } from '$lib/core/books/tables';
  import { setCustomer, type CustomerRefusal } from '$lib/core/customer/set-customer';
  import { CONSENT_WAYS, type ConsentWay } from '$lib/core/daybook/kinds/customer-consent';
  import { readAmount, type AmountRefusal } from '$lib/core/money/amount-text';
  import { agreementRight } from '$lib/core/people/judge';
  import { newId, newSalt } from '$lib/device/new-id';
  import type { Fault } from '$lib/ui/forms/faults.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { consentWords, customerRefusalWords } from '$lib/ui/words/customer-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { StallForm as Form } from '../../forms/stall-form.svelte';
  import StallForm from '../../forms/StallForm.svelte';
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
  const begin = {
    who: {
      name: start?.name ?? '',
      email: start?.email ?? '',
      phone: start?.phone ?? '',
      company: start?.company ?? '',
      address: start?.address ?? '',
      taxNumber: start?.taxNumber ?? '',
      note: start?.note ?? '',
      code: start?.code ?? '',
    },
    discount: start?.discount ?? '0',
    terms: String(start?.terms ?? 0),
    isUnlimited: start !== undefined && start.creditLimit === null,
    credit: money.plain(start?.creditLimit ?? 0),
    consent: '' as ConsentWay | '',
  };
  const form = new Form({
    about: `customer ${start?.id ?? 'new'}`,
    from: start?.setStamp ?? '',
    begin,
    command: made,
    says: faultOf,
    saved: ({ who }) => `${who.name.trim()} is saved.`,
    then: () => goto('/customers'),
  });
  const { typed } = form;

  type Refusal = CustomerRefusal | AmountRefusal;
  const fieldOf: Readonly<Record<CustomerRefusal['code'], string>> = {
    'customer/no-name': 'name',
    'customer/email-wrong': 'email',
    'customer/discount-wrong': 'discount',
    'customer/terms-wrong': 'terms',
    'customer/too-long': 'note',
    'customer/code-taken': 'code',
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

  type Typed = typeof begin;
  type Outcome = ReturnType<typeof setCustomer> | { ok: false; refusal: Refusal };
  async function made({
    who,
    discount,
    terms,
    consent,
    isUnlimited,
  }: Typed): Promise<() => Outcome> {
    const wrong = creditTyped;
    if (!isUnlimited && !wrong.ok) return () => wrong;
    const customers = await db.books.customers.toArray();
    const id = start?.id ?? newId();
    return () =>
      setCustomer({
        newId,
        newSalt,
        id,
        who: { ...who },
        discount,
        terms,
        creditLimit,
        isActive: true,
        consent: consent === '' ? null : consent,
        customers,
      });
  }
  function faultOf(refusal: Refusal): Fault {
    if (isOfAmount(refusal)) return { field: 'credit', says: refusalWords(refusal, money) };
    return { field: fieldOf[refusal.code], says: customerRefusalWords(refusal) };
  }
  const isOfAmount = (refusal: Refusal): refusal is AmountRefusal => !(refusal.code in fieldOf);
</script>

<StallForm {form} {right} class="sheet grid items-start gap-4 sm:grid-cols-2">
  <Field label="Name" bind:value={typed.who.name} maxlength={80} at="name" />
  <Field label="Company" bind:value={typed.who.company} maxlength={80} />
  <Field label="E-mail" type="email" bind:value={typed.who.email} maxlength={254} at="email" />
  <Field label="Phone" type="tel" bind:value={typed.who.phone} maxlength={40} />
  <Field label="Address" bind:value={typed.who.address} maxlength={300} />
  <Field label="Tax number" bind:value={typed.who.taxNumber} maxlength={40} />
  <Field
    label="Card or tag"
    bind:value={typed.who.code}
    maxlength={40}
    at="code"
    autocomplete="off"
    help="Its code, typed or scanned: scanned at the counter, it puts them on the slip"
  />
  <div>
    <Field label="Note" bind:value={typed.who.note} maxlength={500} />
  </div>
  <Field
    label="Standing discount, percent"
    bind:value={typed.discount}
    inputmode="decimal"
    at="discount"
  />
  <Field label="Days to pay a bill" bind:value={typed.terms} inputmode="numeric" at="terms" />
  <div class="grid gap-2">
    {#if !typed.isUnlimited}
      <Field label="May owe at most" bind:value={typed.credit} inputmode="decimal" at="credit" />
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
</StallForm>
