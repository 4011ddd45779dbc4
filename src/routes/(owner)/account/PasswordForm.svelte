<script lang="ts">
  import { passwordSetSchema } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { wrongOf } from '$lib/ui/words/answer-words';

  interface Props {
    email: string;
    /** How many there are. */
    passkeys: number;
    onChanged: () => void;
  }
  const { email, passkeys, onChanged }: Props = $props();
  let current = $state('');
  let next = $state('');
  let says = $state('');
  let isWrong = $state(false);
  let removePasskeys = $state(false);

  async function change(): Promise<void> {
    says = '';
    const body = { current, next, removePasskeys };
    const asked = await askServer({ path: '/api/account/password', body }, passwordSetSchema);
    isWrong = asked.came !== 'answer';
    if (asked.came === 'answer') {
      [current, next, removePasskeys] = ['', '', false];
      onChanged();
      says = 'The new password holds. Everywhere else you have been signed out.';
    } else {
      says = wrongOf(asked);
    }
  }
</script>

<form
  class="sheet grid gap-3"
  aria-labelledby="password"
  onsubmit={(event) => {
    event.preventDefault();
    void change();
  }}
>
  <h2 id="password">Another password</h2>
  <input type="hidden" autocomplete="username" value={email} />
  <Field
    label="Present password"
    type="password"
    bind:value={current}
    required
    autocomplete="current-password"
  />
  <Field
    label="New password"
    type="password"
    help="At least ten characters, of any kind."
    bind:value={next}
    required
    autocomplete="new-password"
    {isWrong}
  />
  {#if passkeys > 0}
    <Tick
      label="Remove the passkeys as well, in case somebody else added one"
      bind:checked={removePasskeys}
    />
  {/if}
  {#if says !== ''}<p class={isWrong ? 'text-error' : ''} role="alert">{says}</p>{/if}
  <button class="btn btn-quiet justify-self-start">Change it</button>
</form>
