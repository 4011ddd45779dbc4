<script lang="ts">
  /** What was booked wrongly of the sale, put right by a record that says so. */
  import { toast } from 'svelte-sonner';
  import { findCustomers } from '$lib/core/customer/find-customers';
  import { namesOf } from '$lib/core/customer/joined';
  import type { Fix } from '$lib/core/daybook/kinds/sale-corrected';
  import { eventsAbout } from '$lib/core/event/events-about';
  import { readAmount } from '$lib/core/money/amount-text';
  import { isHeldMethod } from '$lib/core/held/held-account';
  import { allWays, CASH_WAY } from '$lib/core/payment/ways';
  import { changeOf, eachOnce } from '$lib/core/sale/corrections';
  import { couldBe } from '$lib/core/sale/correct-sale';
  import type { SaleDocument } from '$lib/core/sale/sale-document';
  import { correctOnce } from '$lib/device/correct-sale';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import {
    correctRefusalWords,
    fixWords,
    MISTAKES,
    type FixNames,
  } from '$lib/ui/words/correct-words';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import RightButton from '../../RightButton.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    found: SaleDocument;
  }
  const { found }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  const money = $derived(stall.money);
  /** A card that was charged is given back instead, what was exchanged stays, and so does what an account paid. */
  const parts = $derived(
    found.payments.filter(
      ({ card, method }) => card === null && method !== 'exchange' && !isHeldMethod(method),
    ),
  );
  const inCash = $derived(parts.filter(({ drawer }) => drawer !== null));
  const inDrawers = $derived(found.payments.filter(({ drawer }) => drawer !== null));
  const ways = $derived(
    allWays(stall.wayRows).filter(
      ({ method, isActive, needsCustomer }) =>
        isActive &&
        method !== 'card' &&
        method !== 'keyed' &&
        !isHeldMethod(method) &&
        (!needsCustomer || found.sale.customer !== null),
    ),
  );
  const mistakes = $derived(
    (Object.keys(MISTAKES) as Fix['is'][]).filter((is) =>
      is === 'way' ? parts.length > 0 : is === 'change' ? inCash.length > 0 : true,
    ),
  );
  const items = live(() => () => books.items.toArray(), []);
  const customers = live(() => () => books.customers.toArray(), []);
  const customerNames = $derived(namesOf(customers.value));
  const names: FixNames = {
    get money() {
      return stall.money;
    },
    person: (id) => stall.nameOf(id),
    customer: (id) => customerNames.get(id) ?? 'a customer',
    drawer: (id) => drawers.value.find((each) => each.id === id)?.name ?? 'a drawer',
    event: (id) => stall.events.find((each) => each.id === id)?.name ?? 'another event',
  };
  const drawers = live(() => () => books.drawers.toArray(), []);

  let isOpen = $state(false);
  let is = $state<Fix['is']>('way');
  let part = $state('');
  let way = $state('');
  let reference = $state('');
  let change = $state('');
  let line = $state(0);
  let item = $state('');
  let seller = $state('');
  let customer = $state('');
  let event = $state('');
  let cash = $state('');
  let typed = $state('');
  let reason = $state('');
  let wrong = $state('');
  const chosen = $derived(
    (is === 'change' ? inCash : parts).find(({ id }) => id === part) ??
      (is === 'change' ? inCash : parts)[0],
  );
  const to = $derived(ways.find(({ id }) => id === way));
  const drawer = $derived(stall.drawer ?? stall.openDrawers[0]);
  const of = $derived(found.lines.find((each) => each.line === line) ?? found.lines[0]);
  const alike = $derived(
    items.value.filter(
      (each) => of !== undefined && each.isActive && each.id !== of.item && couldBe(of, each),
    ),
  );
  const events = $derived(eventsAbout(stall.events, found.sale.day, found.sale.event));
  const drawersThere = $derived(drawers.value.filter((each) => each.event === event));
  const people = $derived(
    typed.trim() === '' ? [] : findCustomers(typed, customers.value).slice(0, 6),
  );

  function begin(): void {
    [isOpen, is] = [true, mistakes[0] ?? 'item'];
    way = reference = change = item = seller = customer = event = cash = '';
    [typed, reason, wrong, part, line] = ['', '', '', '', found.lines[0]?.line ?? 0];
  }

  /** What is said to have been so, or what is still to be said. */
  function fix(): Fix | string {
    switch (is) {
      case 'way': {
        if (chosen === undefined || to === undefined) return 'Choose how it was paid.';
        if (to.reference !== '' && reference.trim() === '') return `Type the ${to.reference}.`;
        const isCash = to.id === CASH_WAY.id;
        return {
          ...{ is, part: chosen.id, way: to.id, wayName: to.name, method: to.method },
          drawer: isCash ? (drawer?.id ?? null) : null,
          reference: reference.trim(),
        };
      }
      case 'change': {
        const read = readAmount(change, money.currency);
        if (chosen === undefined || !read.ok)
          return 'Type the change that was handed out, such as 2.50.';
        return { is, part: chosen.id, change: read.amount };
      }
      case 'item': {
        const other = alike.find(({ id }) => id === item);
        if (of === undefined || other === undefined) return 'Choose what it was.';
        const { id, name, detail, unit, cost, isStocked, maker } = other;
        return { is, line: of.line, item: id, name, detail, unit, cost, isStocked, maker };
      }
      case 'customer':
        return { is, customer: customer === '' ? null : customer };
      case 'seller':
        return { is, seller: seller === '' ? null : seller };
      case 'event': {
        if (event === '') return 'Choose where it was sold.';
        const isThere = drawersThere.some(({ id }) => id === cash);
        return { is, move: newId(), to: event, cash: isThere ? cash : null };
      }
    }
  }

  async function go(lentBy?: string): Promise<void> {
    const said = fix();
    if (typeof said === 'string') {
      wrong = said;
      return;
    }
    const outcome = await correctOnce(stall.daybook, { found, fix: said, reason, lentBy });
    if (!outcome.ok) {
      wrong = outcome.refusal.code === 'slip/gone' ? '' : correctRefusalWords(outcome.refusal);
      return;
    }
    isOpen = false;
    toast(`${found.sale.number} is put right.`);
  }
</script>

{#each eachOnce(found.corrections) as row (row.id)}
  <section
    class="sheet border-accent mx-auto grid w-full max-w-md gap-1 border-l-8 print:hidden"
    aria-label="Put right"
    data-testid="corrected"
  >
    <p><b>Booked wrongly, and put right.</b> {fixWords(row.fix, names)}.</p>
    <p class="soft text-sm">{stall.nameOf(row.by)}: {row.reason}</p>
  </section>
{/each}
<section class="sheet mx-auto grid w-full max-w-md gap-3 print:hidden" aria-label="Booked wrongly">
  {#if isOpen}
    <h2>What was booked wrongly</h2>
    <label class="grid gap-1 font-[560]">
      What it was
      <select class="select min-h-12 w-full" bind:value={is} onchange={() => (wrong = '')}>
        {#each mistakes as each (each)}<option value={each}>{MISTAKES[each]}</option>{/each}
      </select>
    </label>
    {#if (is === 'way' && parts.length > 1) || (is === 'change' && inCash.length > 1)}
      <label class="grid gap-1 font-[560]">
        Which part
        <select
          class="select min-h-12 w-full"
          bind:value={() => chosen?.id ?? '', (id) => (part = id)}
        >
          {#each is === 'way' ? parts : inCash as { id, wayName, charge } (id)}
            <option value={id}>{wayName}, {money.text(charge)}</option>
          {/each}
        </select>
      </label>
    {/if}
    {#if is === 'way'}
      <label class="grid gap-1 font-[560]">
        In truth paid by
        <select class="select min-h-12 w-full" bind:value={way}>
          <option value="">choose</option>
          {#each ways.filter(({ id }) => id !== chosen?.way) as { id, name } (id)}
            <option value={id}>{name}</option>
          {/each}
        </select>
      </label>
      {#if to?.id === CASH_WAY.id && drawer !== undefined}
        <p class="soft text-sm">The cash lies in {drawer.name}.</p>
      {/if}
      {#if to !== undefined && to.id !== CASH_WAY.id}
        <Field
          label={to.reference === '' ? 'Reference, if there is one' : to.reference}
          bind:value={reference}
          maxlength={80}
        />
      {/if}
    {:else if is === 'change'}
      <Field
        label="Change that was handed out, booked as {money.text(
          chosen === undefined ? 0 : changeOf(chosen, found),
        )}"
        bind:value={change}
        inputmode="decimal"
      />
    {:else if is === 'item'}
      {#if found.lines.length > 1}
        <label class="grid gap-1 font-[560]">
          Which line
          <select class="select min-h-12 w-full" bind:value={line}>
            {#each found.lines.toSorted((a, b) => a.line - b.line) as each (each.line)}
              <option value={each.line}>{each.name}, {money.text(each.total)}</option>
            {/each}
          </select>
        </label>
      {/if}
      <label class="grid gap-1 font-[560]">
        It was
        <select class="select min-h-12 w-full" bind:value={item}>
          <option value="">{alike.length === 0 ? 'nothing else costs as much' : 'choose'}</option>
          {#each alike as { id, name, detail } (id)}
            <option value={id}>{name}{detail === '' ? '' : `, ${detail}`}</option>
          {/each}
        </select>
      </label>
    {:else if is === 'customer'}
      <Field label="Customer" bind:value={typed} maxlength={80} />
      <div class="flex flex-wrap gap-2" role="group" aria-label="Who it was">
        {#each [{ id: '', name: 'Nobody in particular' }, ...people] as { id, name } (id)}
          <button
            type="button"
            class={['btn btn-quiet', customer === id && '!border-primary !border-3']}
            aria-pressed={customer === id}
            onclick={() => (customer = id)}>{name}</button
          >
        {/each}
      </div>
    {:else if is === 'event'}
      <label class="grid gap-1 font-[560]">
        In truth sold at
        <select class="select min-h-12 w-full" bind:value={event}>
          <option value=""
            >{events.length === 0 ? 'no other event is near that day' : 'choose'}</option
          >
          {#each events as { id, name, days } (id)}
            <option value={id}
              >{name}, {shortDayWords(days[0]?.date ?? '', stall.business.locale)}</option
            >
          {/each}
        </select>
      </label>
      {#if inDrawers.length > 0 && event !== ''}
        <label class="grid gap-1 font-[560]">
          Its cash lies
          <select class="select min-h-12 w-full" bind:value={cash}>
            <option value=""
              >in {names.drawer(inDrawers[0]?.drawer ?? '')}, where it was taken</option
            >
            {#each drawersThere as { id, name } (id)}
              <option value={id}>in {name} there</option>
            {/each}
          </select>
        </label>
      {/if}
      <p class="soft text-sm">
        Takings, tax, stock and what paid for it are of that event then. Cash that stays in a drawer
        here is in the settling of both, as taken at another event.
      </p>
    {:else}
      <label class="grid gap-1 font-[560]">
        Sold by
        <select class="select min-h-12 w-full" bind:value={seller}>
          <option value="">whoever rang it up</option>
          {#each stall.staff as { id, name } (id)}<option value={id}>{name}</option>{/each}
        </select>
      </label>
    {/if}
    <Field label="Why" bind:value={reason} maxlength={200} />
    {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
    <div class="flex flex-wrap gap-2">
      <RightButton right="sale.void" label="Put it right" onGo={go} />
      <button type="button" class="btn btn-quiet" onclick={() => (isOpen = false)}>Cancel</button>
    </div>
  {:else}
    <button type="button" class="btn btn-quiet justify-self-start" onclick={begin}
      >Booked wrongly …</button
    >
  {/if}
</section>
