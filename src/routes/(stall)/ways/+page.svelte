<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { allWays } from '$lib/core/payment/ways';
  import { orderWays } from '$lib/core/payment/set-way';
  import { newId } from '$lib/device/new-id';
  import { moved } from '$lib/ui/forms/moved';
  import { wayLine } from '$lib/ui/words/way-words';
  import MoveButtons from '../MoveButtons.svelte';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const ways = $derived(allWays(stall.wayRows));

  async function move(from: number, to: number): Promise<void> {
    if (!stall.may('set-up')) {
      toast.error('Only somebody who may change goods and events can move ways to pay.');
      return;
    }
    const next = moved(ways, from, to);
    await stall.daybook.append(() => ({ ok: true, drafts: orderWays(newId, next) }));
  }
</script>

<div class="page page-text gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Ways to pay</h1>
    <a class="btn btn-main px-6" href="/ways/new">Add a way to pay</a>
  </div>
  <p class="soft">
    In this order they stand when payment is taken. An event can open some of them and leave out
    others.
  </p>
  <ul class="sheet grid gap-1" data-testid="ways">
    {#each ways as way, at (way.id)}
      <li class="flex flex-wrap items-center gap-2">
        <a
          class={[
            'hover:bg-base-200 grid min-h-14 min-w-0 flex-[1_1_14rem] content-center rounded-lg px-3 py-2',
            !way.isActive && 'border-base-300 border border-dashed',
          ]}
          href="/ways/{way.id}"
        >
          <b class="text-lg">{way.name}</b>
          <span class="soft">{wayLine(way, stall.money)}</span>
        </a>
        <MoveButtons name={way.name} {at} count={ways.length} onmove={(to) => move(at, to)} />
      </li>
    {/each}
  </ul>
</div>
