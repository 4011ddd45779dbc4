<!-- The records of one person: those that were joined, joining another one, and taking them apart again. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { findCustomers } from '$lib/core/customer/find-customers';
  import { detailsOfBoth, joinCustomers, takeApart } from '$lib/core/customer/join-customers';
  import { maybeSame } from '$lib/core/customer/same-contact';
  import { customerHolds } from '$lib/device/held-accounts';
  import { live } from '$lib/device/live.svelte';
  import { newId, newSalt } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { DETAIL_NAMES, joinRefusalWords } from '$lib/ui/words/customer-words';
  import { agreedWords, holdsWords } from '$lib/ui/words/held-words';
  import RightButton from '../../RightButton.svelte';
  import { useStall } from '../../stall.svelte';
  import { stillHere } from '../../still-here';

  interface Props {
    customer: Row<'customers'>;
    /** All of theirs, the one they go by first. */
    rows: readonly Row<'customers'>[];
  }
  const { customer, rows }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const AT_MOST = 6;

  let isAsking = $state(false);
  let typed = $state('');
  let other = $state.raw<Row<'customers'> | undefined>(undefined);
  /** They go by the other record from now on. */
  let isSwapped = $state(false);
  let wrong = $state('');
  const all = live(() => () => db.books.customers.toArray(), []);
  const maybe = $derived(maybeSame(customer, all.value, stall.business.locale));
  const found = $derived(
    typed.trim() === ''
      ? []
      : findCustomers(typed, all.value).filter(({ id }) => id !== customer.id),
  );
  const into = $derived(isSwapped && other !== undefined ? other : customer);
  const from = $derived(isSwapped ? customer : other);
  const together = $derived(from === undefined ? null : detailsOfBoth(into, from));
  const others = $derived(rows.filter(({ id }) => id !== customer.id));

  const holds = live(() => {
    const pair = other === undefined ? [] : [customer, other];
    return async () =>
      await Promise.all(pair.map(async (each) => ({ each, holds: await customerHolds(db, each) })));
  }, []);

  function choose(each: Row<'customers'>): void {
    [other, isAsking, isSwapped, typed, wrong] = [each, true, false, '', ''];
  }

  function stop(): void {
    [other, isAsking, typed, wrong] = [undefined, false, '', ''];
  }

  async function join(lentBy?: string): Promise<void> {
    if (from === undefined) return;
    const isHere = stillHere();
    const pair = { customer: from.id, into: into.id };
    const made = await stall.daybook.decide(
      () => db.books.customers.toArray(),
      (customers) => joinCustomers({ newId, newSalt, ...pair, customers }),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong = made.ok ? '' : joinRefusalWords(made.refusal);
    if (!made.ok) return;
    toast(`They are one: ${into.name}.`);
    const by = pair.into;
    stop();
    if (by !== customer.id && isHere()) await goto(`/customers/${by}`);
  }

  async function part(record: Row<'customers'>, lentBy?: string): Promise<void> {
    await stall.daybook.append(
      () => takeApart(newId, record.id),
      lentBy === undefined ? {} : { lentBy },
    );
    toast(`${record.name} stands alone again, with what was said on that record.`);
  }

  const about = ({ company, phone, email }: Row<'customers'>): string =>
    [company, phone, email].filter((each) => each !== '').join(' · ');
</script>

<section class="sheet grid gap-3" aria-labelledby="records">
  <h2 id="records">Records</h2>
  {#if others.length > 0}
    <p class="soft">What was said on any of these is theirs, and stays on it.</p>
    <ul class="grid" data-testid="records">
      {#each others as record (record.id)}
        <li
          class="border-base-300 flex flex-wrap items-center justify-between gap-3 border-b border-dashed py-2 last:border-0"
        >
          <span><b>{record.name}</b> <span class="soft">{about(record)}</span></span>
          <RightButton
            right="set-up"
            look="btn-quiet"
            label="Take {record.name} apart"
            onGo={(lentBy) => part(record, lentBy)}
          />
        </li>
      {/each}
    </ul>
  {/if}
  {#if !isAsking}
    {#each maybe.slice(0, AT_MOST) as { customer: each, by } (each.id)}
      <p class="flex flex-wrap items-center justify-between gap-3" data-testid="maybe-same">
        <span><b>{each.name}</b> has the same {by}.</span>
        <button type="button" class="btn btn-quiet" onclick={() => choose(each)}
          >Is it one person?</button
        >
      </p>
    {/each}
    <button type="button" class="btn btn-quiet justify-self-start" onclick={() => (isAsking = true)}
      >Join another record …</button
    >
  {:else if from === undefined || together === null}
    <Field label="The other record" bind:value={typed} maxlength={80} autocomplete="off" />
    <div class="flex flex-wrap gap-2" role="group" aria-label="Records that fit">
      {#each found.slice(0, AT_MOST) as each (each.id)}
        <button type="button" class="btn btn-quiet" onclick={() => choose(each)}
          >{each.name}{each.company === '' ? '' : `, ${each.company}`}</button
        >
      {/each}
      {#if typed.trim() !== '' && found.length === 0}<p class="soft">Nobody else fits.</p>{/if}
    </div>
    <button type="button" class="btn btn-quiet justify-self-start" onclick={stop}>Cancel</button>
  {:else}
    <div
      class="bg-base-200 grid gap-3 rounded-lg p-3"
      role="group"
      aria-label="Are they one person?"
      data-testid="joining"
    >
      <dl class="grid gap-2">
        {#each Object.entries(DETAIL_NAMES) as [field, name] (field)}
          {@const key = field as keyof typeof together}
          {#if together[key] !== ''}
            <div class="grid gap-x-3 sm:grid-cols-[9rem_1fr]">
              <dt class="soft">{name}</dt>
              <dd>
                <span class="whitespace-pre-line">{together[key]}</span>
                {#if from[key] !== '' && !together[key].includes(from[key])}
                  <span class="soft">(and {from[key]})</span>
                {/if}
              </dd>
            </div>
          {/if}
        {/each}
        <div class="grid gap-x-3 sm:grid-cols-[9rem_1fr]">
          <dt class="soft">Agreed</dt>
          <dd>
            {agreedWords(into, money)}
            {#if agreedWords(from, money) !== agreedWords(into, money)}
              <span class="soft">(no longer {agreedWords(from, money)})</span>
            {/if}
          </dd>
        </div>
        {#each holds.value as { each, holds: has } (each.id)}
          {#if holdsWords(has, money) !== ''}
            <div class="grid gap-x-3 sm:grid-cols-[9rem_1fr]">
              <dt class="soft">{each.name}</dt>
              <dd>{holdsWords(has, money)}</dd>
            </div>
          {/if}
        {/each}
      </dl>
      <p class="soft">
        What either has and owes is theirs together. Nothing is moved: they can be taken apart
        again.
      </p>
      <div class="flex flex-wrap gap-2">
        <RightButton right="set-up" look="btn-main" label="They are one: {into.name}" onGo={join} />
        <button type="button" class="btn btn-quiet" onclick={() => (isSwapped = !isSwapped)}
          >They go by {isSwapped ? customer.name : (other?.name ?? '')}</button
        >
        <button type="button" class="btn btn-quiet" onclick={stop}>Cancel</button>
      </div>
      {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
    </div>
  {/if}
</section>
