<!-- Goods that are kept for customers, and orders to collect: what is for today's event first. -->
<script lang="ts">
  import { hasWords, wordsIn } from '$lib/core/entry-line/words';
  import { isOpen, type OrderNow } from '$lib/core/order/order-state';
  import { namedOrders, NO_ORDERS } from '$lib/device/orders';
  import { live } from '$lib/device/live.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { SORT_WORDS } from '$lib/ui/words/order-words';
  import OrderStands from '../orders/OrderStands.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    /** What is looked for. */
    typed: string;
  }
  const { typed }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const { locale } = $derived(stall.business);
  const AT_MOST = 30;
  const found = live(() => {
    const { today } = stall;
    return () => namedOrders(db, today);
  }, NO_ORDERS);
  const open = $derived(found.value.orders.filter(isOpen));
  const nameOf = ({ order }: OrderNow): string => found.value.names.get(order.customer) ?? '';
  const isHere = ({ order }: OrderNow): boolean =>
    order.collectAt !== null && order.collectAt === stall.event?.id;
  const fitting = $derived(
    open
      .filter((now) =>
        hasWords(
          [now.order.number, nameOf(now), ...now.order.lines.map(({ name }) => name)],
          wordsIn(typed),
        ),
      )
      .toSorted((a, b) => Number(isHere(b)) - Number(isHere(a)) || byDay(a, b)),
  );
  const byDay = ({ order: a }: OrderNow, { order: b }: OrderNow): number => {
    const [day, other] = [a.until || '9', b.until || '9'];
    return day < other ? -1 : day > other ? 1 : 0;
  };
</script>

{#if open.length > 0}
  <section class="grid gap-2" aria-labelledby="for-customers">
    <div class="flex flex-wrap items-baseline justify-between gap-3">
      <h2 id="for-customers">For customers</h2>
      <a class="plain" href="/orders">All of them</a>
    </div>
    <ul class="grid gap-2" data-testid="waiting-orders">
      {#each fitting.slice(0, AT_MOST) as now (now.order.id)}
        <li>
          <a class="sheet grid gap-1 no-underline" href="/orders/{now.order.id}">
            <span class="flex flex-wrap items-baseline justify-between gap-x-4">
              <span class="min-w-0"
                ><b class="text-lg">{nameOf(now)}</b>
                <span class="soft">{now.order.number}, {SORT_WORDS[now.order.sort]}</span></span
              >
              {#if now.due > 0}<span class="amount text-xl">{money.text(now.due)}</span>{/if}
            </span>
            <span class="flex flex-wrap gap-x-4"><OrderStands {now} /></span>
            <span class="soft truncate text-sm"
              >{[
                isHere(now) ? 'collected here' : '',
                now.order.until === '' ? '' : `until ${shortDayWords(now.order.until, locale)}`,
                ...now.order.lines.map(({ name, detail }) =>
                  detail === '' ? name : `${name}, ${detail}`,
                ),
              ]
                .filter((part) => part !== '')
                .join(' · ')}</span
            >
          </a>
        </li>
      {:else}
        <li class="soft">Nothing that is kept or ordered fits “{typed}”.</li>
      {/each}
    </ul>
  </section>
{/if}
