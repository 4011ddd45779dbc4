<script lang="ts">
  /** Tips: how they are shared, who would get what, and paying them out. */
  import type { Settling } from '$lib/core/settle/settling';
  import { payOut, shareOutTips, tipShares, type PayOut } from '$lib/core/settle/settle-event';
  import { TIP_SHARES, type TipShare } from '$lib/core/settle/share-tips';
  import { newId } from '$lib/device/new-id';
  import { settleEventWords, type SettleNames } from '$lib/ui/words/settle-words';
  import RightButton from '../../../RightButton.svelte';
  import { useStall } from '../../../stall.svelte';
  import { useSettling } from './settling.svelte';

  interface Props {
    event: string;
    settling: Settling;
    names: SettleNames;
  }
  const { event, settling, names }: Props = $props();
  const stall = useStall();
  const asked = useSettling();
  const money = $derived(stall.money);
  let how = $state<TipShare>('hours');
  let wrong = $state('');
  const HOW: Readonly<Record<TipShare, string>> = {
    hours: 'By hours on duty',
    equally: 'Equally',
    taken: 'To who took them',
  };
  const shares = $derived.by(() => {
    try {
      return tipShares(how, settling);
    } catch {
      // Said when it is tried: nobody was on duty.
      return null;
    }
  });
</script>

<section class="sheet grid gap-3" aria-labelledby="tips">
  <h2 id="tips">Tips</h2>
  {#if settling.tips.taken === 0}
    <p class="soft">None were given.</p>
  {:else}
    <p>{money.text(settling.tips.taken)} were taken in tips.</p>
    {#if settling.tips.open.length > 0}
      <div class="flex flex-wrap gap-2" role="group" aria-label="How tips are shared">
        {#each TIP_SHARES as each (each)}
          <button
            type="button"
            class={['btn btn-quiet', how === each && '!border-primary !border-3']}
            aria-pressed={how === each}
            onclick={() => (how = each)}>{HOW[each]}</button
          >
        {/each}
      </div>
      <table class="rows" data-testid="tip-shares">
        <thead
          ><tr><th scope="col">Who</th><th scope="col">On duty</th><th scope="col">Gets</th></tr
          ></thead
        >
        <tbody>
          {#each shares ?? [] as share (share.person)}
            {@const minutes =
              settling.minutes.find(({ person }) => person === share.person)?.minutes ?? 0}
            <tr>
              <td>{names.person(share.person)}</td>
              <td class="figure"
                >{minutes === 0 ? '' : `${Math.floor(minutes / 60)} h ${minutes % 60} min`}</td
              >
              <td class="figure">{money.figure(share.amount)}</td>
            </tr>
          {:else}
            <tr
              ><td colspan="3" class="soft"
                >{shares === null
                  ? 'Nobody was on duty, so hours say nothing; share them another way.'
                  : 'Nobody to share them between.'}</td
              ></tr
            >
          {/each}
        </tbody>
      </table>
      <RightButton
        right="event.settle"
        label="Share them so"
        look="btn-quiet"
        onGo={async (lentBy) => {
          const now = settling;
          const command = { newId, event, how, settling: now };
          wrong = await asked.write(() => shareOutTips(command), settleEventWords, lentBy);
        }}
      />
    {:else}
      <ul class="grid gap-2" data-testid="tips-owed">
        {#each settling.tips.owed as { person, amount } (person)}
          <li class="flex flex-wrap items-center justify-between gap-3">
            <span>{names.person(person)} is owed <b>{money.text(amount)}</b></span>
            <RightButton
              right="event.settle"
              label="Pay {money.text(amount)} from the safe"
              look="btn-quiet"
              onGo={async (lentBy) => {
                const paid: PayOut = {
                  newId,
                  event,
                  for: 'tips',
                  whom: person,
                  from: 'safe',
                  what: 'tips',
                  ...{ typed: money.plain(amount), currency: money.currency, owed: amount },
                };
                wrong = await asked.write(() => payOut(paid), settleEventWords, lentBy);
              }}
            />
          </li>
        {:else}
          <li class="soft">All of it is paid out.</li>
        {/each}
      </ul>
    {/if}
  {/if}
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
</section>
