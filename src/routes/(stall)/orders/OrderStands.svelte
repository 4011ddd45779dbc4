<!-- How an order stands, goods and money apart: a word and an icon for each. -->
<script lang="ts">
  import Ban from '@lucide/svelte/icons/ban';
  import Check from '@lucide/svelte/icons/check';
  import CheckCheck from '@lucide/svelte/icons/check-check';
  import CircleDashed from '@lucide/svelte/icons/circle-dashed';
  import CircleDollarSign from '@lucide/svelte/icons/circle-dollar-sign';
  import Coins from '@lucide/svelte/icons/coins';
  import Hourglass from '@lucide/svelte/icons/hourglass';
  import PackageCheck from '@lucide/svelte/icons/package-check';
  import PackageOpen from '@lucide/svelte/icons/package-open';
  import Quote from '@lucide/svelte/icons/message-square-quote';
  import type { OrderNow } from '$lib/core/order/order-state';
  import { GOODS_WORDS, MONEY_WORDS } from '$lib/ui/words/order-words';

  interface Props {
    now: Pick<OrderNow, 'goods' | 'money'>;
  }
  const { now }: Props = $props();
  const GOODS = {
    quoted: Quote,
    'out of date': CircleDashed,
    waiting: Hourglass,
    ready: PackageCheck,
    'in part': PackageOpen,
    'handed over': CheckCheck,
    off: Ban,
  } as const;
  const MONEY = { 'to pay': CircleDollarSign, 'in part': Coins, paid: Check } as const;
  const Goods = $derived(GOODS[now.goods]);
  const Money = $derived(MONEY[now.money]);
  const isMoneyOpen = $derived(!['off', 'quoted', 'out of date'].includes(now.goods));
</script>

<span class="inline-flex items-center gap-1"
  ><Goods aria-hidden="true" class="size-5" />{GOODS_WORDS[now.goods]}</span
>
{#if isMoneyOpen}
  <span class="inline-flex items-center gap-1"
    ><Money aria-hidden="true" class="size-5" />{MONEY_WORDS[now.money]}</span
  >
{/if}
