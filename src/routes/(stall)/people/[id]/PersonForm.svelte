<script lang="ts">
  import { goto } from '$app/navigation';
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { pinFault } from '$lib/core/people/pin';
  import {
    may,
    RIGHTS,
    RIGHTS_TO_BEGIN_WITH,
    ROLES,
    type Right,
    type Role,
  } from '$lib/core/people/rights';
  import { setPerson, type PersonRefusal } from '$lib/core/people/set-person';
  import { newId, newSalt } from '$lib/device/new-id';
  import { hashPin, isPinTaken } from '$lib/device/pin-hash';
  import { personRefusalWords, rightWords, roleWords } from '$lib/ui/words/people-words';
  import LendRight from '../../LendRight.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    /** Nobody yet when somebody new is set up. */
    person?: Row<'staff'>;
  }
  const { person }: Props = $props();
  const stall = useStall();
  const isFirst = $derived(stall.everybody.length === 0);
  /** Only owners make or change owners; the server asks the same. */
  const isOwner = $derived(isFirst || stall.seller?.role === 'owner');

  // svelte-ignore state_referenced_locally
  const start = person;
  let name = $state(start?.name ?? '');
  let role = $state<Role>(
    // svelte-ignore state_referenced_locally
    (start?.role as Role | undefined) ?? (isFirst ? 'owner' : 'helper'),
  );
  let rights = $state<Right[]>(RIGHTS.filter((right) => start?.rights.includes(right)));
  let discountUpTo = $state(start?.discountUpTo ?? '0');
  let isActive = $state(start?.isActive ?? true);
  let pin = $state('');
  let wrong = $state.raw<PersonRefusal | null>(null);
  let isLending = $state(false);
  let isBusy = $state(false);

  const canGive = (right: Right): boolean =>
    isOwner || may(stall.seller, right) || (start?.rights.includes(right) ?? false);
  const isLockedFor = $derived(!isOwner && start?.role === 'owner');
  /** A PIN that is there is its holder's own; an owner can set another one for somebody who forgot it. */
  const maySetPin = $derived(isOwner || start?.pin == null || start.id === stall.seller?.id);

  function takeRole(chosen: Role): void {
    role = chosen;
    rights = RIGHTS_TO_BEGIN_WITH[chosen].filter(canGive);
  }

  async function save(lentBy?: string): Promise<void> {
    isLending = false;
    wrong = pin === '' ? null : pinFault(pin, { role, rights });
    if (wrong !== null) return;
    if (lentBy === undefined && !isFirst && !stall.may('set-up')) {
      isLending = true;
      return;
    }
    isBusy = true;
    const { business } = stall.identity;
    const others = stall.staff.filter(({ id }) => id !== start?.id);
    if (pin !== '' && (await isPinTaken(others, pin, business))) {
      wrong = { code: 'pin/taken' };
      isBusy = false;
      return;
    }
    const hash = pin === '' ? null : await hashPin(pin, business, newSalt());
    const outcome = await stall.daybook.append(
      () =>
        setPerson({
          newId,
          id: start?.id ?? null,
          name,
          role,
          isActive,
          rights,
          discountUpTo,
          pin: hash,
          people: stall.everybody,
        }),
      lentBy === undefined ? {} : { lentBy },
    );
    isBusy = false;
    if (!outcome.ok) {
      if (outcome.refusal.code !== 'slip/gone') wrong = outcome.refusal;
      return;
    }
    toast(`${name.trim()} is saved.`);
    await goto('/people');
  }
</script>

{#if isLockedFor}
  <p class="sheet">Only an owner can change what an owner is.</p>
{:else}
  <form
    class="sheet grid gap-4"
    onsubmit={(event) => {
      event.preventDefault();
      void save();
    }}
  >
    <label class="grid gap-1 font-[560]">
      Name
      <input
        class={['input w-full', wrong?.code.startsWith('person/n') && '!border-error']}
        bind:value={name}
        maxlength="80"
        autocomplete="off"
      />
    </label>
    <fieldset class="grid gap-2">
      <legend class="mb-1 font-[560]">Role</legend>
      <div class="flex flex-wrap gap-2">
        {#each ROLES as each (each)}
          <button
            type="button"
            class={['btn btn-quiet', role === each && '!border-primary !border-3']}
            aria-pressed={role === each}
            disabled={(isFirst && each !== 'owner') || (!isOwner && each === 'owner')}
            onclick={() => takeRole(each)}>{roleWords[each]}</button
          >
        {/each}
      </div>
    </fieldset>
    {#if role !== 'owner'}
      <fieldset class="grid gap-1">
        <legend class="mb-1 font-[560]">May</legend>
        {#each RIGHTS as right (right)}
          <label class="flex min-h-12 items-center gap-3">
            <input
              type="checkbox"
              class="checkbox size-6 !rounded-md"
              bind:group={rights}
              value={right}
              disabled={!canGive(right)}
            />
            {rightWords[right]}
          </label>
        {/each}
      </fieldset>
      <label class="grid gap-1 font-[560]">
        Discount that needs no right, percent off a line
        <input
          class={['input figure w-28', wrong?.code === 'person/discount-wrong' && '!border-error']}
          bind:value={discountUpTo}
          inputmode="decimal"
        />
      </label>
    {/if}
    {#if maySetPin}
      <label class="grid gap-1 font-[560]">
        {start?.pin == null ? 'PIN' : 'New PIN'}
        <input
          class={[
            'input amount w-44 tracking-[0.3em]',
            wrong?.code.startsWith('pin/') && '!border-error',
          ]}
          type="password"
          bind:value={pin}
          inputmode="numeric"
          autocomplete="new-password"
          maxlength="8"
        />
        <span class="soft text-sm font-normal">
          {role === 'owner' || rights.length > 0 ? 'Six' : 'Four'} to eight figures.{start?.pin ==
          null
            ? ' Without one, anybody can sign in under this name.'
            : ' Left empty, it stays as it is.'}
        </span>
      </label>
    {:else}
      <p class="soft">Only {start?.name} and an owner can set another PIN.</p>
    {/if}
    {#if start !== undefined}
      <label class="flex min-h-12 items-center gap-3 font-[560]">
        <input type="checkbox" class="checkbox size-6 !rounded-md" bind:checked={isActive} />
        Works here
      </label>
    {/if}
    {#if wrong !== null}<p class="text-error" role="alert">{personRefusalWords(wrong)}</p>{/if}
    {#if isLending}
      <LendRight
        right="set-up"
        onLent={(lender) => save(lender)}
        onBack={() => (isLending = false)}
      />
    {:else}
      <button class="btn btn-main justify-self-start px-6" disabled={isBusy}>Save</button>
    {/if}
  </form>
{/if}
