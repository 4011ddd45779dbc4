<script lang="ts">
  /** What fits beside sales, of the kinds that are asked for. */
  import type { DocumentKind, FoundDocument } from '$lib/core/find/documents';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { kindWords } from '$lib/ui/words/find-words';
  import { useStall } from '../stall.svelte';

  interface Props {
    documents: readonly FoundDocument[];
    only: DocumentKind | 'sale' | '';
  }
  const { documents, only }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const shown = $derived(documents.filter(({ kind }) => only === '' || kind === only));
</script>

{#if shown.length > 0}
  <ul
    class="grid max-w-3xl grid-cols-[minmax(0,1fr)] gap-2"
    aria-label="Other documents"
    data-testid="found-documents"
  >
    {#each shown as { kind, id, href, number, title, about, at, amount } (`${kind} ${id}`)}
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
    {/each}
  </ul>
{/if}
