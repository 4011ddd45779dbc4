<!-- What is paid in on an account: a voucher is sold, a customer pays what they owe, or leaves credit. -->
<script lang="ts">
  import {
    isVoucherNumber,
    numberFault,
    voucherNumber,
    voucherText,
  } from '$lib/core/held/voucher-number';
  import { daysAfter } from '$lib/core/event/event-days';
  import { localTime } from '$lib/core/event/local-time';
  import { readAmount } from '$lib/core/money/amount-text';
  import { voucherTax } from '$lib/core/slip/voucher-tax';
  import { customerHolds } from '$lib/device/held-accounts';
  import { live } from '$lib/device/live.svelte';
  import { newVoucher } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { HELD_LINES, heldRefusalWords, holdsWords } from '$lib/ui/words/held-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../stall.svelte';
  import { putPayment } from './put-payment';

  interface Props {
    /** Called with what was put on the slip. */
    ondone: (says: string) => void;
  }
  const { ondone }: Props = $props();
  const stall = useStall();
  const { slip } = stall;
  const money = $derived(stall.money);
  const today = $derived(
    localTime(Date.now(), stall.event?.timeZone ?? stall.business.timeZone).day,
  );
  const customer = $derived(slip.current.customer);
  const holds = live(() => {
    const who = customer;
    return () => (who === undefined ? undefined : customerHolds(stall.db, who));
  }, undefined);

  let value = $state('');
  let number = $state('');
  /** As the vendor has it: the last day of one that is sold today. */
  const lasts = $derived(
    stall.wayRows.find(({ method, isActive }) => method === 'voucher' && isActive)?.lasts ?? 0,
  );
  const usualDay = $derived(lasts === 0 ? '' : daysAfter(today, lasts));
  let until = $derived(usualDay);
  const soldWith = $derived(voucherTax(0, stall.wayRows, stall.taxes, stall.event?.swaps ?? []));
  let paid = $state('');
  let wrong = $state('');

  async function sellVoucher(): Promise<void> {
    const read = readAmount(value, money.currency);
    if (!read.ok) {
      wrong = refusalWords(read.refusal, money);
      return;
    }
    if (until !== '' && until < today) {
      wrong = 'Its last day is over: take one to come, or leave it empty.';
      return;
    }
    const printed = voucherNumber(number);
    const isOwn = printed === '';
    const fault = isOwn ? null : numberFault(printed, stall.identity.business);
    if (fault !== null) {
      wrong = heldRefusalWords({ code: `held/${fault}`, number: printed }, money);
      return;
    }
    if (!isOwn && (await isKnown(printed))) {
      wrong = `${voucherText(printed)} has been sold already: take another card.`;
      return;
    }
    const own = isOwn ? newVoucher(stall.identity.business) : printed;
    const kept = voucherTax(read.amount, stall.wayRows, stall.taxes, stall.event?.swaps ?? []);
    const refusal = slip.putPaidIn({
      ...{ account: `voucher:${own}`, name: HELD_LINES.voucher, detail: voucherText(own) },
      ...{ amount: read.amount, until, kept: kept ?? undefined },
    });
    wrong = refusal === null ? '' : refusalWords(refusal, money);
    if (refusal !== null) return;
    [value, number, until] = ['', '', usualDay];
    ondone(`A voucher of ${money.text(read.amount)} is on the slip.`);
  }

  const isKnown = async (printed: string): Promise<boolean> =>
    isVoucherNumber(printed) &&
    (await stall.db.books.vouchers.where('number').equals(printed).count()) > 0;

  function takePayment(): void {
    if (customer === undefined || holds.value === undefined) return;
    const put = putPayment(stall, customer, paid, holds.value.owes);
    wrong = 'wrong' in put ? put.wrong : '';
    if ('wrong' in put) return;
    paid = '';
    ondone(`${money.text(put.amount)} from ${customer.name} is on the slip.`);
  }
</script>

<section class="grid gap-3" aria-labelledby="paid-in">
  <h3 id="paid-in" class="text-lg">Paid in</h3>
  <form
    class="grid grid-cols-2 items-end gap-3"
    aria-label="Sell a voucher"
    onsubmit={(event) => {
      event.preventDefault();
      void sellVoucher();
    }}
  >
    <Field label="Voucher of" bind:value inputmode="decimal" autocomplete="off" />
    <Field
      label="Number"
      bind:value={number}
      maxlength={60}
      autocomplete="off"
      placeholder="a new one"
    />
    <Field label="Last day, if any" bind:value={until} type="date" />
    <button class="btn btn-quiet">Put it on</button>
    {#if soldWith !== null}
      <p class="soft col-span-2" data-testid="voucher-tax">
        Sold with {soldWith.name}, for goods with that tax.
      </p>
    {/if}
  </form>
  {#if customer !== undefined && holds.value !== undefined}
    <form
      class="grid grid-cols-[1fr_auto] items-end gap-3"
      aria-label="Take a payment"
      onsubmit={(event) => {
        event.preventDefault();
        takePayment();
      }}
    >
      <p class="soft col-span-2">
        {customer.name}
        {holdsWords(holds.value, money) || 'owes nothing'}
      </p>
      <Field
        label="They pay in"
        bind:value={paid}
        inputmode="decimal"
        autocomplete="off"
        placeholder={holds.value.owes > 0 ? money.plain(holds.value.owes) : ''}
      />
      <button class="btn btn-quiet">Put it on</button>
    </form>
  {/if}
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
</section>
