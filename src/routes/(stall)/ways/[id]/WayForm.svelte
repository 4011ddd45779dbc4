<script lang="ts">
  import { goto } from '$app/navigation';
  import { METHODS } from '$lib/core/payment/methods';
  import { isPromotion } from '$lib/core/points/promotion-methods';
  import { isHeldMethod } from '$lib/core/held/held-account';
  import { setWay, typedWay } from '$lib/core/payment/set-way';
  import { CASH_WAY, type WayToPay } from '$lib/core/payment/ways';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { HELD_NAMES } from '$lib/ui/words/held-words';
  import { METHOD_WORDS, wayRefusalWords } from '$lib/ui/words/way-words';
  import { StallForm as Form } from '../../forms/stall-form.svelte';
  import StallForm from '../../forms/StallForm.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    way?: WayToPay;
  }
  const { way }: Props = $props();
  const stall = useStall();
  // svelte-ignore state_referenced_locally
  const start = way;
  const form = new Form({
    about: `way ${start?.id ?? 'new'}`,
    from: start?.setStamp ?? '',
    begin: { ...typedWay(start, (amount) => stall.money.plain(amount)) },
    command: (typed) => () =>
      setWay({
        newId,
        id: start?.id ?? null,
        typed,
        currency: stall.business.currency,
        ways: stall.wayRows,
      }),
    says: (refusal) => ({ field: refusal.field, says: wayRefusalWords(refusal) }),
    saved: ({ name }) => `${name.trim()} is saved. Payments so far stay as they were.`,
    then: () => goto('/ways'),
  });
  const { typed } = form;
  const isCash = $derived(way?.id === CASH_WAY.id);
  const isHeld = $derived(isHeldMethod(typed.method));
  /** One that was put away meanwhile is still what they are for. */
  const purposes = $derived([
    ...stall.taxes,
    ...(typed.purpose === '' || stall.taxes.some(({ id }) => id === typed.purpose)
      ? []
      : [{ id: typed.purpose, name: 'a tax that was put away', rate: '0' }]),
  ]);
  const methods = METHODS.filter((method) => method !== 'cash');

  /** What is usual for a kind of payment; all of it can be changed. */
  function chosen(method: (typeof METHODS)[number]): void {
    typed.method = method;
    typed.side = method === 'card' || method === 'keyed' ? 'card' : 'cash';
    typed.opensDrawer = method === 'cheque';
    typed.reference =
      method === 'cheque' ? 'Cheque number' : method === 'keyed' ? 'Number of the order' : '';
    typed.needsCustomer =
      method === 'transfer' || method === 'account' || method === 'credit' || isPromotion(method);
    if (isHeldMethod(method)) {
      if (typed.name.trim() === '') typed.name = HELD_NAMES[method] ?? '';
      [typed.givesChange, typed.surchargeRate, typed.surchargeFixed] = [false, '0', ''];
    }
    if (typed.side === 'card') typed.givesChange = false;
  }
</script>

<StallForm {form}>
  <section class="sheet grid content-start gap-4 sm:grid-cols-2" aria-label="What it is">
    <Field label="Name" bind:value={typed.name} maxlength={80} at="name" />
    {#if isCash}
      <p class="soft self-end pb-3">It is {METHOD_WORDS.cash}.</p>
    {:else}
      <label class="grid gap-1 font-[560]">
        It is
        <select
          class="select min-h-12 w-full"
          value={typed.method}
          onchange={(event) =>
            chosen(METHODS.find((each) => each === event.currentTarget.value) ?? 'own')}
        >
          {#each methods as method (method)}<option value={method}>{METHOD_WORDS[method]}</option
            >{/each}
        </select>
      </label>
      {#if !isHeld}<label class="grid content-start gap-1 font-[560]">
          It is charged
          <select class="select min-h-12 w-full" bind:value={typed.side}>
            <option value="cash">the cash price</option>
            <option value="card">the card price</option>
          </select>
        </label>{/if}
    {/if}
    {#if !isHeld}<Field
        label="Reference it asks for"
        bind:value={typed.reference}
        maxlength={40}
        help="What it is called: cheque number, terminal slip. Empty asks for none"
      />{/if}
    {#if typed.method === 'voucher' || typed.method === 'credit' || typed.method === 'points'}
      <Field
        label="With no network, at most"
        bind:value={typed.offlineMost}
        inputmode="decimal"
        at="offlineMost"
        help="It may be spent elsewhere meanwhile. Empty takes any amount, 0 none"
      />
    {/if}
    {#if typed.method === 'voucher'}
      <Field
        label="Usually lasts, in days"
        bind:value={typed.lasts}
        inputmode="numeric"
        at="lasts"
        help="What its last day is when it is sold, until somebody says otherwise. Empty is any day"
      />
      <label class="grid content-start gap-1 font-[560] sm:col-span-2">
        Vouchers are for
        <select class="select min-h-12 w-full" bind:value={typed.purpose}>
          <option value="">any goods, taxed when spent</option>
          {#each purposes as tax (tax.id)}
            <option value={tax.id}>goods with {tax.name}, taxed when sold</option>
          {/each}
        </select>
        <span class="soft text-sm font-normal">Those that were sold before stay as they are</span>
      </label>
    {/if}
  </section>
  {#if !isHeld}<section
      class="sheet grid content-start gap-4 sm:grid-cols-2"
      aria-labelledby="on-top"
    >
      <h2 id="on-top" class="sm:col-span-2">On top</h2>
      <Field
        label="Surcharge, percent"
        bind:value={typed.surchargeRate}
        inputmode="decimal"
        at="surchargeRate"
      />
      <Field
        label="Fixed fee"
        bind:value={typed.surchargeFixed}
        inputmode="decimal"
        at="surchargeFixed"
      />
    </section>{/if}
  <section class="sheet grid content-start gap-4 sm:grid-cols-2" aria-labelledby="rules">
    <h2 id="rules" class="sm:col-span-2">At the counter, and afterwards</h2>
    {#if !isHeld}
      <Tick label="Only for named customers" bind:checked={typed.needsCustomer} />
      <Tick label="Opens the drawer" bind:checked={typed.opensDrawer} />
      <Tick
        label="Gives change"
        bind:checked={typed.givesChange}
        disabled={isCash || typed.side === 'card'}
      />
    {/if}
    {#if !isCash}<Tick label="Is in use" bind:checked={typed.isActive} />{/if}
    {#if !isHeld}<Field
        label="Bank account that receives it"
        bind:value={typed.account}
        maxlength={80}
      />{/if}
    <Field
      label="Ledger account"
      bind:value={typed.ledger}
      maxlength={40}
      help="Where the books of the business put it"
    />
  </section>
  {#if way !== undefined && way.isActive && !typed.isActive}
    <p class="sheet border-accent border-l-8">
      It is offered at no event any more. Payments taken so far stay as they were.
    </p>
  {/if}
</StallForm>
