<script lang="ts">
  /** What can be done with a list now: approve it, end it, print it, send it. */
  import { toast } from 'svelte-sonner';
  import { goto } from '$app/navigation';
  import type { Row } from '$lib/core/books/tables';
  import { isOpen, listRight, type LineNow, type ListState } from '$lib/core/stock/list-state';
  import { listPaper, orderLetter, type ListDocument } from '$lib/core/stock/list-paper';
  import {
    approveList,
    endList,
    mailList,
    redraftList,
    type ListOutcome,
  } from '$lib/core/stock/set-list';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { mailedWords } from '$lib/ui/words/receipt-words';
  import { listRefusalWords } from '$lib/ui/words/stock-words';
  import RightButton from '../../../RightButton.svelte';
  import { useStall } from '../../../stall.svelte';
  import { wholeList, type Goods } from '../../goods.svelte';
  import { mailAddress } from '$lib/ui/files/mail-to';
  import { saveFile } from '$lib/ui/files/save-file';
  import { canShare, shareFile } from '$lib/ui/files/share-file';
  import type { PaperShape } from '$lib/paper/document-pdf';
  import { saveListFile } from '../list-file';

  interface Props {
    list: Row<'lists'>;
    lines: readonly LineNow[];
    /** How far it is. */
    stands: ListState;
    goods: Goods;
  }
  const { list, lines, stands, goods }: Props = $props();
  const stall = useStall();
  let says = $state('');
  let why = $state('');
  let isEnding = $state(false);

  async function decide(
    command: (list: Row<'lists'>, lines: readonly LineNow[]) => ListOutcome,
    lentBy: string | undefined,
    done: string,
  ): Promise<void> {
    const outcome = await stall.daybook.decide(
      () => wholeList(stall, list),
      (found) => command(found.list, found.lines),
      lentBy === undefined ? {} : { lentBy },
    );
    if (outcome.ok) {
      says = '';
      toast(done);
    } else if (outcome.refusal.code !== 'slip/gone')
      says = listRefusalWords(outcome.refusal, goods.nameOf);
  }
  const approve = (lentBy?: string): Promise<void> =>
    decide((row, now) => approveList(newId, row, now), lentBy, 'It is approved.');
  const redraft = (lentBy?: string): Promise<void> =>
    decide((row, now) => redraftList(newId, row, now), lentBy, 'It is a draft again.');
  async function end(lentBy?: string): Promise<void> {
    const said = why;
    await decide((row, now) => endList(newId, row, now, said), lentBy, 'The list has ended.');
    if (says === '') isEnding = false;
  }
  const supplier = $derived(goods.suppliers.find(({ id }) => id === list.supplier));
  const document = $derived<ListDocument>({
    ...{ list, lines, business: stall.business, items: goods.items, supplies: goods.supplies },
    named: goods.named,
  });
  async function paperOf(shape: PaperShape): Promise<readonly [string, string, Uint8Array]> {
    const paper = listPaper(document);
    const { documentPdf } = await import('$lib/paper/document-pdf');
    return [`${paper.number}.pdf`, 'application/pdf', await documentPdf(paper, shape)];
  }
  const pdf = async (shape: PaperShape): Promise<void> => saveFile(...(await paperOf(shape)));
  async function share(): Promise<void> {
    says = await shareFile(...(await paperOf('sheet')), orderLetter(document));
  }
  /** In the mail program of this device, its PDF saved to be put with it. */
  async function mail(): Promise<void> {
    await pdf('sheet');
    location.href = mailAddress(supplier?.email ?? '', orderLetter(document));
  }
  /** How often the server has been asked to mail it. */
  const before = live(() => {
    const { id } = list;
    return () =>
      stall.db.books.listActs
        .where('list')
        .equals(id)
        .filter(({ does }) => does === 'mailed')
        .count();
  }, 0);
  const mailed = (lentBy?: string): Promise<void> =>
    decide(
      (row, now) => mailList(newId, row, now, { to: supplier?.email ?? '', before: before.value }),
      lentBy,
      mailedWords(supplier?.email ?? ''),
    );
</script>

<section class="sheet grid grid-cols-[minmax(0,1fr)] gap-3" aria-label="What can be done">
  {#if stands === 'draft'}
    <p class="soft">
      {list.use === 'order'
        ? 'A draft orders nothing yet.'
        : 'A draft keeps nothing back yet; once it is approved it can be packed.'}
    </p>
    <RightButton right={listRight(list)} label="Approve" onGo={approve} />
  {:else if stands === 'approved'}
    <RightButton right={listRight(list)} label="Back to a draft" look="btn-quiet" onGo={redraft} />
  {/if}
  <div class="flex flex-wrap gap-2">
    <button type="button" class="btn btn-quiet" onclick={() => pdf('sheet')}>PDF</button>
    <button type="button" class="btn btn-quiet" onclick={() => pdf('roll')}>On a roll</button>
    <button type="button" class="btn btn-quiet" onclick={() => saveListFile(document)}>CSV</button>
    {#if list.use === 'order' && supplier !== undefined && stands !== 'draft'}
      {#if supplier.email !== '' && isOpen(stands)}
        <RightButton
          right="order.approve"
          label="Mail it to {supplier.name}{before.value > 0 ? ' again' : ''}"
          look="btn-quiet"
          onGo={mailed}
        />
      {/if}
      <button type="button" class="btn btn-quiet" onclick={mail}>In my own mail program</button>
      {#if canShare()}
        <button type="button" class="btn btn-quiet" onclick={share}>Share its PDF</button>
      {/if}
    {/if}
    {#if list.use === 'load' && list.event !== null && !isOpen(stands)}
      <button
        type="button"
        class="btn btn-quiet"
        onclick={() => goto(`/stock/lists/new?use=unload&event=${list.event ?? ''}`)}
        >Unload list</button
      >
    {/if}
  </div>
  {#if isOpen(stands)}
    {#if isEnding}
      <label class="grid gap-1 font-[560]">
        Why
        <input class="input w-full" bind:value={why} maxlength="200" autocomplete="off" />
      </label>
      <div class="flex flex-wrap gap-2">
        <RightButton
          right={stands === 'draft' ? null : listRight(list)}
          label={stands === 'in part' ? 'Close it short' : 'Call it off'}
          look="btn-quiet"
          onGo={end}
        />
        <button type="button" class="btn btn-quiet" onclick={() => (isEnding = false)}>Back</button>
      </div>
    {:else}
      <button
        type="button"
        class="btn btn-quiet justify-self-start"
        onclick={() => (isEnding = true)}
        >{stands === 'in part' ? 'Close it short …' : 'Call it off …'}</button
      >
    {/if}
  {/if}
  {#if says !== ''}<p class="text-error" role="alert">{says}</p>{/if}
</section>
