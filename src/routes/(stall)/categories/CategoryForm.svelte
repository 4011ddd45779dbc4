<script lang="ts">
  /** What a category is called: of one there is, or of a new one. */
  import type { Row } from '$lib/core/books/tables';
  import { setCategory } from '$lib/core/goods/categories';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { categoryFault } from '$lib/ui/words/category-words';
  import { StallForm as Form } from '../forms/stall-form.svelte';
  import StallForm from '../forms/StallForm.svelte';

  interface Props {
    /** None for a new one. */
    category?: Row<'categories'>;
    categories: readonly Row<'categories'>[];
    /** Goods that carry the name of a new one become its goods. */
    items: readonly Row<'items'>[];
    onDone?: () => void;
  }
  const { category, categories, items, onDone = () => undefined }: Props = $props();
  // svelte-ignore state_referenced_locally
  const start = category;
  const isNew = start === undefined;
  const form = new Form({
    about: `category ${start?.id ?? 'new'}`,
    from: start?.setStamp ?? '',
    begin: { name: start?.name ?? '' },
    command:
      ({ name }) =>
      () =>
        setCategory({
          ...{ newId, name, categories },
          id: start?.id ?? null,
          // As it is by now: it may have been put away while this was open.
          isActive: category?.isActive ?? true,
          items: isNew ? items : [],
        }),
    says: categoryFault,
    saved: ({ name }) => `${name.trim()} is saved.`,
    then: () => {
      if (isNew) form.typed.name = '';
      onDone();
    },
  });
</script>

<StallForm
  {form}
  class="flex min-w-0 flex-wrap items-end gap-3"
  name={start?.name ?? 'A new category'}
  label={isNew ? 'Add it' : 'Save'}
  look="btn-quiet"
>
  <div class="min-w-0 flex-[1_1_14rem]">
    <Field
      label={isNew ? 'New category' : 'Name'}
      at="name"
      bind:value={form.typed.name}
      maxlength={80}
    />
  </div>
</StallForm>
