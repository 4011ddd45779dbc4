<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import PinPad from '$lib/ui/people/PinPad.svelte';
  import { faultWords } from '$lib/ui/words/fault-words';
  import { wrongPinWords } from '$lib/ui/words/people-words';
  import LongerPin from './LongerPin.svelte';
  import { useStall } from './stall.svelte';

  interface Props {
    onSignedIn: () => void;
    /** Somebody is being asked for their PIN: nothing else is of use meanwhile. */
    isAsking?: boolean;
  }
  let { onSignedIn, isAsking = $bindable(false) }: Props = $props();
  const stall = useStall();

  let asked = $state.raw<Row<'staff'> | null>(null);
  /** Their PIN was right, and is too short for what they may do. */
  let renewing = $state.raw<Row<'staff'> | null>(null);
  let says = $state('');
  $effect(() => {
    isAsking = asked !== null || renewing !== null;
  });
  let isBusy = $state(false);

  async function choose(person: Row<'staff'>): Promise<void> {
    says = '';
    if (person.pin === null) await signIn(person, '');
    else asked = person;
  }

  async function signIn(person: Row<'staff'>, pin: string): Promise<void> {
    await whileBusy(async () => {
      const checked = await stall.signIn(person, pin);
      if (!checked.ok) says = wrongPinWords(checked.code, checked.wait);
      else if (checked.needs === 'longer') [asked, renewing] = [null, person];
      else await begin(person, checked.needs === 'salt' ? pin : null);
    });
  }

  /** They are asked until it is on the disk that it is they who sell: what comes next is done in their name. */
  async function begin(person: Row<'staff'>, pin: string | null): Promise<void> {
    await stall.begin(person, pin);
    [asked, renewing] = [null, null];
    onSignedIn();
  }

  async function whileBusy(work: () => Promise<void>): Promise<void> {
    isBusy = true;
    says = '';
    try {
      await work();
    } catch (error) {
      says = `Nobody is signed in: ${faultWords(error)}.`;
    } finally {
      isBusy = false;
    }
  }
</script>

<section
  class="page-sides page-column grid auto-rows-max content-start gap-4 overflow-y-auto pt-4 pb-5 md:pt-10"
>
  {#if renewing !== null}
    {@const person = renewing}
    <LongerPin
      {person}
      failed={says}
      isBeginning={isBusy}
      onSet={(pin) => whileBusy(() => begin(person, pin))}
      onBack={() => (renewing = null)}
    />
  {:else if asked !== null}
    {@const person = asked}
    <h1 class="mx-auto w-full max-w-xs">{person.name}</h1>
    <PinPad
      name={person.name}
      does="Sign in"
      {says}
      {isBusy}
      onPin={(pin) => signIn(person, pin)}
      onBack={() => (asked = null)}
    />
  {:else}
    <h1>Who is selling?</h1>
    <p class="soft">
      Everything that is rung up from now on says so.{stall.slip.isEmpty
        ? ''
        : ' The slip at the counter stays as it is.'}
    </p>
    {#if says !== ''}<p class="text-error" role="alert">{says}</p>{/if}
    <ul class="grid gap-3">
      {#each stall.staff as person (person.id)}
        {@const isHere = stall.choices.by === person.id}
        <li>
          <button
            type="button"
            class={[
              'btn btn-quiet w-full !min-h-16 justify-between px-5 text-lg',
              isHere && '!border-primary !border-3',
            ]}
            aria-pressed={isHere}
            onclick={() => choose(person)}
          >
            <b>{person.name}</b><span class="soft"
              >{person.role}{isHere ? ' · selling now' : ''}</span
            >
          </button>
        </li>
      {:else}
        <li class="sheet">
          Nobody is set up yet. Sales are kept without a name until somebody is.
          <a class="plain" href="/people">Add a person</a>
        </li>
      {/each}
    </ul>
  {/if}
</section>
