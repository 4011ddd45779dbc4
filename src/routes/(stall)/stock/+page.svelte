<script lang="ts">
  import { BASE } from '$lib/core/books/tables';
  import { goodsOf, findItems } from '$lib/core/entry-line/find-items';
  import { isKnown } from '$lib/core/event/todays-event';
  import { live } from '$lib/device/live.svelte';
  import { leftWords, quantityWords } from '$lib/ui/words/money-words';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const { db } = stall;
  const items = live(() => () => db.books.items.toArray(), []);
  const at = (place: () => string | undefined) =>
    live(() => {
      const wanted = place();
      return async () =>
        new Map(
          wanted === undefined
            ? []
            : (await db.books.stock.where('place').equals(wanted).toArray()).map((row) => [
                row.item,
                row.quantity,
              ]),
        );
    }, new Map<string, number>());
  const base = at(() => BASE);
  const here = at(() => stall.event?.id);

  let typed = $state('');
  const stocked = $derived(
    items.value.filter((item) => isKnown(item) && item.isActive && item.isStocked),
  );
  const goods = $derived(goodsOf(stocked));
  const shown = $derived(
    typed.trim() === '' ? goods.names.map(({ item }) => item) : findItems(typed, goods),
  );
</script>

<div class="page gap-5">
  <h1>Stock</h1>
  <label class="grid max-w-md gap-1 font-[560]">
    Find an item
    <input class="input w-full" bind:value={typed} autocomplete="off" placeholder="name or code" />
  </label>
  <section class="sheet">
    <table class="rows">
      <thead>
        <tr
          ><th scope="col">Item</th><th scope="col">{stall.event?.short ?? 'Here'}</th><th
            scope="col">Base</th
          ></tr
        >
      </thead>
      <tbody>
        {#each shown as item (item.id)}
          {@const left = here.value.get(item.id) ?? 0}
          <tr>
            <td><b class="font-[600]">{item.name}</b> <span class="soft">{item.detail}</span></td>
            <td class={['figure', left <= item.low && 'text-error font-[650]']}
              >{leftWords(left, item.unit)}</td
            >
            <td class="figure">{quantityWords(base.value.get(item.id) ?? 0, item.unit)}</td>
          </tr>
        {:else}
          {#if items.isRead}<tr><td colspan="3" class="soft">Nothing is called that.</td></tr>{/if}
        {/each}
      </tbody>
    </table>
  </section>
</div>
