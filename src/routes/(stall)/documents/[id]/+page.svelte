<script lang="ts">
  /** A document that has no other page: what it says, and on paper again. */
  import { page } from '$app/state';
  import type { PaperShape } from '$lib/paper/document-pdf';
  import { asked } from '$lib/device/asked.svelte';
  import { live } from '$lib/device/live.svelte';
  import { notePrinted } from '$lib/device/printer/printed';
  import { saveFile } from '$lib/ui/files/save-file';
  import { wayNameOf } from '$lib/ui/words/way-words';
  import { Goods } from '../../stock/goods.svelte';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { useStall } from '../../stall.svelte';
  import { askDocument } from '$lib/device/older-document';
  import { foundOf, ownDocument, paperOf, type Found } from './document';

  const stall = useStall();
  const goods = new Goods(stall);
  const found = live(() => {
    const id = page.params.id ?? '';
    return () => ownDocument(stall.db, id);
  }, null);
  /** What is long past is asked of the server. */
  const asks = asked<Awaited<ReturnType<typeof askDocument>> | 'asking'>(() => {
    const id = page.params.id ?? '';
    if (!found.isRead || found.value !== null) return null;
    return { of: id, ask: () => askDocument(stall.transport, id) };
  }, 'asking');
  const older = $derived(asks.value);
  const shown = $derived<Found | null>(
    found.value ??
      (older === 'asking' || older.is === 'nowhere' || older.is === 'away' ? null : foundOf(older)),
  );
  const paper = $derived(
    shown === null
      ? null
      : paperOf(shown, {
          business: stall.business,
          money: stall.money,
          person: (id) => stall.nameOf(id),
          event: (id) => stall.events.find((each) => each.id === id)?.name ?? 'an event',
          way: (id) => wayNameOf(id, stall.wayRows),
          place: (id) => goods.placeName(id),
          item: (id) => ({ name: goods.nameOf(id), unit: goods.unitOf(id) }),
        }),
  );
  async function pdf(shape: PaperShape): Promise<void> {
    if (paper === null) return;
    const { documentPdf } = await import('$lib/paper/document-pdf');
    const isAgain = await notePrinted(stall.db, page.params.id ?? '');
    const again = isAgain ? { ...paper, foot: `${paper.foot} Printed again.`.trim() } : paper;
    const name = `${paper.title} ${paper.number}`.trim();
    saveFile(`${name}.pdf`, 'application/pdf', await documentPdf(again, shape));
  }
</script>

<div class="page page-text gap-5">
  {#if paper !== null}
    <h1>{paper.title} {paper.number}</h1>
    <section class="sheet grid gap-3" aria-label="Document" data-testid="document">
      <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        {#each paper.facts as [label, value] (label)}
          <dt class="soft">{label}</dt>
          <dd class="break-words">{value}</dd>
        {/each}
      </dl>
      {#if paper.rows.length > 0}
        <table class="rows">
          <thead
            ><tr
              >{#each paper.columns as { head } (head)}<th scope="col">{head}</th>{/each}</tr
            ></thead
          >
          <tbody>
            {#each paper.rows as row, n (n)}
              <tr
                >{#each row as cell, at (at)}<td class={[paper.columns[at]?.isFigure && 'figure']}
                    >{cell}</td
                  >{/each}</tr
              >
            {/each}
          </tbody>
        </table>
      {/if}
      <div class="flex flex-wrap gap-2">
        <button type="button" class="btn btn-quiet" onclick={() => pdf('sheet')}>PDF</button>
        <button type="button" class="btn btn-quiet" onclick={() => pdf('roll')}>On a roll</button>
      </div>
    </section>
  {:else if found.isRead}
    <p class="sheet" role="status">
      {#if older === 'asking'}This document is not on this device; asking the server …
      {:else if older.is === 'away'}This document is not on this device. {wrongOf(
          older.asked,
          'There is no network to ask the server for it.',
        )}
      {:else}There is no such document.{/if}
      <a class="plain" href="/find">Find another</a>
    </p>
  {/if}
</div>
