<script lang="ts">
  import { settleLateCount, type LateCount } from '$lib/core/loose-end/late-count';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { settleRefusalWords } from '$lib/ui/words/loose-end-words';
  import { quantityWords } from '$lib/ui/words/money-words';
  import RightButton from '../RightButton.svelte';
  import { Goods } from '../stock/goods.svelte';
  import { useStall } from '../stall.svelte';
  import HandOver from './HandOver.svelte';

  interface Props {
    late: LateCount;
  }
  const { late }: Props = $props();
  const stall = useStall();
  const goods = new Goods(stall);
  let reason = $state('');
  let wrong = $state('');
  const much = $derived(quantityWords(Math.abs(late.by), goods.unitOf(late.accepted.item)));

  async function settle(isPutRight: boolean, lentBy?: string): Promise<void> {
    const said = reason;
    const outcome = await stall.daybook.append(
      () =>
        settleLateCount({
          newId,
          late,
          isPutRight,
          item: goods.items.get(late.accepted.item),
          reason: said,
        }),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong =
      outcome.ok || outcome.refusal.code === 'slip/gone' ? '' : settleRefusalWords(outcome.refusal);
    await stall.daybook.settle();
  }
</script>

<article class="sheet border-accent grid gap-3 border-l-8" aria-label="A count with a late entry">
  <div>
    <h2>Something was heard of after it had been counted</h2>
    <p>
      {goods.nameOf(late.accepted.item)} at {goods.placeName(late.accepted.place)} was counted and accepted,
      and the books are {much}
      {late.by > 0 ? 'below' : 'above'} that. A device has sent since what it had written before, or it
      was accepted on two devices.
    </p>
  </div>
  <Field label="What came of it" bind:value={reason} maxlength={500} isWrong={wrong !== ''} />
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  <div class="flex flex-wrap gap-2">
    <RightButton
      right="count.accept"
      label={late.by > 0 ? `Put ${much} back` : `Take ${much} off`}
      look="btn-quiet"
      onGo={(lentBy) => settle(true, lentBy)}
    />
    <RightButton
      right="set-up"
      label="Leave it as it is"
      look="btn-quiet"
      onGo={(lentBy) => settle(false, lentBy)}
    />
    <HandOver looseEnd={late.looseEnd} />
  </div>
</article>
