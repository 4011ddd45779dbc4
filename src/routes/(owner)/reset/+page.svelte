<script lang="ts">
  import { passwordSetSchema } from '$lib/core/access/account-messages';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { askByLink, tokenOfLink } from '../by-link';

  const token = tokenOfLink();
  let password = $state('');
  let removePasskeys = $state(false);
  let isDone = $state(false);
  let passkeysLeft = $state(0);
  let wrong = $state('');

  async function set(): Promise<void> {
    const body = { token, password, removePasskeys };
    const asked = await askByLink('/api/account/reset', body, passwordSetSchema);
    isDone = 'answer' in asked;
    wrong = 'wrong' in asked ? asked.wrong : '';
    if ('answer' in asked) passkeysLeft = asked.answer.passkeys;
  }
</script>

<h1>Set another password</h1>
{#if isDone}
  <p class="sheet" role="status">
    The new password holds, and everywhere you were signed in you no longer are.
    {#if passkeysLeft > 0}
      {passkeysLeft === 1 ? 'One passkey still opens' : `${passkeysLeft} passkeys still open`} the account;
      remove on the account page what is not yours.
    {/if}
    <a class="plain" href="/sign-in">Sign in</a>
  </p>
{:else}
  <form
    class="sheet grid gap-4"
    onsubmit={(event) => {
      event.preventDefault();
      void set();
    }}
  >
    <Field
      label="New password"
      type="password"
      help="At least ten characters, of any kind."
      bind:value={password}
      required
      autocomplete="new-password"
      isWrong={wrong !== ''}
    />
    <Tick
      label="Remove all passkeys as well, in case somebody else added one"
      bind:checked={removePasskeys}
    />
    {#if wrong !== ''}
      <p class="text-error" role="alert">
        {wrong} <a class="plain" href="/forgot">Ask for a link</a>
      </p>
    {/if}
    <button class="btn btn-main">Set the password</button>
  </form>
{/if}
