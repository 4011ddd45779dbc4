<script lang="ts">
  import { may, type Right } from '$lib/core/people/rights';
  import type { Row } from '$lib/core/books/tables';
  import { checkPin } from '$lib/device/check-pin';
  import PinPad from '$lib/ui/people/PinPad.svelte';
  import { rightWords, wrongPinWords } from '$lib/ui/words/people-words';
  import { useStall } from './stall.svelte';

  interface Props {
    right: Right;
    /** Other rights that are lent with it. */
    also?: readonly Right[];
    /** Called with who lent it, once their PIN has been checked. */
    onLent: (lender: string) => void;
    onBack: () => void;
  }
  const { right, also = [], onLent, onBack }: Props = $props();
  const stall = useStall();
  // Without a PIN nobody could show that it is really they who lend it.
  const lenders = $derived(
    stall.staff.filter(
      (each) => each.pin !== null && [right, ...also].every((wanted) => may(each, wanted)),
    ),
  );
  let lender = $state.raw<Row<'staff'> | null>(null);
  let says = $state('');
  let isBusy = $state(false);

  async function lend(from: Row<'staff'>, pin: string): Promise<void> {
    isBusy = true;
    says = '';
    const checked = await checkPin(stall.db, stall.identity.business, from, pin, Date.now());
    isBusy = false;
    if (checked.ok) onLent(from.id);
    else says = wrongPinWords(checked.code, checked.wait);
  }
</script>

<section class="sheet border-accent grid gap-3 border-l-8" aria-label="Lend a right">
  {#if lender !== null}
    {@const from = lender}
    <PinPad
      name={from.name}
      does="Allow it this once"
      {says}
      {isBusy}
      onPin={(pin) => lend(from, pin)}
      onBack={() => (lender = null)}
    />
  {:else}
    <p>
      {stall.seller?.name ?? 'Nobody signed in'} may not {rightWords[right]}. Somebody who may can
      lend it for this once, with their own PIN.
    </p>
    <div class="flex flex-wrap gap-2">
      {#each lenders as each (each.id)}
        <button type="button" class="btn btn-quiet" onclick={() => (lender = each)}
          >{each.name}</button
        >
      {:else}
        <p class="soft">Nobody with a PIN has it.</p>
      {/each}
      <button type="button" class="btn btn-quiet" onclick={onBack}>Cancel</button>
    </div>
  {/if}
</section>
