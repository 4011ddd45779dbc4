<script lang="ts">
  /** What fits beside sales, of the kinds that are asked for. */
  import type { DocumentKind, FoundDocument } from '$lib/core/find/documents';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { kindWords } from '$lib/ui/words/find-words';
  import { useStall } from '../stall.svelte';
  import { Later } from './later.svelte';

  interface Props {
    documents: readonly FoundDocument[];
    only: DocumentKind | 'sale' | '';
    /** The first of something else are being painted. */
    isBehind: boolean;
  }
  const { documents, only, isBehind }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const shown = new Later(
    () => documents.filter(({ kind }) => only === '' || kind === only),
    () => isBehind,
  );
  const LIST = 'grid max-w-3xl grid-cols-[minmax(0,1fr)] gap-2 [&[hidden]]:hidden';
</script>

{#snippet row({ kind, href, number, title, about, at, amount }: FoundDocument)}
  <li>
    <a
      {href}
      data-found
      class="sheet grid grid-cols-[auto_minmax(0,1fr)_auto] items-baseline gap-x-4"
    >
      <b class={number === '' ? '' : 'code'}>{number === '' ? kindWords[kind].one : number}</b>
      <span class="truncate">{title}</span>
      <span class="amount">{amount === null ? '' : money.text(amount)}</span>
      <span></span>
      <span class="soft text-sm">
        {[
          number === '' ? '' : kindWords[kind].one,
          at === '' ? '' : shortDayWords(at.slice(0, 10), stall.business.locale),
          ...about,
        ]
          .filter((part) => part !== '')
          .join(' · ')}
      </span>
    </a>
  </li>
{/snippet}

{#if shown.first.length > 0}
  <div class={LIST} data-testid="found-documents">
    <ul class={LIST} aria-label="Other documents">
      {#each shown.first as each (`${each.kind} ${each.id}`)}{@render row(each)}{/each}
    </ul>
    {#if shown.rest.length > 0}
      <ul class={LIST} aria-label="More documents" hidden={isBehind}>
        {#each shown.rest as each (`${each.kind} ${each.id}`)}{@render row(each)}{/each}
      </ul>
    {/if}
  </div>
{/if}
