<script lang="ts">
  import { goto } from '$app/navigation';
  import { toast } from 'svelte-sonner';
  import { fits, keptSlips, openFrom, type KeptSlip } from '$lib/core/set-aside/kept-slips';
  import { priceSlip } from '$lib/core/slip/price-slip';
  import { byRecord } from '$lib/core/customer/joined';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { throwAway } from '$lib/core/set-aside/kept-slips';
  import { shortDayWords, timeWords } from '$lib/ui/words/date-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { takeUpSlip } from '../counter/keep-slip';
  import { useStall } from '../stall.svelte';
  import HeldCards from './HeldCards.svelte';
  import WaitingOrders from './WaitingOrders.svelte';
  import { stillHere } from '../still-here';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  let typed = $state('');
  let asked = $state('');
  const all = live(
    () => async () => {
      const [slips, lines, customers] = await Promise.all([
        db.books.slips.toArray(),
        db.books.slipLines.toArray(),
        db.books.customers.toArray(),
      ]);
      return {
        kept: keptSlips(slips, lines),
        customers: byRecord(customers),
      };
    },
    { kept: [], customers: new Map() },
  );
  const customerOf = ({ row }: KeptSlip) =>
    row.customer === null ? undefined : all.value.customers.get(row.customer);
  const shown = $derived(
    all.value.kept.filter((kept) => fits(kept, typed, customerOf(kept)?.name ?? '')),
  );
  const totalOf = (kept: KeptSlip): number => {
    const open = openFrom(kept, customerOf(kept));
    return priceSlip(open, stall.business, stall.taxes, stall.event?.swaps).cash.total;
  };
  const nameOf = (kept: KeptSlip): string => {
    const name = kept.row.name === '' ? (customerOf(kept)?.name ?? '') : kept.row.name;
    if (name !== '') return name;
    return kept.lines.map(({ line }) => line?.name ?? '').join(', ') || 'Nothing on it yet';
  };
  /** Another device that has it in hand. */
  const holderOf = ({ row }: KeptSlip): string => {
    if (row.state !== 'taken') return '';
    if (row.device === stall.identity.device) return 'in hand here';
    const device = stall.devices.find(({ id }) => id === row.device);
    return `taken up by ${device === undefined ? 'another device' : `D${String(device.number)} ${device.name}`}`;
  };

  async function goOn(kept: KeptSlip): Promise<void> {
    const isElsewhere = kept.row.state === 'taken' && kept.row.device !== stall.identity.device;
    if (isElsewhere && asked !== kept.row.id) {
      asked = kept.row.id;
      return;
    }
    asked = '';
    const isHere = stillHere();
    const taken = await takeUpSlip(stall, kept.row.id);
    if (!taken.ok) toast.error(refusalWords(taken.refusal, money));
    else if (isHere()) await goto('/counter');
  }
  async function throwOut(kept: KeptSlip): Promise<void> {
    await stall.daybook.append(() =>
      throwAway(newId, stall.event?.id ?? null, openFrom(kept, undefined)),
    );
  }
</script>

<div class="page page-text gap-5">
  <h1>Waiting</h1>
  <label class="grid gap-1 font-[560]">
    Customer, name or goods
    <input class="input w-full text-lg" bind:value={typed} autocomplete="off" />
  </label>
  <ul class="grid gap-2" data-testid="waiting">
    {#each shown as kept (kept.row.id)}
      <li class="sheet grid gap-2">
        <div class="flex flex-wrap items-baseline justify-between gap-x-4">
          <span class="min-w-0"
            ><b class="text-lg">{nameOf(kept)}</b>
            <span class="soft">{kept.row.sort === 'tab' ? 'a tab' : 'set aside'}</span></span
          >
          <span class="amount text-xl">{money.text(totalOf(kept))}</span>
        </div>
        <p class="soft text-sm">
          {shortDayWords(kept.row.at.slice(0, 10), stall.business.locale)}
          {timeWords(kept.row.at, stall.business.locale, stall.business.timeZone)} · {stall.nameOf(
            kept.row.by,
          )}{holderOf(kept) === '' ? '' : ` · ${holderOf(kept)}`}
        </p>
        <p class="truncate">
          {kept.lines.map(({ line }) => line?.name ?? '').join(', ')}
        </p>
        {#if asked === kept.row.id}
          <p class="text-error" role="alert">
            It is {holderOf(kept)}. If both ring it up, both sales stand and it shows as a loose
            end.
          </p>
        {/if}
        <div class="flex flex-wrap gap-2">
          <button type="button" class="btn btn-quiet" onclick={() => goOn(kept)}
            >{asked === kept.row.id ? 'Take it up all the same' : 'Continue'}</button
          >
          {#if kept.lines.length === 0}
            <button type="button" class="btn btn-quiet" onclick={() => throwOut(kept)}
              >Close the tab</button
            >
          {/if}
        </div>
      </li>
    {:else}
      {#if all.isRead}
        <li class="soft">
          {typed.trim() === ''
            ? 'Nothing is waiting. Set a slip aside at the counter when somebody has forgotten their purse.'
            : `Nothing that waits fits “${typed}”.`}
        </li>
      {/if}
    {/each}
  </ul>
  <WaitingOrders {typed} />
  <HeldCards />
</div>
