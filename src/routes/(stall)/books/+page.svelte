<script lang="ts">
  import { stageOf } from '$lib/core/event/stage';
  import { firstDay } from '$lib/core/event/todays-event';
  import { eventTotals } from '$lib/device/event-totals.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { useStall } from '../stall.svelte';
  import { counted } from '$lib/ui/words/money-words';

  const stall = useStall();
  const money = $derived(stall.money);
  const totals = eventTotals(stall.db);
  const most = $derived(
    Math.max(1, ...stall.events.map(({ id }) => totals.value.get(id)?.takings ?? 0)),
  );
</script>

<div class="page gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Books</h1>
    <span class="flex flex-wrap gap-2">
      <a class="btn btn-quiet px-5" href="/invoices">Invoices</a>
      <a class="btn btn-quiet px-5" href="/bank">The bank</a>
      <a class="btn btn-quiet px-5" href="/ledger">The ledger</a>
      <a class="btn btn-quiet px-5" href="/season">The season</a>
    </span>
  </div>
  <section class="sheet" aria-labelledby="events">
    <h2 id="events" class="mb-2">Events</h2>
    <ul>
      {#each stall.events as event (event.id)}
        {@const total = totals.value.get(event.id)}
        <li class="border-base-300 border-b last:border-0">
          <a
            href="/events/{event.id}"
            class="grid min-h-14 grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 gap-y-1 py-2"
          >
            <span
              ><b class="font-[600]">{event.name}</b>
              <span class="soft"
                >· {shortDayWords(firstDay(event), stall.business.locale)} · {stageOf(event)}</span
              ></span
            >
            <span class="amount text-right">{money.text(total?.takings ?? 0)}</span>
            <span class="bg-base-200 h-2 rounded-full" aria-hidden="true"
              ><span
                class="bg-primary block h-2 rounded-full"
                style:width="{(100 * (total?.takings ?? 0)) / most}%"
              ></span></span
            >
            <span class="soft text-right text-sm">{counted(total?.sales ?? 0, 'sale')}</span>
          </a>
        </li>
      {:else}
        <li class="soft py-3">Events show here with what they brought in, once there are any.</li>
      {/each}
    </ul>
  </section>
</div>
