<script lang="ts">
  import { voidedTwiceName, type VoidedTwice } from '$lib/core/loose-end/voided-twice';
  import { live } from '$lib/device/live.svelte';
  import { undoOnce } from '$lib/device/void-sale';
  import Field from '$lib/ui/forms/Field.svelte';
  import { timeWords } from '$lib/ui/words/date-words';
  import { settleRefusalWords } from '$lib/ui/words/loose-end-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';
  import HandOver from './HandOver.svelte';

  interface Props {
    twice: VoidedTwice;
  }
  const { twice }: Props = $props();
  const stall = useStall();
  const { locale, timeZone } = $derived(stall.business);
  const sale = live(() => {
    const id = twice.sale;
    return () => stall.db.books.sales.get(id);
  }, undefined);
  let reason = $state('');
  let wrong = $state('');
  let isBusy = false;

  async function settle(lentBy?: string): Promise<void> {
    if (isBusy) return;
    isBusy = true;
    try {
      const outcome = await undoOnce(stall.daybook, { sale: twice.sale, reason, lentBy });
      wrong =
        outcome.ok || outcome.refusal.code === 'slip/gone'
          ? ''
          : settleRefusalWords(outcome.refusal);
    } finally {
      isBusy = false;
    }
  }
</script>

<article class="sheet border-accent grid gap-3 border-l-8" aria-label="A sale voided twice">
  <div>
    <h2>
      The same sale was voided {twice.voids.length === 2
        ? 'twice'
        : `${String(twice.voids.length)} times`}
    </h2>
    <p>
      {#if sale.value !== undefined}
        <a class="plain" href="/sales/{twice.sale}"
          >{sale.value.number}, {stall.money.text(sale.value.total)}</a
        >
      {/if}
      was voided on devices that were out of touch, so it is taken off the books more than once. Taking
      the later ones back puts that right; if its money was given back twice as well, the drawer will
      say so.
    </p>
    <ul>
      {#each twice.voids as { id, at, by, reason: why } (id)}
        <li>
          {stall.nameOf(by)}: {why}
          <span class="soft">{timeWords(at, locale, timeZone)}</span>
        </li>
      {/each}
    </ul>
  </div>
  <Field label="What came of it" bind:value={reason} maxlength={200} isWrong={wrong !== ''} />
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  <div class="flex flex-wrap gap-2">
    <RightButton
      right="sale.void"
      label="Take the later ones back"
      look="btn-quiet"
      onGo={settle}
    />
    <HandOver looseEnd={voidedTwiceName(twice)} />
  </div>
</article>
