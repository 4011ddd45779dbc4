<script lang="ts">
  /** What the pitch and everything else costs. */
  import type { Row } from '$lib/core/books/tables';
  import { COST_PER, FEE_KINDS } from '$lib/core/daybook/kinds/event-groups';
  import { costsOf, feeOf, NO_FEE } from '$lib/core/event/pitch-fee';
  import { setCosts, type TypedCosts } from '$lib/core/event/set-groups';
  import { quantityText, thousandths } from '$lib/core/money/units';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { feeWords, groupFault, perWords } from '$lib/ui/words/event-words';
  import { StallForm as Form } from '../../../forms/stall-form.svelte';
  import StallForm from '../../../forms/StallForm.svelte';
  import { useStall } from '../../../stall.svelte';

  interface Props {
    event: Row<'events'>;
  }
  const { event }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  // svelte-ignore state_referenced_locally
  const start = event;
  const fee = start.fee ?? NO_FEE;
  const { currency } = stall.business;
  const plain = (amount: number): string => (amount === 0 ? '' : stall.money.plain(amount));
  type Cost = {
    -readonly [F in keyof TypedCosts['costs'][number]]: TypedCosts['costs'][number][F];
  };
  const form = new Form({
    about: `costs ${start.id}`,
    from: start.costsStamp,
    begin: {
      kind: fee.kind,
      fixed: plain(fee.fixed),
      percent: fee.percent === '0' ? '' : fee.percent,
      of: fee.of,
      least: fee.least === undefined ? '' : stall.money.plain(fee.least),
      most: fee.most === undefined ? '' : stall.money.plain(fee.most),
      costs: start.costs.map(({ what, each, per, many }): Cost => ({
        what,
        each: plain(each),
        per,
        many: per === 'once' ? '' : quantityText(thousandths(many)),
      })),
    },
    command: (typed) => () => setCosts(newId, start, typed, currency),
    says: groupFault,
    saved: () => `What ${start.short} costs is saved.`,
  });
  const { typed } = form;
  const totals = live(() => () => books.eventTotals.get(start.id), undefined);
  const so = $derived.by(() => {
    const gross = totals.value?.takings ?? 0;
    const net = gross - (totals.value?.tax ?? 0);
    const pitch = event.fee === null ? 0 : feeOf(event.fee, { gross, net });
    return { pitch, other: costsOf(event.costs) };
  });
</script>

<section class="sheet" aria-labelledby="costs">
  <h2 id="costs" class="mb-3">Fee and costs</h2>
  <StallForm
    {form}
    right="event.plan"
    look="btn-quiet"
    label="Save fee and costs"
    name="Fee and costs"
  >
    <div class="grid items-start gap-4 sm:grid-cols-2">
      <label class="grid gap-1 font-[560]">
        The pitch costs
        <select class="select min-h-12 w-full" bind:value={typed.kind}>
          {#each FEE_KINDS as each (each)}<option value={each}>{feeWords[each]}</option>{/each}
        </select>
      </label>
      {#if typed.kind !== 'none' && typed.kind !== 'percent'}
        <Field label="Amount" at="fixed" bind:value={typed.fixed} inputmode="decimal" />
      {/if}
      {#if typed.kind !== 'none' && typed.kind !== 'fixed'}
        <Field
          label="Percent of the takings"
          at="percent"
          bind:value={typed.percent}
          inputmode="decimal"
        />
        <label class="grid gap-1 font-[560]">
          Of the takings
          <select class="select min-h-12 w-full" bind:value={typed.of}>
            <option value="gross">with tax</option>
            <option value="net">without tax</option>
          </select>
        </label>
        <Field
          label="At least, if agreed"
          at="least"
          bind:value={typed.least}
          inputmode="decimal"
        />
        <Field label="At most, if agreed" at="most" bind:value={typed.most} inputmode="decimal" />
      {/if}
    </div>
    <div class="grid gap-3">
      {#each typed.costs as cost, at (at)}
        <div class="grid grid-cols-2 items-end gap-3 sm:grid-cols-[1.6fr_1fr_1fr_1fr_auto]">
          <div class="max-sm:col-span-2">
            <Field label="For what" at="what {at}" bind:value={cost.what} maxlength={80} />
          </div>
          <Field label="Amount" at="each {at}" bind:value={cost.each} inputmode="decimal" />
          <label class="grid gap-1 font-[560]">
            Each
            <select class="select min-h-12 w-full" bind:value={cost.per}>
              {#each COST_PER as each (each)}<option value={each}>{perWords[each]}</option>{/each}
            </select>
          </label>
          {#if cost.per !== 'once'}
            <Field label="How many" at="many {at}" bind:value={cost.many} inputmode="decimal" />
          {:else}<span class="max-sm:hidden"></span>{/if}
          <button
            type="button"
            class="btn btn-quiet justify-self-start"
            aria-label="Remove {cost.what}"
            onclick={() => (typed.costs = typed.costs.filter((_, i) => i !== at))}>×</button
          >
        </div>
      {/each}
      <button
        type="button"
        class="btn btn-quiet justify-self-start"
        onclick={() => typed.costs.push({ what: '', each: '', per: 'once', many: '' })}
        >Add a cost</button
      >
    </div>
    {#if event.costsStamp !== ''}
      <p class="soft" data-testid="costs-so-far">
        {stall.money.text(so.pitch)} for the pitch by what it has taken so far, {stall.money.text(
          so.other,
        )} besides.
      </p>
    {/if}
  </StallForm>
</section>
