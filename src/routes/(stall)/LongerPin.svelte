<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { pinFault, type PinRefusal } from '$lib/core/people/pin';
  import { isPinTaken } from '$lib/device/pin-hash';
  import PinPad from '$lib/ui/people/PinPad.svelte';
  import { pinWords } from '$lib/ui/words/people-words';
  import { useStall } from './stall.svelte';

  interface Props {
    person: Row<'staff'>;
    /** Why they could not begin with it, or empty. */
    failed: string;
    isBeginning: boolean;
    onSet: (pin: string) => void;
    onBack: () => void;
  }
  const { person, failed, isBeginning, onSet, onBack }: Props = $props();
  const stall = useStall();
  /** Typed once; it is kept when it has been typed a second time. */
  let first = $state<string | null>(null);
  let says = $state('');
  let isBusy = $state(false);

  async function typed(pin: string): Promise<void> {
    says = '';
    if (first !== null) {
      if (pin === first) onSet(pin);
      else [first, says] = [null, 'Those were two different ones. Type the new PIN once more.'];
      return;
    }
    isBusy = true;
    const others = stall.staff.filter(({ id }) => id !== person.id);
    const refusal: PinRefusal | null =
      pinFault(pin, person) ??
      ((await isPinTaken(others, pin, stall.identity.business)) ? { code: 'pin/taken' } : null);
    isBusy = false;
    if (refusal === null) first = pin;
    else says = pinWords(refusal);
  }
</script>

<h1 class="mx-auto w-full max-w-xs">A longer PIN, {person.name}</h1>
<p class="mx-auto w-full max-w-xs">
  {first === null
    ? 'You may do more than sell, so your PIN has at least six figures from now on. Choose one.'
    : 'Type it once more.'}
</p>
{#key first}
  <PinPad
    name={person.name}
    does={first === null ? 'Next' : 'Use this PIN'}
    says={says === '' ? failed : says}
    isBusy={isBusy || isBeginning}
    onPin={typed}
    {onBack}
  />
{/key}
