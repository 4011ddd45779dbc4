<script lang="ts">
  /** Cash in between: a running read of each drawer, and what goes in and out. */
  import { live } from '$lib/device/live.svelte';
  import DrawerFormula from '$lib/ui/cash/DrawerFormula.svelte';
  import { useStall } from '../stall.svelte';
  import AskToSee from './AskToSee.svelte';
  import CashForm from './CashForm.svelte';
  import CashList from './CashList.svelte';

  const stall = useStall();
  const { books } = stall.db;
  const sums = live(() => () => books.drawerSums.toArray(), []);
  let lender = $state<string | null>(null);
  let made = $state(0);
  const isShown = $derived(stall.seesCash(lender));
</script>

<div class="page gap-5">
  <h1>Cash in and out</h1>
  {#if stall.event === undefined}
    <p class="sheet max-w-xl">
      No event is on today; cash is noted at one. <a class="plain" href="/">Today</a>
    </p>
  {:else}
    <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[1.3fr_1fr]">
      <section class="sheet" aria-label="Note cash in between">
        {#key made}<CashForm onDone={() => (made += 1)} />{/key}
      </section>
      <div class="grid grid-cols-[minmax(0,1fr)] gap-4">
        <section class="sheet grid gap-3" aria-labelledby="running">
          <h2 id="running">Running read</h2>
          {#if stall.openDrawers.length === 0}
            <p class="soft">No drawer is open.</p>
          {:else if isShown}
            {#each stall.openDrawers as drawer (drawer.id)}
              <div>
                <b>{drawer.name}</b>
                <DrawerFormula
                  money={stall.money}
                  {drawer}
                  sums={sums.value.find((row) => row.drawer === drawer.id)}
                />
              </div>
            {/each}
            <p class="soft text-sm">
              By what this device knows now; what others have not sent is not in it.
            </p>
          {:else}
            <AskToSee onLent={(id) => (lender = id)} />
          {/if}
        </section>
        <CashList event={stall.event} />
      </div>
    </div>
  {/if}
</div>
