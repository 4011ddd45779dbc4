<!-- One voucher: what is left, where it was spent, and blocking, extending and replacing it. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { toast } from 'svelte-sonner';
  import { localTime } from '$lib/core/event/local-time';
  import {
    lapseVouchers,
    replaceVoucher,
    setVoucher,
    type SetHeldOutcome,
  } from '$lib/core/held/set-held';
  import { keptOf } from '$lib/core/held/one-purpose';
  import { lastDayOf } from '$lib/core/held/spend';
  import { voucherList } from '$lib/core/held/voucher-list';
  import { voucherText } from '$lib/core/held/voucher-number';
  import { heldFacts } from '$lib/device/held-accounts';
  import { live } from '$lib/device/live.svelte';
  import { newId, newVoucher } from '$lib/device/new-id';
  import { saveFile } from '$lib/ui/files/save-file';
  import Field from '$lib/ui/forms/Field.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { setHeldWords, standsWords } from '$lib/ui/words/held-words';
  import HeldMoves from '../../HeldMoves.svelte';
  import RightButton from '../../RightButton.svelte';
  import { useStall } from '../../stall.svelte';
  import WriteOff from '../WriteOff.svelte';
  import { stillHere } from '../../still-here';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const { timeZone, locale } = $derived(stall.business);
  const number = $derived(page.params['number'] ?? '');
  const found = live(() => {
    const wanted = number;
    return async () => {
      const facts = await heldFacts(db, 'voucher', { customer: null, reference: wanted });
      const sold = await db.books.vouchers.where('number').equals(wanted).toArray();
      const sums = [{ account: `voucher:${wanted}`, amount: facts.balance }];
      const state = await db.books.voucherStates.get(wanted);
      const [row] = voucherList(
        sold,
        state === undefined ? [] : [state],
        sums,
        localTime(Date.now(), timeZone).day,
      );
      return { row };
    };
  }, undefined);
  const voucher = $derived(found.value?.row);

  let reason = $state('');
  let until = $state('');
  let wrong = $state('');

  async function say(
    make: (facts: Awaited<ReturnType<typeof heldFacts>>) => SetHeldOutcome,
    says: string,
    lentBy?: string,
  ): Promise<boolean> {
    const made = await stall.daybook.decide(
      () => heldFacts(db, 'voucher', { customer: null, reference: number }),
      make,
      lentBy === undefined ? {} : { lentBy },
    );
    wrong = made.ok ? '' : setHeldWords(made.refusal, money);
    if (made.ok) {
      reason = '';
      toast(says);
    }
    return made.ok;
  }
  const set = (isBlocked: boolean, last: string, says: string, lentBy?: string) =>
    say(() => setVoucher({ newId, number, isBlocked, until: last, reason }), says, lentBy);
  /** It ran out: what is left is owed no more. */
  async function lapse(lentBy?: string): Promise<void> {
    const day = localTime(Date.now(), timeZone).day;
    const row = voucher;
    if (row === undefined) return;
    await say(
      ({ balance, ...facts }) => {
        const left = 0 - balance;
        const kept = keptOf(facts.sold, Math.max(0, left));
        return lapseVouchers(newId, [{ number, left, until: lastDayOf(facts), kept }], day);
      },
      `${money.text(row.left)} is owed no more.`,
      lentBy,
    );
  }
  async function savePaper(): Promise<void> {
    if (voucher === undefined) return;
    const { labelSheet } = await import('$lib/device/paper/label-sheet');
    const label = {
      code: voucher.number,
      name: `${stall.business.name}: voucher of ${money.text(voucher.value)}`,
      detail: voucher.until === '' ? '' : `until ${shortDayWords(voucher.until, locale)}`,
    };
    saveFile(
      `Voucher ${voucherText(number)}.pdf`,
      'application/pdf',
      await labelSheet([label], 'roll'),
    );
  }
  async function replace(lentBy?: string): Promise<void> {
    const fresh = newVoucher(stall.identity.business);
    const isHere = stillHere();
    const isDone = await say(
      (facts) => replaceVoucher({ newId, number, fresh, facts, reason }),
      `It can be spent no more; ${voucherText(fresh)} is in its place.`,
      lentBy,
    );
    if (isDone && isHere()) await goto(`/vouchers/${fresh}`);
  }
</script>

<div class="page page-text gap-5">
  {#if voucher === undefined}
    {#if found.isRead}
      <h1>No voucher of that number</h1>
      <p class="sheet">
        This device knows no <span class="code">{voucherText(number)}</span>.
        <a class="plain" href="/vouchers">Vouchers</a>
      </p>
    {/if}
  {:else}
    <h1 class="code">{voucherText(voucher.number)}</h1>
    <section class="sheet grid gap-3" aria-label="Voucher" data-testid="voucher">
      <div class="flex flex-wrap items-end justify-between gap-3">
        <p>
          <span class="soft block">Left of {money.text(voucher.value)}</span>
          <span class="amount text-4xl">{money.text(voucher.left)}</span>
        </p>
        <p class={voucher.stands.endsWith('twice') ? 'text-error font-[650]' : ''}>
          {standsWords(voucher.stands)}{voucher.reason === '' ? '' : `: ${voucher.reason}`}
        </p>
      </div>
      <p class="soft">
        {voucher.until === ''
          ? 'It can be spent on any day.'
          : `It ${voucher.stands === 'out of date' ? 'could' : 'can'} be spent until ${shortDayWords(voucher.until, locale)}.`}
        {#if voucher.kept !== null}
          It was sold with {voucher.kept.name}, for goods with that tax.
          {#if voucher.left > 0}{money.text(voucher.kept.amount)} of what is left is tax that was taken
            with it.{/if}
        {/if}
      </p>
      <HeldMoves account="voucher:{voucher.number}" testid="spent" />
      <button type="button" class="btn btn-quiet justify-self-start" onclick={savePaper}
        >Save it with its code as a PDF</button
      >
    </section>
    <section class="sheet grid gap-3" aria-labelledby="change">
      <h2 id="change">Block, extend, replace</h2>
      <Field label="Why" bind:value={reason} maxlength={200} autocomplete="off" />
      <div class="flex flex-wrap items-end gap-2">
        <RightButton
          right="voucher.set"
          look="btn-quiet"
          label={voucher.stands === 'blocked' ? 'Let it be spent again' : 'Block it'}
          onGo={async (lentBy) => {
            const isBlocked = voucher.stands !== 'blocked';
            await set(
              isBlocked,
              voucher.until,
              isBlocked ? 'It can be spent no more.' : 'It can be spent again.',
              lentBy,
            );
          }}
        />
        {#if voucher.left > 0}
          <RightButton
            right="voucher.set"
            look="btn-quiet"
            label="Replace it by a fresh one"
            onGo={replace}
          />
        {/if}
      </div>
      {#if voucher.stands === 'out of date'}
        <WriteOff what={money.text(voucher.left)} onGo={lapse} />
      {/if}
      <div class="flex flex-wrap items-end gap-2">
        <div class="min-w-44 flex-1">
          <Field label="Last day; empty is any" type="date" bind:value={until} />
        </div>
        <RightButton
          right="voucher.set"
          look="btn-quiet"
          label="Set its last day"
          onGo={async (lentBy) => {
            await set(voucher.stands === 'blocked', until, 'Its last day is set.', lentBy);
          }}
        />
      </div>
      {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
    </section>
    <p><a class="plain" href="/vouchers">All vouchers</a></p>
  {/if}
</div>
