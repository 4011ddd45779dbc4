<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { aboutEntry } from '$lib/core/daybook/about-entry';
  import type { Settlement } from '$lib/core/daybook/kinds/loose-end-settled';
  import {
    recordOf,
    settleKept,
    waysToSettle,
    type KeptEntry,
  } from '$lib/core/loose-end/kept-entry';
  import { newId, newSalt } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { shortDayWords, timeWords } from '$lib/ui/words/date-words';
  import {
    kindInWords,
    settleRefusalWords,
    settleWords,
    stateWords,
  } from '$lib/ui/words/loose-end-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';
  import HandOver from './HandOver.svelte';

  interface Props {
    kept: KeptEntry;
    settlements: readonly Row<'settlements'>[];
  }
  const { kept, settlements }: Props = $props();
  const stall = useStall();
  const { entry } = $derived(kept);
  const device = $derived(stall.devices.find(({ id }) => id === entry.device));
  const { locale } = $derived(stall.business);
  const about = $derived(aboutEntry(entry, (amount) => stall.money.text(amount)));
  let reason = $state('');
  let wrong = $state('');

  async function settle(how: Settlement, lentBy?: string): Promise<void> {
    const record = recordOf(entry);
    const standing =
      record === null
        ? undefined
        : ((await stall.db.table(record.table).get(record.id)) as
            | Readonly<Record<string, unknown>>
            | undefined);
    const outcome = await stall.daybook.append(
      () => settleKept({ newId, newSalt, kept, how, reason, standing, settlements }),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong =
      outcome.ok || outcome.refusal.code === 'slip/gone' ? '' : settleRefusalWords(outcome.refusal);
  }
</script>

<article class="sheet border-accent grid gap-3 border-l-8" aria-label={kindInWords(entry.kind)}>
  <div>
    <h2>{stateWords[kept.state]}</h2>
    <p>
      {kindInWords(entry.kind)}{about === '' ? '' : `: ${about}`}
    </p>
    <p class="soft text-sm">
      {stall.nameOf(entry.by)}, {shortDayWords(entry.at.slice(0, 10), locale)}
      {timeWords(entry.at, locale, stall.business.timeZone)}, on {device === undefined
        ? 'a device'
        : `D${String(device.number)} ${device.name}`}
    </p>
    <p class="mt-2">{kept.message}</p>
  </div>
  <Field label="Why it is settled so" bind:value={reason} maxlength={500} isWrong={wrong !== ''} />
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  <div class="flex flex-wrap gap-2">
    {#each waysToSettle(kept) as how (how)}
      <RightButton
        right="set-up"
        label={settleWords[how]}
        look="btn-quiet"
        onGo={(lentBy) => settle(how, lentBy)}
      />
    {/each}
    <HandOver looseEnd="entry:{entry.id}" />
  </div>
</article>
