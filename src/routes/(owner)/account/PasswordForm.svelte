<script lang="ts">
  import { doneSchema } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';
  import Field from '$lib/ui/forms/Field.svelte';

  interface Props {
    email: string;
  }
  const { email }: Props = $props();
  let current = $state('');
  let next = $state('');
  let says = $state('');
  let isWrong = $state(false);

  async function change(): Promise<void> {
    says = '';
    const body = { current, next };
    const asked = await askServer({ path: '/api/account/password', body }, doneSchema);
    isWrong = asked.came !== 'answer';
    if (asked.came === 'answer') {
      [current, next] = ['', ''];
      says = 'The new password holds. Everywhere else you have been signed out.';
    } else {
      says = asked.came === 'refusal' ? asked.refusal.message : 'The server does not answer.';
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
  {#if says !== ''}<p class={isWrong ? 'text-error' : ''} role="alert">{says}</p>{/if}
  <button class="btn btn-quiet justify-self-start">Change it</button>
</form>
