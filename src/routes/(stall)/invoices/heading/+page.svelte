<!-- Whom invoices are from, how they are numbered, and where they are paid. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { countryOf } from '$lib/core/customer/country';
  import { setInvoicing, typedInvoicing } from '$lib/core/invoice/set-invoicing';
  import { seriesOf } from '$lib/core/invoice/invoice-number';
  import { newId } from '$lib/device/new-id';
  import Area from '$lib/ui/forms/Area.svelte';
  import Choice from '$lib/ui/forms/Choice.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { countryChoices } from '$lib/ui/words/country-words';
  import { invoicingRefusalWords } from '$lib/ui/words/invoice-words';
  import { StallForm as Form } from '../../forms/stall-form.svelte';
  import StallForm from '../../forms/StallForm.svelte';
  import { useStall } from '../../stall.svelte';
  import RemindersForm from './RemindersForm.svelte';

  const stall = useStall();
  const { name, locale, invoicing, invoicingStamp } = stall.business;
  const { remindersStamp } = $derived(stall.business);
  const form = new Form({
    about: 'invoicing',
    from: invoicingStamp,
    begin: typedInvoicing(invoicing, { name, country: countryOf(locale) }),
    command: (typed) => () => setInvoicing(newId, typed),
    says: (refusal) => ({ field: refusal.field, says: invoicingRefusalWords(refusal) }),
    saved: () => 'Saved. Invoices are headed so from now on.',
    then: () => goto('/invoices'),
  });
  const { typed } = form;
  const next = $derived(
    `${seriesOf({ ...typed, digits: 1 }, stall.today)}${typed.first.trim().padStart(Number(typed.digits) || 1, '0')}`,
  );
</script>

<div class="page page-text gap-5">
  <h1>How invoices are headed</h1>
  <StallForm {form} class="grid gap-5" name="How invoices are headed">
    <section class="sheet grid items-start gap-3 sm:grid-cols-2" aria-labelledby="from">
      <h2 id="from" class="sm:col-span-2">Whom they are from</h2>
      <Field label="Name, as the law has it" bind:value={typed.name} at="name" maxlength={80} />
      <Choice label="Country" options={countryChoices(locale)} bind:value={typed.country} />
      <div class="sm:col-span-2">
        <Area label="Address" bind:value={typed.address} at="address" maxlength={300} />
      </div>
      <Field
        label="Tax number"
        bind:value={typed.taxNumber}
        at="taxNumber"
        maxlength={40}
        help="Of value added tax it begins with the country: GB999 0001 23"
      />
      <Field label="Mail" type="email" bind:value={typed.email} at="email" maxlength={254} />
    </section>
    <section class="sheet grid items-start gap-3 sm:grid-cols-2" aria-labelledby="paid">
      <h2 id="paid" class="sm:col-span-2">Where they are paid</h2>
      <Field label="Account (IBAN)" bind:value={typed.iban} at="iban" autocomplete="off" />
      <Field label="Bank (BIC)" bind:value={typed.bic} at="bic" autocomplete="off" />
      <Field label="Whose account, if another name" bind:value={typed.holder} at="holder" />
      <Field
        label="Days to pay"
        bind:value={typed.terms}
        inputmode="numeric"
        at="terms"
        help="Where nothing else was agreed with the customer"
      />
    </section>
    <section class="sheet grid items-start gap-3 sm:grid-cols-2" aria-labelledby="numbered">
      <h2 id="numbered" class="sm:col-span-2">How they are numbered</h2>
      <p class="soft sm:col-span-2">
        The server gives each its number, one after another without a gap; written with no network,
        the number follows. The first of a new series is <b class="code" data-testid="first-number"
          >{next}</b
        >.
      </p>
      <Field label="They begin with" bind:value={typed.series} at="series" maxlength={10} />
      <Field label="Figures, at least" bind:value={typed.digits} inputmode="numeric" at="digits" />
      <Tick label="Begin again each year, with the year before it" bind:checked={typed.isByYear} />
      <Field label="The first number" bind:value={typed.first} inputmode="numeric" at="first" />
    </section>
    <section class="sheet">
      <Area
        label="At the foot of each"
        bind:value={typed.foot}
        at="foot"
        rows={2}
        maxlength={500}
      />
    </section>
  </StallForm>
  {#key remindersStamp}<RemindersForm />{/key}
</div>
