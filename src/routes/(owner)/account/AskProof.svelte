<script lang="ts">
  import { doneSchema } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';
  import Field from '$lib/ui/forms/Field.svelte';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { signInWithPasskey } from '../passkey';

  interface Props {
    onProved: () => void;
    onBack: () => void;
  }
  const { onProved, onBack }: Props = $props();
  let password = $state('');
  let wrong = $state('');

  async function prove(): Promise<void> {
    const body = { password };
    const asked = await askServer(
      { path: '/api/account/proof', body, isHarmless: true },
      doneSchema,
    );
    password = '';
    if (asked.came === 'answer') onProved();
    else wrong = wrongOf(asked);
  }

  /** A passkey proves as much as the password does; it makes the session anew. */
  async function passkey(): Promise<void> {
    const came = await signInWithPasskey();
    if (came.ok) onProved();
    else wrong = came.message;
  }
</script>

<form
  class="bg-base-200 grid gap-3 rounded-lg p-3"
  aria-label="Is it still you?"
  onsubmit={(event) => {
    event.preventDefault();
    void prove();
  }}
>
  <p>You signed in a while ago. Show once more that it is you, and it goes on.</p>
  <Field
    label="Your password"
    type="password"
    bind:value={password}
    required
    autocomplete="current-password"
    isWrong={wrong !== ''}
  />
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  <div class="flex flex-wrap gap-2">
    <button class="btn btn-quiet">Confirm</button>
    <button type="button" class="btn btn-quiet" onclick={passkey}>Use a passkey</button>
    <button type="button" class="btn btn-quiet" onclick={onBack}>Cancel</button>
  </div>
</form>
