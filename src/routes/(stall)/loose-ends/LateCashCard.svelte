<script lang="ts">
  import {
    lateCashes,
    lateCashName,
    settleLateCash,
    type LateCash,
  } from '$lib/core/loose-end/late-cash';
  import { readNumber } from '$lib/core/sale/sale-number';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { settleRefusalWords } from '$lib/ui/words/loose-end-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';
  import HandOver from './HandOver.svelte';

  interface Props {
    late: LateCash;
  }
  const { late }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  let reason = $state('');
  let wrong = $state('');
  const event = $derived(stall.events.find(({ id }) => id === late.drawer.event));
  const device = $derived(stall.devices.find(({ id }) => id === late.read.device));
  const difference = $derived(late.read.difference - late.amount);

  async function settle(lentBy?: string): Promise<void> {
    const said = reason;
    const { drawer } = late;
    // As it is when it is written: another window may have been faster, and more may have come.
    const outcome = await stall.daybook.decide(
      async () => ({
        sums: await books.drawerSums.toArray(),
        reads: await books.drawerReads.where('drawer').equals(drawer.id).toArray(),
      }),
      ({ sums, reads }) => settleLateCash(newId, lateCashes([drawer], sums, reads)[0], said),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong =
      outcome.ok || outcome.refusal.code === 'slip/gone' ? '' : settleRefusalWords(outcome.refusal);
    await stall.daybook.settle();
  }
</script>

<article class="sheet border-accent grid gap-3 border-l-8" aria-label="Late cash">
  <div>
    <h2>{late.drawer.name} was counted before all of its cash was known</h2>
    <p>
      {stall.money.text(Math.abs(late.amount))}
      {late.amount > 0 ? 'more' : 'less'} should have been in it at {event?.name ?? 'an event'} than final
      read {readNumber(device?.number ?? 0, late.read.number)} knew of: a device sent later, or cash was
      given back since. The read stays as it is; with this it was
      {difference === 0 ? 'right' : stall.money.off(difference)}.
    </p>
  </div>
  <Field label="What came of it" bind:value={reason} maxlength={500} isWrong={wrong !== ''} />
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  <div class="flex flex-wrap gap-2">
    <RightButton
      right="count.accept"
      label="Call it a difference of the drawer"
      look="btn-quiet"
      onGo={settle}
    />
    <HandOver looseEnd={lateCashName(late)} />
  </div>
</article>
