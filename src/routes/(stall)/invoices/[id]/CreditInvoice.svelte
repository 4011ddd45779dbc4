<!-- Credits an invoice: what came back of its sale or its void, or so much of its own lines. -->
<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import {
    creditedOf,
    creditOwn,
    creditReturn,
    creditVoid,
    readOff,
    type InvoiceOutcome,
  } from '$lib/core/invoice/make-invoice';
  import type { toCredit } from '$lib/core/invoice/invoice-state';
  import { quantityText, thousandths } from '$lib/core/money/units';
  import { askSale, ownSale, soldIn } from '$lib/device/sale-document';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { invoiceRefusalWords } from '$lib/ui/words/invoice-words';
  import { StallForm as Form } from '../../forms/stall-form.svelte';
  import StallForm from '../../forms/StallForm.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    invoice: Row<'invoices'>;
    credits: readonly Row<'invoices'>[];
    /** What came back of its sale, or its void, for which there is no credit note yet. */
    waiting: ReturnType<typeof toCredit>;
  }
  const { invoice, credits, waiting }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  // svelte-ignore state_referenced_locally
  const isOfSale = invoice.sourceIs === 'sale';
  // svelte-ignore state_referenced_locally
  const isOfOrder = invoice.sourceIs === 'order';
  // svelte-ignore state_referenced_locally
  const gone = creditedOf(credits);
  // svelte-ignore state_referenced_locally
  const left = invoice.lines.map(({ quantity }, at) => quantity - (gone.get(at) ?? 0));

  const form = new Form({
    // svelte-ignore state_referenced_locally
    about: `credit ${invoice.id}`,
    // svelte-ignore state_referenced_locally
    from: String(credits.length),
    begin: {
      // svelte-ignore state_referenced_locally
      which: waiting[0]?.id ?? '',
      reason: '',
      many: left.map((quantity) => quantityText(thousandths(Math.max(0, quantity)))),
    },
    command: async (typed) => {
      const about = {
        ...{ newId, invoice, today: stall.today, reason: typed.reason },
        credits: await db.books.invoices.where('credits').equals(invoice.id).toArray(),
      };
      if (!isOfSale) {
        const sum = isOfOrder
          ? await db.books.heldSums.get(`deposit:${invoice.source ?? ''}`)
          : null;
        const deposit = isOfOrder ? Math.max(0, 0 - (sum?.amount ?? 0)) : null;
        return () => {
          const read = readOff(typed.many);
          return read.ok ? creditOwn({ ...about, deposit, off: read.off }) : read;
        };
      }
      const found = await saleOf(invoice.source ?? '');
      const chosen = waiting.find(({ id }) => id === typed.which);
      return (): InvoiceOutcome => {
        if (found === null || chosen === undefined)
          return { ok: false, refusal: { code: 'invoice/nothing', field: '' } };
        const sold = soldIn(found);
        const back = found.returns.find(({ id }) => id === chosen.id);
        return back === undefined
          ? creditVoid({ ...about, sold })
          : creditReturn({ ...about, sold, back });
      };
    },
    says: (refusal) => ({
      field: refusal.field,
      says: invoiceRefusalWords(refusal, stall.money),
    }),
    saved: () => 'The credit note is made.',
  });
  const { typed } = form;

  async function saleOf(id: string) {
    const mine = await ownSale(db, id);
    if (mine !== null) return mine;
    const asked = await askSale(stall.transport, id);
    return asked.is === 'there' ? asked.found : null;
  }
</script>

{#if isOfSale && waiting.length === 0}
  <p class="soft">
    An invoice is not changed. What is wrong of its sale is put right
    <a class="plain" href="/sales/{invoice.source}">there</a>, and credited here.
  </p>
{:else}
  <section class="sheet grid gap-3" aria-labelledby="credit">
    <h2 id="credit">{isOfSale ? 'To be credited' : 'Credit it'}</h2>
    <p class="soft">
      {isOfSale
        ? 'Something came back of its sale, or it was voided: make the credit note for it.'
        : 'An invoice is not changed: what was wrong is credited, all of it or so many of a line.'}
    </p>
    <StallForm
      {form}
      right="invoice"
      class="grid items-start gap-3"
      name="Credit note"
      label="Make the credit note"
      look="btn-quiet"
    >
      {#if isOfSale}
        {#if waiting.length > 1}
          <label class="grid gap-1 font-[560]">
            For
            <select class="select min-h-12 w-full" bind:value={typed.which}>
              {#each waiting as each (each.id)}
                <option value={each.id}
                  >{each.is === 'void' ? `void of ${each.number}` : each.number}</option
                >
              {/each}
            </select>
          </label>
        {:else}
          <p>
            {waiting[0]?.is === 'void'
              ? `${waiting[0].number} was voided.`
              : `${waiting[0]?.number ?? ''} came back.`}
          </p>
        {/if}
      {:else}
        {#each invoice.lines as line, at (at)}
          {#if (left[at] ?? 0) > 0}
            <Field
              label={`How many of ${line.name}`}
              value={typed.many[at] ?? ''}
              oninput={(event) => (typed.many[at] = event.currentTarget.value)}
              inputmode="decimal"
              at={`lines.${String(at)}`}
            />
          {/if}
        {/each}
      {/if}
      <Field label="Why" bind:value={typed.reason} at="reason" maxlength={200} autocomplete="off" />
    </StallForm>
  </section>
{/if}
