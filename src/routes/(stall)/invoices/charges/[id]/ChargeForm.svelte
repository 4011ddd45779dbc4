<!-- Sets a standing charge up, or changes it: who, what for, when, and how it is paid. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Row } from '$lib/core/books/tables';
  import { cardWays, setCharge, typedCharge, type TypedCharge } from '$lib/core/charge/set-charge';
  import { UNITS } from '$lib/core/daybook/kinds/charge';
  import { cardHolder, cardOf } from '$lib/core/customer/card-on-file';
  import { likelyCountry } from '$lib/core/customer/country';
  import { Joined } from '$lib/core/customer/joined';
  import { CONSENT_WAYS } from '$lib/core/daybook/kinds/customer-consent';
  import { taxSets } from '$lib/core/invoice/tax-sets';
  import { ownFigures, type TypedLine } from '$lib/core/invoice/own-lines';
  import { taxesInForce } from '$lib/core/slip/price-slip';
  import { newId, newSalt } from '$lib/device/new-id';
  import Choice from '$lib/ui/forms/Choice.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import Saying from '$lib/ui/forms/Saying.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { chargeRefusalWords, UNIT_WORDS } from '$lib/ui/words/charge-words';
  import { countryChoices } from '$lib/ui/words/country-words';
  import { consentWords, customerChoices } from '$lib/ui/words/customer-words';
  import { cardWords } from '$lib/ui/words/payment-words';
  import { StallForm as Form } from '../../../forms/stall-form.svelte';
  import StallForm from '../../../forms/StallForm.svelte';
  import { useStall } from '../../../stall.svelte';
  import InvoiceFiguresTable from '../../InvoiceFiguresTable.svelte';
  import InvoiceLines, { blankLine } from '../../InvoiceLines.svelte';

  interface Props {
    charge?: Row<'charges'> | undefined;
    /** Those it can be of; one where it is changed. */
    customers: readonly Row<'customers'>[];
    /** All records, for whose card is on file. */
    rows: readonly Row<'customers'>[];
    taxes: readonly Row<'taxes'>[];
    ways: readonly Row<'ways'>[];
    goods: readonly Pick<Row<'items'>, 'taxes'>[];
    customer?: string;
  }
  const { charge, customers, rows, taxes, ways, goods, customer = '' }: Props = $props();
  const stall = useStall();
  const { invoicing, locale, pricesIncludeTax, taxRounding } = stall.business;
  const { currency } = stall.money;
  const inForce = $derived(taxesInForce(taxes));
  const sets = $derived(taxSets(goods, inForce));
  const open = $derived(cardWays(ways));

  const whoIs = (id: string): Row<'customers'> | undefined =>
    customers.find((each) => each.id === id);
  const cardOfPerson = (id: string) => {
    const records = new Joined(rows).records(id);
    return cardOf(cardHolder(records.flatMap((each) => rows.find((row) => row.id === each) ?? [])));
  };
  const countryFor = (id: string): string =>
    likelyCountry(whoIs(id)?.phone ?? '', invoicing?.vendor.country, locale);

  // svelte-ignore state_referenced_locally
  const begin: TypedCharge =
    charge === undefined
      ? {
          ...{ customer, lines: [blankLine(sets)], unit: 'month', every: '1' },
          ...{ from: stall.today, until: '', country: countryFor(customer) },
          ...{ way: '', consent: '', isMailed: (whoIs(customer)?.email ?? '') !== '' },
          ...{ note: '', reference: '' },
        }
      : typedCharge(charge, currency);
  const form = new Form({
    // svelte-ignore state_referenced_locally
    about: `charge ${charge?.id ?? `new ${customer}`}`,
    // svelte-ignore state_referenced_locally
    from: charge?.setStamp ?? '',
    begin: { ...begin, lines: begin.lines.map((line) => ({ ...line })) },
    command: (typed) => () =>
      setCharge({
        ...{ newId, newSalt, known: charge, typed, today: stall.today, currency },
        isHeaded: stall.business.invoicing !== null,
        customer: whoIs(typed.customer),
        card: cardOfPerson(typed.customer),
        ways,
      }),
    says: (refusal) => ({
      field: refusal.field,
      says: chargeRefusalWords(refusal, stall.money),
    }),
    saved: () =>
      charge === undefined
        ? 'It is set up. The server makes an invoice of it on each of its days.'
        : 'Saved. Invoices that were made stay as they are.',
    then: (id) => (charge === undefined ? goto(`/invoices/charges/${id}`) : undefined),
  });
  const { typed } = form;

  function choose(id: string): void {
    if (id === typed.customer) return;
    const isMailed = (whoIs(id)?.email ?? '') !== '';
    Object.assign(typed, { customer: id, country: countryFor(id), isMailed, way: '', consent: '' });
  }

  const figures = $derived.by(() => {
    const lines = $state.snapshot<TypedLine[]>(typed.lines);
    const read = ownFigures({ currency, pricesIncludeTax, taxRounding, taxes: inForce, lines });
    return read.ok && read.figures.lines.length > 0 ? read.figures : null;
  });
  const card = $derived(typed.customer === '' ? null : cardOfPerson(typed.customer));
  const choices = $derived(customerChoices(customers));
</script>

<StallForm
  {form}
  right="invoice"
  name="Standing charge"
  label={charge === undefined ? 'Set it up' : 'Save'}
>
  <section class="sheet grid items-start gap-3 sm:grid-cols-2" aria-labelledby="who">
    <h2 id="who" class="sm:col-span-2">Who, and when</h2>
    {#if charge === undefined}
      <div class="sm:col-span-2">
        <Choice
          label="Customer"
          options={choices}
          bind:value={() => typed.customer, choose}
          isWrong={form.faults.now?.field === 'customer'}
        />
        <Saying at="customer" />
      </div>
    {/if}
    <div class="grid grid-cols-[5rem_minmax(0,1fr)] items-start gap-3">
      <Field label="Every" bind:value={typed.every} at="every" inputmode="numeric" maxlength={2} />
      <label class="grid gap-1 font-[560]">
        <span class="sr-only">Weeks, months or years</span>
        <span aria-hidden="true">&nbsp;</span>
        <select class="select min-h-12 w-full" bind:value={typed.unit}>
          {#each UNITS as unit (unit)}
            <option value={unit}>{typed.every.trim() === '1' ? unit : UNIT_WORDS[unit]}</option>
          {/each}
        </select>
      </label>
    </div>
    <Field
      label={charge === undefined ? 'First on' : 'Counted from'}
      type="date"
      bind:value={typed.from}
      at="from"
      help="In shorter months on their last day"
    />
    <Field label="Until" type="date" bind:value={typed.until} at="until" help="Empty for no end" />
    <Choice label="Country" options={countryChoices(locale)} bind:value={typed.country} />
  </section>
  <section class="sheet grid grid-cols-[minmax(0,1fr)] gap-3" aria-labelledby="lines">
    <h2 id="lines">What for, each time</h2>
    <InvoiceLines bind:lines={typed.lines} {inForce} {sets} {pricesIncludeTax} />
    {#if figures !== null}
      <InvoiceFiguresTable {figures} paid={0} />
      <p class="soft text-sm">With the taxes that are in force on the day.</p>
    {/if}
  </section>
  <section class="sheet grid items-start gap-3 sm:grid-cols-2" aria-labelledby="how">
    <h2 id="how" class="sm:col-span-2">How it is paid</h2>
    <label class="grid content-start gap-1 font-[560]">
      Paid
      <select class="select min-h-12 w-full" bind:value={typed.way}>
        <option value="">when they are asked, by the day it is due</option>
        {#each open as { id, name } (id)}
          <option value={id}>by their card on file, as “{name}”</option>
        {/each}
      </select>
      <Saying at="way" />
    </label>
    {#if typed.way !== ''}
      <label class="grid content-start gap-1 font-[560]">
        It may be charged each time
        <select class="select min-h-12 w-full" bind:value={typed.consent}>
          <option value="">not yet asked</option>
          {#each CONSENT_WAYS as way (way)}<option value={way}>{consentWords[way]}</option>{/each}
        </select>
        <Saying at="consent" />
      </label>
      <p class="sm:col-span-2" data-testid="charged-card">
        {#if card === null}
          <span class="text-error">No card of theirs is on file.</span>
          {#if typed.customer !== ''}
            <a class="plain" href="/customers/{typed.customer}">Put one on file</a>
          {/if}
        {:else}
          <b>{cardWords(card)}</b>, without a surcharge
        {/if}
      </p>
    {/if}
    <div class="sm:col-span-2">
      <Tick label="Mail them each invoice when it is made" bind:checked={typed.isMailed} />
      <Saying at="isMailed" />
    </div>
    <Field
      label="Their reference"
      bind:value={typed.reference}
      at="reference"
      maxlength={40}
      autocomplete="off"
    />
    <Field
      label="Note"
      bind:value={typed.note}
      at="note"
      maxlength={500}
      autocomplete="off"
      help="It stands on each invoice"
    />
  </section>
</StallForm>
