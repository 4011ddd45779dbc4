<script lang="ts">
  /** The documents behind a row, the latest first; each opens into itself. */
  import { behindPageSchema, type Behind, type BehindDocument } from '$lib/core/settle/behind-row';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { quantityWords } from '$lib/ui/words/money-words';
  import type { SettleNames } from '$lib/ui/words/settle-words';
  import { useStall } from '../../../stall.svelte';

  interface Props {
    event: string;
    of: Behind;
    id: string;
    names: SettleNames;
  }
  const { event, of, id, names }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  let documents = $state.raw<readonly BehindDocument[] | null>(null);
  let next = $state('');
  let says = $state('');

  async function ask(after: string): Promise<void> {
    const query = new URLSearchParams({ of, id, after });
    const asked = await stall.transport.ask(
      `/api/events/${event}/behind?${query.toString()}`,
      behindPageSchema,
    );
    if (asked.came === 'answer') {
      documents = [...(after === '' ? [] : (documents ?? [])), ...asked.answer.documents];
      next = asked.answer.next;
      says = '';
    } else says = wrongOf(asked, 'No network now; the documents are on the server.');
  }
  $effect(() => {
    void [event, of, id];
    void ask('');
  });
</script>

{#if says !== ''}<p class="soft text-sm" role="status">{says}</p>{/if}
{#if documents !== null}
  <ul class="grid text-sm" data-testid="behind" aria-label="Documents behind it">
    {#each documents as each, at (at)}
      <li
        class="border-base-300 flex flex-wrap items-center justify-between gap-x-3 border-b last:border-0"
      >
        {#if each.sale === null}
          <span class="py-3"
            >{each.number === ''
              ? 'Not rung up'
              : each.amount < 0
                ? `${each.number}, given back without a sale`
                : `${each.number}, not rung up`}</span
          >
        {:else}
          <a class="plain inline-block min-h-12 min-w-16 content-center" href="/sales/{each.sale}"
            >{each.number}</a
          >
        {/if}
        <span class="soft min-w-0 flex-1 break-words"
          >{names.moment(each.at)} · {stall.nameOf(each.by)}{each.isBack
            ? ' · taken back'
            : ''}</span
        >
        {#if each.quantity !== null}
          <span class="figure">{quantityWords(each.quantity, names.unit(id))}</span>
        {/if}
        <span class={['figure', each.isBack && 'line-through']}>{money.figure(each.amount)}</span>
      </li>
    {:else}
      <li class="soft py-2">No sales are behind it.</li>
    {/each}
  </ul>
  {#if next !== ''}
    <button type="button" class="btn btn-quiet mt-2" onclick={() => ask(next)}>Older ones</button>
  {/if}
{/if}
