<!-- Makes an invoice of a sale, of an order, or by hand: to whom, until when, and what for. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { likelyCountry } from '$lib/core/customer/country';
  import { paidAlready, saleFigures, type InvoiceFigures } from '$lib/core/invoice/invoice-figures';
  import {
    buyerOf,
    dueOn,
    invoiceOrder,
    invoiceOwn,
    invoiceSale,
    stillToAsk,
  } from '$lib/core/invoice/make-invoice';
  import { ownFigures, type TypedLine } from '$lib/core/invoice/own-lines';
  import type { Row } from '$lib/core/books/tables';
  import { standingVoids } from '$lib/core/loose-end/voided-twice';
  import type { OrderNow } from '$lib/core/order/order-state';
  import type { SaleDocument } from '$lib/core/sale/sale-document';
  import { taxesInForce } from '$lib/core/slip/price-slip';
  import { taxSets } from '$lib/core/invoice/tax-sets';
  import { newId, newSalt } from '$lib/device/new-id';
  import { madeOf } from '$lib/device/invoices';
  import { ownSale, soldIn } from '$lib/device/sale-document';
  import Area from '$lib/ui/forms/Area.svelte';
  import Choice from '$lib/ui/forms/Choice.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import { customerChoices } from '$lib/ui/words/customer-words';
  import { countryChoices } from '$lib/ui/words/country-words';
  import { invoiceRefusalWords } from '$lib/ui/words/invoice-words';
  import { StallForm as Form } from '../forms/stall-form.svelte';
  import StallForm from '../forms/StallForm.svelte';
  import { useStall } from '../stall.svelte';
  import InvoiceFiguresTable from './InvoiceFiguresTable.svelte';
  import InvoiceLines, { blankLine } from './InvoiceLines.svelte';

  interface Props {
    /** Those it can be to; one where it is of a sale or an order of theirs. */
    customers: readonly Row<'customers'>[];
    taxes: readonly Row<'taxes'>[];
    /** What goods carry, a line by hand may. */
    goods: readonly Pick<Row<'items'>, 'taxes'>[];
    sale?: SaleDocument | undefined;
    order?: OrderNow | undefined;
    /** What was made of it before, with credit notes. */
    before: readonly Row<'invoices'>[];
    /** Where customers lived on their last invoice, by customer. */
    countries: ReadonlyMap<string, string>;
    customer?: string | undefined;
  }
  const { customers, taxes, goods, sale, order, before, countries, customer }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  const { invoicing, locale, pricesIncludeTax, taxRounding } = stall.business;
  const { currency } = stall.money;
  const inForce = $derived(taxesInForce(taxes));
  const sets = $derived(taxSets(goods, inForce));

  /** As somebody stands on it until something else is typed. */
  function toWhom(id: string) {
    const who = customers.find((each) => each.id === id);
    if (who === undefined)
      return {
        ...{ name: '', company: '', address: '', taxNumber: '', email: '' },
        country: likelyCountry('', invoicing?.vendor.country, locale),
        due: stall.today,
      };
    const country =
      countries.get(id) ?? likelyCountry(who.phone, invoicing?.vendor.country, locale);
    return { ...buyerOf(who, country), due: dueOn(stall.today, who, invoicing) };
  }

  // svelte-ignore state_referenced_locally
  const most = order === undefined ? 0 : stillToAsk(order, before);
  // svelte-ignore state_referenced_locally
  const begin = customer ?? sale?.sale.customer ?? order?.order.customer ?? '';
  // svelte-ignore state_referenced_locally
  const source = sale?.sale.id ?? order?.order.id ?? '';
  // svelte-ignore state_referenced_locally
  const first = blankLine(sets);
  const form = new Form({
    about: `invoice ${source === '' ? `new ${begin}` : source}`,
    from: '',
    begin: {
      customer: begin,
      ...toWhom(begin),
      note: '',
      reference: '',
      amount: most === 0 ? '' : stall.money.plain(most),
      lines: [first],
    },
    command: async (typed) => {
      // As they are by then: another window may have made one.
      const made = await madeOf(db, source);
      const { name, company, address, taxNumber, email, country, reference, due, note } = typed;
      const said = {
        ...{ newId, salt: newSalt(), invoicing: stall.business.invoicing, today: stall.today },
        ...{ due, note },
        buyer: { name, company, address, taxNumber, email, country, reference },
        customer: customers.find(({ id }) => id === typed.customer),
      };
      if (sale !== undefined) {
        const sold = (await ownSale(db, sale.sale.id)) ?? sale;
        const isVoid = standingVoids(sold.voids, sold.undone).length > 0;
        return () => invoiceSale({ ...said, sold: soldIn(sold), isVoid, invoices: made });
      }
      if (order !== undefined) {
        const { id, number } = order.order;
        return () =>
          invoiceOrder({
            ...{ ...said, order: { id, number }, says: `In advance for ${number}`, currency },
            ...{ most: stillToAsk(order, made), typed: typed.amount },
          });
      }
      return () => invoiceOwn({ ...said, ...rules, lines: typed.lines });
    },
    says: (refusal) => ({
      field: refusal.field,
      says: invoiceRefusalWords(refusal, stall.money),
    }),
    saved: () => 'It is made. Its number follows as soon as there is network.',
    then: (id) => goto(`/invoices/${id}`),
  });
  const rules = $derived({ currency, pricesIncludeTax, taxRounding, taxes: inForce });
  const { typed } = form;

  /** Somebody else: all that was said of the one before goes with them. */
  function choose(id: string): void {
    if (id === typed.customer) return;
    Object.assign(typed, { customer: id, ...toWhom(id) });
  }

  const figures = $derived.by((): InvoiceFigures | null => {
    if (sale !== undefined) return saleFigures(soldIn(sale));
    if (order !== undefined) return null;
    const read = ownFigures({ ...rules, lines: $state.snapshot<TypedLine[]>(typed.lines) });
    return read.ok && read.figures.lines.length > 0 ? read.figures : null;
  });
  /** Of a sale what was not put on account. */
  const paid = $derived(
    sale === undefined || figures === null ? 0 : paidAlready(soldIn(sale), figures),
  );
  const people = $derived(customerChoices(customers));
  const isFixed = $derived(customers.length === 1 && begin !== '');
</script>

<StallForm
  {form}
  right={sale === undefined ? 'invoice' : null}
  class="grid grid-cols-[minmax(0,1fr)] gap-5"
  name="Invoice"
  label="Make the invoice"
>
  <section class="sheet grid items-start gap-3 sm:grid-cols-2" aria-labelledby="to">
    <h2 id="to" class="sm:col-span-2">To</h2>
    {#if isFixed}
      <p class="sm:col-span-2">
        <a class="plain text-xl" href="/customers/{begin}">{customers[0]?.name}</a>
      </p>
    {:else}
      <div class="sm:col-span-2">
        <Choice
          label="Customer"
          options={people}
          bind:value={() => typed.customer, choose}
          isWrong={form.faults.now?.field === '' && typed.customer === ''}
        />
      </div>
    {/if}
    <Field label="Name" bind:value={typed.name} at="name" maxlength={80} autocomplete="off" />
    <Field
      label="Company"
      bind:value={typed.company}
      at="company"
      maxlength={80}
      autocomplete="off"
    />
    <div class="sm:col-span-2">
      <Area label="Address" bind:value={typed.address} at="address" maxlength={300} />
    </div>
    <Choice label="Country" options={countryChoices(locale)} bind:value={typed.country} />
    <Field label="Their tax number" bind:value={typed.taxNumber} at="taxNumber" maxlength={40} />
    <Field label="Mail" type="email" bind:value={typed.email} at="email" maxlength={254} />
    <Field label="To be paid by" type="date" bind:value={typed.due} at="due" />
    <div class="sm:col-span-2">
      <Field
        label="Their reference"
        bind:value={typed.reference}
        at="reference"
        maxlength={40}
        autocomplete="off"
        help="Their order number, or who it is for: many companies pay nothing without it"
      />
    </div>
    <div class="sm:col-span-2">
      <Field
        label="Note"
        bind:value={typed.note}
        at="note"
        maxlength={500}
        autocomplete="off"
        help="It stands on the invoice: what it is about, a thank-you"
      />
    </div>
  </section>

  {#if order !== undefined}
    <section class="sheet grid gap-3" aria-labelledby="for">
      <h2 id="for">In advance for {order.order.number}</h2>
      <Field
        label="How much"
        bind:value={typed.amount}
        inputmode="decimal"
        autocomplete="off"
        at="amount"
        help={`${stall.money.text(most)} is to pay for it and was not asked for. Tax is due with the goods.`}
      />
    </section>
  {:else if sale === undefined}
    <section class="sheet grid grid-cols-[minmax(0,1fr)] gap-3" aria-labelledby="lines">
      <h2 id="lines">What for</h2>
      <InvoiceLines bind:lines={typed.lines} {inForce} {sets} {pricesIncludeTax} />
    </section>
  {/if}
  {#if figures !== null}
    <section class="sheet grid gap-3" aria-labelledby="comes">
      <h2 id="comes">It comes to</h2>
      <InvoiceFiguresTable {figures} {paid} />
    </section>
  {/if}
</StallForm>
