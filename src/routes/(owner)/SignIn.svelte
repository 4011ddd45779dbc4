<script lang="ts">
  import { doneSchema } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';
  import { ACCOUNT_NEEDS_NETWORK } from '$lib/ui/words/account-words';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { signInWithPasskey } from './passkey';
  import Field from '$lib/ui/forms/Field.svelte';

  interface Props {
    onSignedIn: () => void;
  }
  const { onSignedIn }: Props = $props();
  let email = $state('');
  let password = $state('');
  let isBusy = $state(false);
  let wrong = $state('');

  async function signIn(): Promise<void> {
    if (isBusy) return;
    isBusy = true;
    wrong = '';
    const body = { email, password };
    const asked = await askServer(
      { path: '/api/account/sign-in', body, isHarmless: true },
      doneSchema,
    );
    isBusy = false;
    password = '';
    wrong = wrongOf(asked, ACCOUNT_NEEDS_NETWORK);
    if (asked.came === 'answer') onSignedIn();
  }

  async function passkey(): Promise<void> {
    if (isBusy) return;
    isBusy = true;
    const came = await signInWithPasskey();
    isBusy = false;
    wrong = came.ok ? '' : came.message;
    if (came.ok) onSignedIn();
  }
</script>

<form
  class="sheet grid gap-4"
  onsubmit={(event) => {
    event.preventDefault();
    void signIn();
  }}
>
  <Field label="E-mail address" type="email" bind:value={email} required autocomplete="username" />
  <Field
    label="Password"
    type="password"
    bind:value={password}
    required
    autocomplete="current-password"
    isWrong={wrong !== ''}
  />
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  <div class="flex flex-wrap items-center justify-between gap-3">
    <button class="btn btn-main px-6" disabled={isBusy}>Sign in</button>
    <button type="button" class="btn btn-quiet" disabled={isBusy} onclick={passkey}
      >Use a passkey</button
    >
    <a class="plain" href="/forgot">Forgotten the password?</a>
  </div>
</form>
