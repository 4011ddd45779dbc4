<script lang="ts">
  import { tick } from 'svelte';
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { askReceipt } from '$lib/core/receipt/ask-receipt';
  import { SIGNATURE_BOX, signaturePath } from '$lib/core/payment/signature';
  import { receiptOf, type ReceiptOf } from '$lib/core/receipt/receipt';
  import { paperLines } from '$lib/core/receipt/receipt-text';
  import { newId, newSalt } from '$lib/device/new-id';
  import { receiptPdf } from '$lib/device/receipt/pdf';
  import { paperCommands, paperPicture, type PaperWidth } from '$lib/device/receipt/paper';
  import { notePrinted, printedName } from '$lib/device/printer/printed';
  import { saveFile } from '$lib/ui/files/save-file';
  import Field from '$lib/ui/forms/Field.svelte';
  import { qrPath } from '$lib/ui/codes/qr-path';
  import { paperWords, receiptRefusalWords } from '$lib/ui/words/receipt-words';
  import { printerOf } from '../../print-receipt';
  import { useStall } from '../../stall.svelte';

  type Found = Pick<ReceiptOf, 'sale' | 'lines' | 'payments'> & {
    readonly email: string;
    readonly phone: string;
    readonly payers: readonly Row<'payers'>[];
    readonly customer: string;
    readonly voids: readonly Row<'voids'>[];
    readonly returns: readonly Row<'returns'>[];
  };
  interface Props {
    found: Found;
    /** Without prices, until somebody asks for the whole. */
    asGift: boolean;
  }
  const { found, asGift }: Props = $props();
  const stall = useStall();
  // svelte-ignore state_referenced_locally
  let isGift = $state(asGift);
  let isAgain = $state(false);
  let share = $state(0);
  let width = $state<PaperWidth>(80);
  let picture = $state('');
  // svelte-ignore state_referenced_locally
  let to = $state(found.email === '' ? found.phone : found.email);
  let wrong = $state('');
  const { sale } = $derived(found);
  const event = $derived(stall.events.find(({ id }) => id === sale.event));
  const shares = $derived([
    ...new Set(found.payments.flatMap((part) => (part.share === null ? [] : [part.share]))),
  ]);
  const receipt = $derived(
    receiptOf({
      ...found,
      business: stall.business,
      event,
      seller: sale.by === null ? '' : stall.nameOf(sale.by),
      isGift,
      isAgain,
      isVoid: found.voids.length > 0,
      ...(share === 0 ? {} : { share }),
    }),
  );
  const words = $derived(paperWords(sale, stall.business, event));
  /** Of the parts that this receipt is about. */
  const payers = $derived(
    found.payers.filter(({ id }) =>
      found.payments.some(
        (part) => part.id === id && !isGift && (share === 0 || part.share === share),
      ),
    ),
  );
  const lines = $derived(paperLines(receipt, words));
  const code = $derived(qrPath(`${receipt.number} ${receipt.check}`));

  // For printing by the system. Not before the page is there: a long one takes a while.
  $effect(() => {
    const of = [receipt, words, width] as const;
    let isOld = false;
    const timer = setTimeout(() => {
      void paperPicture(...of).then((svg) => {
        if (!isOld) picture = svg;
      });
    }, 250);
    return () => {
      isOld = true;
      clearTimeout(timer);
    };
  });
  const file = $derived(`${receipt.number}${isGift ? '-gift' : ''}`);

  /** On the receipt printer of this device, or by the system where it has none. */
  async function printIt(): Promise<void> {
    const printer = printerOf(stall);
    isAgain = await notePrinted(stall.db, printedName(sale.id, isGift, share));
    if (printer === null) {
      // As it is on the screen, with the word on it where it was printed before.
      picture = await paperPicture(receipt, words, width);
      await tick();
      print();
    } else await printer.print(receipt, words, width);
    isAgain = false;
    if (printer === null) return;
    toast(`It is printed by the ${printer.name.toLowerCase()}.`);
  }

  async function send(): Promise<void> {
    const { locale } = stall.business;
    const { id, customer } = sale;
    const asked = askReceipt({ newId, newSalt, sale: id, customer, to, locale, isGift });
    wrong = asked.ok ? '' : receiptRefusalWords(asked.refusal);
    if (!asked.ok) return;
    await stall.daybook.append(() => asked);
    const how = asked.way === 'email' ? 'by e-mail' : 'as a text message';
    toast(`The receipt goes ${how} to ${asked.to}, now or as soon as there is network.`);
  }
</script>

<article class="paper-shade mx-auto w-full max-w-md print:hidden" data-testid="receipt">
  <div class="paper torn-below p-5 pb-8">
    {#each lines as line, at (at)}
      {#if line.is === 'rule'}
        <hr class="border-base-300 my-2 border-dashed" />
      {:else if line.is === 'centre'}
        {#if at === 1}<h1 class="text-center text-2xl">{line.text}</h1>
        {:else}<p class={['text-center', line.look === 'small' && 'soft text-sm']}>
            {line.text}
          </p>{/if}
      {:else}
        <p
          class={[
            'flex items-baseline justify-between gap-3',
            line.look === 'small' && 'soft text-sm',
            line.look === 'large' && 'text-xl font-[650]',
          ]}
        >
          <span class={line.left.startsWith('  ') ? 'pl-4' : ''}>{line.left.trim()}</span>
          <span class="figure">{line.right}</span>
        </p>
      {/if}
    {/each}
    {#each payers as { id, strokes, name } (id)}
      <figure class="mt-3" data-testid="payer">
        {#if strokes.length > 0}<svg
            class="border-base-300 w-full border-b"
            viewBox="0 0 {SIGNATURE_BOX.width} {SIGNATURE_BOX.height}"
            role="img"
            aria-label="Signature"
            ><path
              d={signaturePath(strokes)}
              fill="none"
              stroke="currentColor"
              stroke-width="7"
              stroke-linecap="round"
              stroke-linejoin="round"
            /></svg
          >{/if}
        <figcaption class="soft text-sm">
          {strokes.length > 0 ? 'signed for the card' : `cheque of ${name}`}
        </figcaption>
      </figure>
    {/each}
    <svg
      class="mx-auto mt-3 size-28 bg-white p-2 text-black"
      viewBox={code.viewBox}
      role="img"
      aria-label="Code of this receipt: {receipt.number} {receipt.check}"
      shape-rendering="crispEdges"><path d={code.path} fill="currentColor" /></svg
    >
    <p class="code soft text-center text-sm">{receipt.number} {receipt.check}</p>
  </div>
</article>

<section class="sheet mx-auto grid w-full max-w-md gap-4 print:hidden" aria-label="Receipt">
  <div class="flex flex-wrap gap-2" role="group" aria-label="Of what">
    <button
      type="button"
      class={['btn btn-quiet', !isGift && share === 0 && '!border-primary !border-3']}
      aria-pressed={!isGift && share === 0}
      onclick={() => {
        isGift = false;
        share = 0;
      }}>The whole</button
    >
    {#each shares as each (each)}
      <button
        type="button"
        class={['btn btn-quiet', share === each && '!border-primary !border-3']}
        aria-pressed={share === each}
        onclick={() => {
          isGift = false;
          share = each;
        }}>Share {each}</button
      >
    {/each}
    <button
      type="button"
      class={['btn btn-quiet', isGift && '!border-primary !border-3']}
      aria-pressed={isGift}
      onclick={() => {
        isGift = true;
        share = 0;
      }}>Gift receipt</button
    >
  </div>
  <div class="flex flex-wrap items-end gap-2">
    <label class="grid gap-1 font-[560]">
      Paper
      <select class="select min-h-12" bind:value={width}>
        <option value={58}>58 mm</option>
        <option value={80}>80 mm</option>
      </select>
    </label>
    <button type="button" class="btn btn-main px-5" onclick={printIt}>Print</button>
    <button
      type="button"
      class="btn btn-quiet"
      onclick={async () =>
        saveFile(`${file}.svg`, 'image/svg+xml', await paperPicture(receipt, words, width))}
      >Picture</button
    >
    <button
      type="button"
      class="btn btn-quiet"
      onclick={async () =>
        saveFile(`${file}.pdf`, 'application/pdf', await receiptPdf(receipt, words))}>PDF</button
    >
    <button
      type="button"
      class="btn btn-quiet"
      onclick={async () =>
        saveFile(
          `${file}.escpos`,
          'application/octet-stream',
          await paperCommands(receipt, words, width),
        )}>ESC/POS file</button
    >
  </div>
  <form
    class="flex flex-wrap items-end gap-2"
    onsubmit={(event) => {
      event.preventDefault();
      void send();
    }}
  >
    <div class="min-w-48 flex-1">
      <Field
        label="Send it to an e-mail address or telephone"
        bind:value={to}
        autocomplete="off"
        isWrong={wrong !== ''}
      />
    </div>
    <button class="btn btn-quiet">Send it</button>
    {#if wrong !== ''}<p class="text-error basis-full" role="alert">{wrong}</p>{/if}
  </form>
</section>
<!-- What the paper shows; the printer of the system gets this and nothing else. -->
<div class="receipt-paper" data-paper={width} data-testid="paper" aria-hidden="true">
  <img src="data:image/svg+xml;utf8,{encodeURIComponent(picture)}" alt="" />
</div>

<style>
  .receipt-paper {
    display: none;
  }
  @media print {
    .receipt-paper {
      display: block;
    }
    .receipt-paper img {
      width: 80mm;
    }
    .receipt-paper[data-paper='58'] img {
      width: 58mm;
    }
  }
</style>
