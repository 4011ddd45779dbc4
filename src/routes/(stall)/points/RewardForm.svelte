<script lang="ts">
  import { categoryName } from '$lib/core/goods/categories';
  import type { Reward } from '$lib/core/points/points-rule';
  import { setReward, typedReward } from '$lib/core/points/set-points';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { setPointsWords } from '$lib/ui/words/points-words';
  import { StallForm as Form } from '../forms/stall-form.svelte';
  import StallForm from '../forms/StallForm.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    reward?: Reward;
    rewards: readonly Reward[];
    onDone?: () => void;
  }
  const { reward, rewards, onDone = () => undefined }: Props = $props();
  const stall = useStall();
  // svelte-ignore state_referenced_locally
  const start = reward;
  const form = new Form({
    about: `reward ${start?.id ?? 'new'}`,
    from: start?.setStamp ?? '',
    begin: (() => {
      const { categories, ...typed } = typedReward(start, (amount) => stall.money.plain(amount));
      return { ...typed, categories: [...categories] };
    })(),
    command: (typed) => () =>
      setReward({
        ...{ newId, id: start?.id ?? null, typed, rewards },
        currency: stall.business.currency,
      }),
    says: (refusal) => ({ field: refusal.field, says: setPointsWords(refusal, stall.money) }),
    saved: ({ name }) => `${name.trim()} is saved.`,
    then: () => onDone(),
  });
  const { typed } = form;
  const items = live(() => () => stall.db.books.items.toArray(), []);
  const known = live(() => () => stall.db.books.categories.toArray(), []);
  /** Those that goods are in, and those that it has had. */
  const categories = $derived(
    [
      ...new Set([
        ...items.value.flatMap(({ category, isActive }) => (isActive ? category : [])),
        ...(start?.categories ?? []),
      ]),
    ]
      .filter((each) => each !== '')
      .map((id) => ({ id, name: categoryName(id, known.value) }))
      .toSorted((a, b) => (a.name < b.name ? -1 : 1)),
  );
</script>

<StallForm
  {form}
  class="grid items-start gap-3 sm:grid-cols-2"
  name={start?.name ?? 'A new reward'}
  look="btn-quiet"
>
  <div class="sm:col-span-2">
    <Field label="Name" bind:value={typed.name} maxlength={80} at="name" />
  </div>
  <Field label="Once they have spent" bind:value={typed.spend} inputmode="decimal" at="spend" />
  <Field label="they get off, at most" bind:value={typed.value} inputmode="decimal" at="value" />
  <Field label="First day; empty is any" type="date" bind:value={typed.from} at="from" />
  <Field label="Last day; empty is any" type="date" bind:value={typed.until} at="until" />
  {#if categories.length > 0}
    <fieldset class="flex flex-wrap gap-x-4 sm:col-span-2">
      <legend class="font-[560]">Only for these goods; none are all that bring points</legend>
      {#each categories as { id, name } (id)}
        <label class="flex min-h-12 items-center gap-2">
          <input
            type="checkbox"
            class="checkbox size-6 !rounded-md"
            bind:group={typed.categories}
            value={id}
          />
          {name}
        </label>
      {/each}
    </fieldset>
  {/if}
  {#if start !== undefined}
    <div class="sm:col-span-2">
      <Tick label="Can be reached and used" bind:checked={typed.isActive} />
    </div>
  {/if}
</StallForm>
