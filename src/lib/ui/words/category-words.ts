import type { CategoryRefusal } from '../../core/goods/categories';
import type { Fault } from '../forms/faults.svelte';

export const categoryFault = (refusal: CategoryRefusal): Fault => ({
  field: 'name',
  says:
    refusal.code === 'category/no-name'
      ? 'Give it a name.'
      : `There is a category called ${refusal.name} already.`,
});
