<script lang="ts">
  import type { Column } from '$lib/core/list/list-view';
  import { localTime } from '$lib/core/event/local-time';
  import { owedOn, voucherList, type VoucherRow } from '$lib/core/held/voucher-list';
  import { voucherText } from '$lib/core/held/voucher-number';
  import { live } from '$lib/device/live.svelte';
  import List from '$lib/ui/list/List.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { lapseVouchers } from '$lib/core/held/set-held';
  import { newId } from '$lib/device/new-id';
  import { setHeldWords } from '$lib/ui/words/held-words';
  import { useStall } from '../stall.svelte';
  import WriteOff from './WriteOff.svelte';

  const stall = useStall();
  const { books } = stall.db;
  const money = $derived(stall.money);
  const { timeZone, locale } = $derived(stall.business);
  async function read(day: string): Promise<readonly VoucherRow[]> {
    const [sold, states, sums] = await Promise.all([
      books.vouchers.toArray(),
      books.voucherStates.toArray(),
      books.heldSums.where('account').startsWith('voucher:').toArray(),
    ]);
    return voucherList(sold, states, sums, day);
  }
  const found = live(
    () => () => read(localTime(Date.now(), timeZone).day),
    [] as readonly VoucherRow[],
  );
  const owed = $derived(owedOn(found.value));
  const over = $derived(found.value.filter(({ stands }) => stands === 'out of date'));
  let wrong = $state('');

  /** What is left on all that ran out is owed no more, as they are by then. */
  async function lapse(lentBy?: string): Promise<void> {
    const { day } = localTime(Date.now(), timeZone);
    const made = await stall.daybook.decide(
      async () => (await read(day)).filter(({ stands }) => stands === 'out of date'),
      (vouchers) => lapseVouchers(newId, vouchers, day),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong = made.ok ? '' : setHeldWords(made.refusal, money);
  }
  const columns = $derived<readonly Column<VoucherRow>[]>([
    {
      ...{ key: 'number', head: 'Number', is: 'text' },
      value: ({ number }) => number,
      show: ({ number }) => voucherText(number),
    },
    { key: 'stands', head: 'Stands', is: 'text', value: ({ stands }) => stands },
    {
      ...{ key: 'sold', head: 'Sold', is: 'text' },
      value: ({ at }) => at.slice(0, 10),
      show: ({ at, saleNumber }) =>
        [shortDayWords(localTime(Date.parse(at), timeZone).day, locale), saleNumber]
          .filter((part) => part !== '')
          .join(', '),
    },
    {
      ...{ key: 'until', head: 'Until', is: 'text' },
      value: ({ until }) => (until === '' ? null : until),
      show: ({ until }) => (until === '' ? 'any day' : shortDayWords(until, locale)),
    },
    {
      ...{ key: 'value', head: 'Value', is: 'figure' },
      value: ({ value }) => value,
      show: ({ value }) => money.figure(value),
    },
    {
      ...{ key: 'left', head: 'Left', is: 'figure' },
      value: ({ left }) => left,
      show: ({ left }) => money.figure(left),
    },
  ]);
</script>

<div class="page gap-5">
  <h1>Vouchers</h1>
  <p class="text-lg">
    {found.value.length === 0
      ? 'None has been sold yet. At the counter, More … puts one on the slip.'
      : 'Owed on them together:'}
    {#if found.value.length > 0}<b class="amount" data-testid="owed">{money.text(owed)}</b>{/if}
  </p>
  {#if over.length > 0}
    <div class="sheet flex flex-wrap items-center justify-between gap-3">
      <span
        >{over.length === 1 ? 'One voucher' : `${String(over.length)} vouchers`} ran out with something
        left.</span
      >
      <WriteOff what={money.text(owedOn(over))} onGo={lapse} />
    </div>
  {/if}
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  <section class="sheet" aria-label="Vouchers">
    <List
      name="Vouchers"
      testid="vouchers"
      rows={found.value}
      {columns}
      keyOf={({ number }) => number}
      order={{ column: 'sold', isDown: true }}
      wide={['sold', 'until', 'value']}
      empty="No voucher fits."
      find="Number, how it stands"
      looks={({ stands }, column) =>
        column === 'stands' && stands.endsWith('twice') ? 'text-error font-[650]' : ''}
    >
      {#snippet first(row)}
        <a class="plain code" href="/vouchers/{row.number}">{voucherText(row.number)}</a>
      {/snippet}
    </List>
  </section>
</div>
