<script lang="ts">
  /** Makers' statements: what their goods brought, what is kept, what they are owed; as PDF and CSV; mailed; paid out. */
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import type { MakerSettled } from '$lib/core/settle/people';
  import { makerLetter, makerPaper, type MakerStatement } from '$lib/core/settle/maker-statement';
  import { mailStatement, payOut, type PayOut } from '$lib/core/settle/settle-event';
  import { documentPdf } from '$lib/paper/document-pdf';
  import { newId } from '$lib/device/new-id';
  import { saveFile } from '$lib/ui/files/save-file';
  import { canShare, shareFile } from '$lib/ui/files/share-file';
  import { mailedWords } from '$lib/ui/words/receipt-words';
  import { settleEventWords, type SettleNames } from '$lib/ui/words/settle-words';
  import RightButton from '../../../RightButton.svelte';
  import { useStall } from '../../../stall.svelte';
  import { saveMakersFile } from './makers-file';
  import { useSettling } from './settling.svelte';

  interface Props {
    event: Row<'events'>;
    makers: readonly MakerSettled[];
    names: SettleNames;
  }
  const { event, makers, names }: Props = $props();
  const stall = useStall();
  const asked = useSettling();
  const money = $derived(stall.money);
  const isBack = $derived(makers.some(({ cameBack }) => cameBack !== 0));
  let wrong = $state('');

  const of = (maker: MakerSettled): MakerStatement => ({
    ...{ maker, event, business: stall.business },
    ...{ name: names.maker(maker.maker), unit: names.unit },
  });
  async function mail(maker: MakerSettled, lentBy?: string): Promise<void> {
    const to = names.makerEmail(maker.maker);
    const asking = () => mailStatement(newId, event.id, maker, to);
    wrong = await asked.write(asking, settleEventWords, lentBy);
    if (wrong === '') toast(mailedWords(to));
  }
  const pdfName = ({ maker }: MakerSettled): string =>
    `Statement ${names.maker(maker)} ${event.short}.pdf`;
  const pdf = (maker: MakerSettled): Promise<Uint8Array> =>
    documentPdf(makerPaper(of(maker)), 'sheet');
  const save = async (maker: MakerSettled): Promise<void> =>
    saveFile(pdfName(maker), 'application/pdf', await pdf(maker));
  async function share(maker: MakerSettled): Promise<void> {
    const bytes = await pdf(maker);
    wrong = await shareFile(pdfName(maker), 'application/pdf', bytes, makerLetter(of(maker)));
  }
</script>

{#if makers.length > 0}
  <section class="sheet grid gap-3" aria-labelledby="makers">
    <div class="flex flex-wrap items-baseline justify-between gap-3">
      <h2 id="makers">Makers</h2>
      <button
        type="button"
        class="btn btn-quiet"
        onclick={() => saveMakersFile(makers, { names, event })}>All as CSV</button
      >
    </div>
    <table class="rows" data-testid="makers">
      <thead
        ><tr
          ><th scope="col">Maker</th><th scope="col">Sold</th>{#if isBack}<th scope="col"
              >Brought back</th
            >{/if}<th scope="col">Kept</th><th scope="col">To pay</th><th scope="col">Paid</th></tr
        ></thead
      >
      <tbody>
        {#each makers as each (each.maker)}
          <tr>
            <td>{names.maker(each.maker)}</td>
            <td class="figure">{money.figure(each.sold + each.cameBack)}</td>
            {#if isBack}<td class="figure">{money.figure(each.cameBack)}</td>{/if}
            <td class="figure">{money.figure(each.commission)}</td>
            <td class="figure">{money.figure(each.toPay)}</td>
            <td class="figure">{money.figure(each.paid)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#each makers as each (each.maker)}
      <div class="flex flex-wrap items-center gap-2">
        <button type="button" class="btn btn-quiet" onclick={() => save(each)}
          >Statement of {names.maker(each.maker)}</button
        >
        {#if names.makerEmail(each.maker) !== ''}
          <RightButton
            right="event.settle"
            label="Mail it to {names.makerEmail(each.maker)}{each.mailed > 0 ? ' again' : ''}"
            look="btn-quiet"
            onGo={(lentBy) => mail(each, lentBy)}
          />
        {/if}
        {#if canShare()}
          <button type="button" class="btn btn-quiet" onclick={() => share(each)}
            >Share its PDF</button
          >
        {/if}
        {#if each.toPay > each.paid}
          <RightButton
            right="event.settle"
            label="Pay {money.text(each.toPay - each.paid)} from the bank"
            look="btn-quiet"
            onGo={async (lentBy) => {
              const owed = each.toPay - each.paid;
              const paid: PayOut = {
                newId,
                event: event.id,
                for: 'maker',
                whom: each.maker,
                from: 'bank',
                ...{ what: 'goods sold', typed: money.plain(owed), currency: money.currency, owed },
              };
              wrong = await asked.write(() => payOut(paid), settleEventWords, lentBy);
            }}
          />
        {/if}
      </div>
    {/each}
    {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  </section>
{/if}
