<script lang="ts">
  import { goto } from '$app/navigation';
  import { setBusiness } from '$lib/core/founding/set-business';
  import { newId } from '$lib/device/new-id';
  import Choice from '$lib/ui/forms/Choice.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { currencies, languages, timeZones } from '$lib/ui/words/places-words';
  import { businessFault } from '$lib/ui/words/business-words';
  import { StallForm as Form } from '../forms/stall-form.svelte';
  import StallForm from '../forms/StallForm.svelte';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const start = stall.business;
  const begin = {
    name: start.name,
    currency: start.currency,
    locale: start.locale,
    timeZone: start.timeZone,
    pricesIncludeTax: start.pricesIncludeTax,
    taxRounding: start.taxRounding,
    cashStep: String(start.cashStep),
    typedSide: start.typedSide,
    uplift: start.uplift,
    groups: start.groups.map((group) => ({ ...group })),
    service: start.service !== null && 'percent' in start.service ? start.service.percent : '',
    serviceTaxes: [...(start.service?.taxes ?? stall.taxes.slice(0, 1).map(({ id }) => id))],
    tips: start.tips === null ? '' : start.tips.percents.join(' '),
    tipsOf: start.tips?.of ?? ('total' as const),
    isTipOnReader: start.tips?.isOnReader === true,
    signAbove: start.signAbove === null ? '' : stall.money.plain(start.signAbove),
    carryEach: start.carry === null ? '' : stall.money.plain(start.carry.perPayment),
    carryAll: start.carry === null ? '' : stall.money.plain(start.carry.perDevice),
    carryHours: String(start.carry?.hours ?? 24),
    forgetAfter: start.forgetAfter === 0 ? '' : String(start.forgetAfter),
    receiptHead: start.receiptHead,
    receiptFoot: start.receiptFoot,
  };
  const form = new Form({
    about: 'business',
    from: start.setStamp,
    begin,
    command: (typed) => () => setBusiness(newId, typed),
    says: businessFault,
    saved: () => 'The business is saved.',
    then: () => goto('/set-up'),
  });
  const { typed } = form;
  const isCurrencyChanged = $derived(typed.currency !== start.currency);
  const isTaxChanged = $derived(typed.pricesIncludeTax !== start.pricesIncludeTax);
</script>

<StallForm {form}>
  <section class="sheet grid gap-4 sm:grid-cols-2" aria-label="Name and money">
    <Field label="Name" bind:value={typed.name} maxlength={80} at="name" />
    <Choice
      label="Currency"
      options={currencies()}
      bind:value={typed.currency}
      isWrong={form.faults.at('currency') !== ''}
    />
    <Choice
      label="Language and region"
      options={languages(start.locale)}
      bind:value={typed.locale}
      isWrong={form.faults.at('locale') !== ''}
    />
    <Choice
      label="Time zone"
      options={timeZones(start.timeZone)}
      bind:value={typed.timeZone}
      isWrong={form.faults.at('timeZone') !== ''}
    />
    <Tick label="Shelf prices include tax" bind:checked={typed.pricesIncludeTax} />
    <label class="grid content-start gap-1 font-[560]">
      Tax is rounded
      <select class="select min-h-12 w-full" bind:value={typed.taxRounding}>
        <option value="sale">once for the sale</option>
        <option value="line">line by line</option>
      </select>
    </label>
    <Field
      label="Cash is rounded to, in minor units"
      bind:value={typed.cashStep}
      inputmode="numeric"
      help="1 is not rounded; 5 where there is no smaller coin"
      at="cashStep"
    />
  </section>
  <section class="sheet grid gap-4 sm:grid-cols-2" aria-labelledby="two-prices">
    <h2 id="two-prices" class="sm:col-span-2">Two prices</h2>
    <label class="grid content-start gap-1 font-[560]">
      The price that is typed in is for
      <select class="select min-h-12 w-full" bind:value={typed.typedSide}>
        <option value="cash">cash</option>
        <option value="card">card</option>
      </select>
    </label>
    <Field
      label="Card prices are higher by, percent"
      bind:value={typed.uplift}
      inputmode="decimal"
      help="0 is one price for all"
      at="uplift"
    />
  </section>
  <section class="sheet grid grid-cols-[minmax(0,1fr)] gap-3" aria-labelledby="groups">
    <h2 id="groups">Discounts for groups</h2>
    {#each typed.groups as group, at (group.id)}
      <div class="flex flex-wrap items-end gap-2">
        <div class="min-w-0 flex-[1_1_9rem]">
          <Field
            label="Group"
            bind:value={group.name}
            maxlength={80}
            isWrong={form.faults.at('groups') !== ''}
          />
        </div>
        <div class="w-28">
          <Field label="Percent off" bind:value={group.percent} inputmode="decimal" />
        </div>
        <button
          type="button"
          class="btn btn-quiet"
          onclick={() => (typed.groups = typed.groups.filter((_, i) => i !== at))}>Remove</button
        >
      </div>
    {/each}
    <button
      type="button"
      class="btn btn-quiet justify-self-start"
      onclick={() => typed.groups.push({ id: newId(), name: '', percent: '' })}>Add a group</button
    >
  </section>
  <section class="sheet grid gap-4 sm:grid-cols-2" aria-labelledby="rest">
    <h2 id="rest" class="sm:col-span-2">Service, tips and receipts</h2>
    <Field
      label="Service charge on every slip, percent"
      bind:value={typed.service}
      inputmode="decimal"
      at="service"
    />
    <fieldset class="grid content-start gap-1">
      <legend class="mb-1 font-[560]">Taxes on it</legend>
      {#each stall.taxes as tax (tax.id)}
        <label class="flex min-h-12 items-center gap-3">
          <input
            type="checkbox"
            class="checkbox size-6 !rounded-md"
            bind:group={typed.serviceTaxes}
            value={tax.id}
          />
          {tax.name}
        </label>
      {/each}
    </fieldset>
    <Field
      label="Tips that are offered, percent"
      bind:value={typed.tips}
      inputmode="decimal"
      help="Apart by blanks: 10 15 20. Empty asks nobody"
      at="tips"
    />
    <label class="grid content-start gap-1 font-[560]">
      Of what they are percent
      <select class="select min-h-12 w-full" bind:value={typed.tipsOf}>
        <option value="total">the total with tax</option>
        <option value="net">the total without tax</option>
      </select>
    </label>
    <Tick label="The card reader asks for the tip" bind:checked={typed.isTipOnReader} />
    <Field
      label="Cards are signed for above"
      bind:value={typed.signAbove}
      inputmode="decimal"
      help="Empty asks for no signature"
      at="signAbove"
    />
    <Field label="Head of receipts" bind:value={typed.receiptHead} maxlength={500} />
    <Field label="Foot of receipts" bind:value={typed.receiptFoot} maxlength={500} />
  </section>
  <section class="sheet grid gap-4 sm:grid-cols-3" aria-labelledby="carry">
    <div class="sm:col-span-3">
      <h2 id="carry">Cards with no network</h2>
      <p class="soft">
        Nobody can be asked then whether a card is good. They are sent as soon as there is network;
        what is declined afterwards is your risk.
      </p>
    </div>
    <Field
      label="At most for one payment"
      bind:value={typed.carryEach}
      inputmode="decimal"
      help="Empty takes none"
      at="carryEach"
    />
    <Field
      label="Together, on one device"
      bind:value={typed.carryAll}
      inputmode="decimal"
      at="carryAll"
    />
    <Field
      label="For so many hours"
      bind:value={typed.carryHours}
      inputmode="numeric"
      at="carryHours"
    />
  </section>
  <section class="sheet grid gap-4 sm:grid-cols-2" aria-label="A device that is lost">
    <Field
      label="Forget everything after so many days without network"
      help="Left empty, never. What was sold and not sent stays on the device."
      bind:value={typed.forgetAfter}
      inputmode="numeric"
      maxlength={3}
      at="forgetAfter"
    />
  </section>
  {#if isCurrencyChanged}
    <p class="sheet border-accent border-l-8">
      Amounts of past sales stay figures in {start.currency}; every price means {typed.currency} from
      then on.
    </p>
  {/if}
  {#if isTaxChanged}
    <p class="sheet border-accent border-l-8">
      Prices stay the figures they are, and are read {typed.pricesIncludeTax
        ? 'with tax in them'
        : 'before tax'} from then on. Past sales stay as they were.
    </p>
  {/if}
</StallForm>
