<script lang="ts" generics="T extends object, R">
  import type { Snippet } from 'svelte';
  import type { ClassValue } from 'svelte/elements';
  import type { Right } from '$lib/core/people/rights';
  import { setFaults } from '$lib/ui/forms/faults.svelte';
  import RightButton from '../RightButton.svelte';
  import type { StallForm } from './stall-form.svelte';

  interface Props {
    form: StallForm<T, R>;
    /** The right that saving asks for, or null if everybody may. */
    right?: Right | null;
    label?: string;
    look?: string;
    class?: ClassValue;
    /** Whether there is anything to save. */
    isChanged?: boolean;
    /** What it is, for those who do not see it. */
    name?: string | undefined;
    children: Snippet;
    /** What stands beside its button. */
    beside?: Snippet;
  }
  const {
    form,
    right = 'set-up',
    label = 'Save',
    look,
    class: looks = 'grid grid-cols-[minmax(0,1fr)] gap-5',
    isChanged = true,
    name,
    children,
    beside,
  }: Props = $props();
  // svelte-ignore state_referenced_locally
  setFaults(form.faults);
</script>

<form class={looks} aria-label={name} onsubmit={(event) => event.preventDefault()}>
  {@render children()}
  {#if form.faults.elsewhere !== ''}
    <p class="text-error col-span-full" role="alert">{form.faults.elsewhere}</p>
  {/if}
  {#if isChanged || beside !== undefined}
    <div class="col-span-full flex flex-wrap items-center gap-3">
      {#if isChanged}
        <RightButton
          {right}
          {label}
          {...look === undefined ? {} : { look }}
          isBusy={form.isBusy}
          onGo={(lentBy) => form.save(lentBy)}
        />
      {/if}
      {@render beside?.()}
    </div>
  {/if}
</form>
