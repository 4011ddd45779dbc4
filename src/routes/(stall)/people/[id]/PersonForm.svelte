<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Row } from '$lib/core/books/tables';
  import { pinFault } from '$lib/core/people/pin';
  import {
    isTrusted,
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
  import Field from '$lib/ui/forms/Field.svelte';
  import Saying from '$lib/ui/forms/Saying.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { personFault, rightWords, roleWords } from '$lib/ui/words/people-words';
  import { StallForm as Form, type Command } from '../../forms/stall-form.svelte';
  import StallForm from '../../forms/StallForm.svelte';
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
  const begin = {
    name: start?.name ?? '',
    // svelte-ignore state_referenced_locally
    role: start?.role ?? (isFirst ? 'owner' : 'helper'),
    rights: RIGHTS.filter((right) => start?.rights.includes(right)),
    discountUpTo: start?.discountUpTo ?? '0',
    isActive: start?.isActive ?? true,
  };
  const form = new Form({
    about: `person ${start?.id ?? 'new'}`,
    from: start?.setStamp ?? '',
    begin,
    command: made,
    says: personFault,
    saved: ({ name }) => `${name.trim()} is saved.`,
    then: () => goto('/people'),
  });
  const { typed } = form;
  /** Apart: nobody keeps it but as what it is hashed to. */
  let pin = $state('');

  const canGive = (right: Right): boolean =>
    isOwner || may(stall.seller, right) || (start?.rights.includes(right) ?? false);
  const isLockedFor = $derived(!isOwner && start?.role === 'owner');
  /** A PIN that is there is its holder's own; an owner can set another one for somebody who forgot it. */
  const maySetPin = $derived(isOwner || start?.pin == null || start.id === stall.seller?.id);

  function takeRole(chosen: Role): void {
    typed.role = chosen;
    typed.rights = RIGHTS_TO_BEGIN_WITH[chosen].filter(canGive);
  }

  async function made(said: typeof begin): Promise<Command<PersonRefusal>> {
    const fault = pin === '' ? null : pinFault(pin, said);
    if (fault !== null) return refuse(fault);
    const { business } = stall.identity;
    const others = stall.staff.filter(({ id }) => id !== start?.id);
    if (pin !== '' && (await isPinTaken(others, pin, business)))
      return refuse({ code: 'pin/taken' });
    const hash = pin === '' ? null : await hashPin(pin, business, newSalt());
    const people = stall.everybody;
    return () => setPerson({ newId, id: start?.id ?? null, ...said, pin: hash, people });
  }
  const refuse = (refusal: PersonRefusal) => (): ReturnType<Command<PersonRefusal>> => ({
    ok: false,
    refusal,
  });
</script>

{#if isLockedFor}
  <p class="sheet">Only an owner can change what an owner is.</p>
{:else}
  <StallForm {form} right={isFirst ? null : 'set-up'} class="sheet grid gap-4">
    <Field label="Name" at="name" bind:value={typed.name} maxlength={80} autocomplete="off" />
    <fieldset class="grid gap-2">
      <legend class="mb-1 font-[560]">Role</legend>
      <div class="flex flex-wrap gap-2">
        {#each ROLES as each (each)}
          <button
            type="button"
            class={['btn btn-quiet', typed.role === each && '!border-primary !border-3']}
            aria-pressed={typed.role === each}
            disabled={(isFirst && each !== 'owner') || (!isOwner && each === 'owner')}
            onclick={() => takeRole(each)}>{roleWords[each]}</button
          >
        {/each}
      </div>
    </fieldset>
    {#if typed.role !== 'owner'}
      <fieldset class="grid gap-1">
        <legend class="mb-1 font-[560]">May</legend>
        {#each RIGHTS as right (right)}
          <label class="flex min-h-12 items-center gap-3">
            <input
              type="checkbox"
              class="checkbox size-6 !rounded-md"
              bind:group={typed.rights}
              value={right}
              disabled={!canGive(right)}
            />
            {rightWords[right]}
          </label>
        {/each}
      </fieldset>
      <Field
        label="Discount that needs no right, percent off a line"
        at="discountUpTo"
        bind:value={typed.discountUpTo}
        inputmode="decimal"
      />
    {/if}
    {#if maySetPin}
      <label class="grid gap-1 font-[560]">
        {start?.pin == null ? 'PIN' : 'New PIN'}
        <input
          class={[
            'input amount w-44 tracking-[0.3em]',
            form.faults.at('pin') !== '' && '!border-error',
          ]}
          type="password"
          bind:value={pin}
          inputmode="numeric"
          autocomplete="new-password"
          maxlength="8"
        />
        <span class="soft text-sm font-normal">
          {isTrusted(typed) ? 'Six' : 'Four'} to eight figures.{start?.pin == null
            ? ' Without one, anybody can sign in under this name.'
            : ' Left empty, it stays as it is.'}
        </span>
      </label>
      <Saying at="pin" />
    {:else}
      <p class="soft">Only {start?.name} and an owner can set another PIN.</p>
    {/if}
    {#if start !== undefined}<Tick label="Works here" bind:checked={typed.isActive} />{/if}
  </StallForm>
{/if}
