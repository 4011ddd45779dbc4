<!-- An invoice as a PDF, as UBL, and by mail. -->
<script lang="ts">
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { ublOf } from '$lib/core/formats/ubl';
  import { askInvoice } from '$lib/core/invoice/ask-invoice';
  import { invoicePaper, mailOf, type InvoiceDocument } from '$lib/core/invoice/invoice-paper';
  import { newId, newSalt } from '$lib/device/new-id';
  import { documentPdf } from '$lib/paper/document-pdf';
  import Field from '$lib/ui/forms/Field.svelte';
  import { saveFile } from '$lib/ui/files/save-file';
  import { ublFaultWords } from '$lib/ui/words/invoice-words';
  import { useStall } from '../../stall.svelte';

  interface Props {
    invoice: Row<'invoices'>;
    /** The same, or the one that it credits. */
    of: Row<'invoices'>;
    number: string;
    ofNumber: string;
    customer: Row<'customers'> | undefined;
  }
  const { invoice, of, number, ofNumber, customer }: Props = $props();
  const stall = useStall();
  const document = $derived.by((): InvoiceDocument | null => {
    const { vendor, buyer, issued } = of;
    if (vendor === null) return null;
    const { locale, currency } = stall.business;
    return {
      ...{ invoice, number, vendor, buyer, locale, currency },
      credits: invoice.credits === null ? undefined : { number: ofNumber, issued },
    };
  });
  const ubl = $derived(
    document === null ? null : ublOf({ ...document, business: stall.business.id }),
  );
  // svelte-ignore state_referenced_locally
  let to = $state(mailOf(of, customer));
  let wrong = $state('');
  let isMailing = $state(false);

  async function savePdf(): Promise<void> {
    if (document === null) return;
    const paper = invoicePaper(document);
    const pdf = await documentPdf(paper, 'sheet');
    saveFile(`${paper.title} ${paper.number}.pdf`, 'application/pdf', pdf);
  }

  async function mail(): Promise<void> {
    if (isMailing) return;
    isMailing = true;
    const made = await stall.daybook.append(() =>
      askInvoice({ newId, newSalt, invoice, to, event: null }),
    );
    isMailing = false;
    wrong = made.ok ? '' : `“${to}” is no mail address; write one such as name@example.org.`;
    if (!made.ok) return;
    await stall.daybook.settle();
    toast(
      number === ''
        ? 'It is mailed as soon as it has its number.'
        : 'It is mailed as soon as there is network.',
    );
  }
</script>

{#if document !== null}
  <div class="flex flex-wrap items-center gap-2">
    <button type="button" class="btn btn-quiet" onclick={savePdf}>Save as a PDF</button>
    {#if ubl?.ok === true}
      {@const { xml } = ubl}
      <button
        type="button"
        class="btn btn-quiet"
        onclick={() => saveFile(`${number}.xml`, 'application/xml', xml)}>Save as UBL</button
      >
    {:else if ubl !== null}
      <span class="soft">{ublFaultWords(ubl.fault)}</span>
    {/if}
  </div>
  {#if of.buyer !== null}
    <form
      class="flex flex-wrap items-end gap-3"
      aria-label="Mail it"
      onsubmit={(event) => {
        event.preventDefault();
        void mail();
      }}
    >
      <div class="min-w-52 flex-1">
        <Field label="Mail it to" type="email" bind:value={to} autocomplete="off" />
      </div>
      <button class="btn btn-quiet" disabled={isMailing}>Mail it</button>
    </form>
    {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  {/if}
{/if}
