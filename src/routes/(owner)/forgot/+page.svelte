<script lang="ts">
  import { doneSchema } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import Field from '$lib/ui/forms/Field.svelte';

  let email = $state('');
  let isAsked = $state(false);
  let wrong = $state('');

  async function ask(): Promise<void> {
    wrong = '';
    const asked = await askServer({ path: '/api/account/forgot', body: { email } }, doneSchema);
    isAsked = asked.came === 'answer';
    wrong = wrongOf(asked, 'The server does not answer, or sends no mail.');
  }
</script>

<h1>Another password</h1>
{#if isAsked}
  <p class="sheet" role="status">
    If there is an account under this address, a letter with a link is on its way. The link is good
    once, for half an hour.
  </p>
{:else}
  <form
    class="sheet grid gap-4"
    onsubmit={(event) => {
      event.preventDefault();
      void ask();
    }}
  >
    <Field
      label="E-mail address"
      type="email"
      bind:value={email}
      required
      autocomplete="username"
      isWrong={wrong !== ''}
    />
    {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
    <button class="btn btn-main">Send me a link</button>
  </form>
{/if}
