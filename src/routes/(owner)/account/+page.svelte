<script lang="ts">
  import { accountSchema, doneSchema, type Account } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';
  import SignIn from '../SignIn.svelte';
  import CalendarAddress from './CalendarAddress.svelte';
  import Devices from './Devices.svelte';
  import Passkeys from './Passkeys.svelte';
  import PasswordForm from './PasswordForm.svelte';
  import Sessions from './Sessions.svelte';
  import Unverified from './Unverified.svelte';

  /** Undefined until the server has said; null when nobody is signed in. */
  let account = $state.raw<Account | null | undefined>(undefined);
  let wrong = $state('');

  async function look(): Promise<void> {
    const asked = await askServer({ path: '/api/account' }, accountSchema);
    wrong = '';
    if (asked.came === 'answer') account = asked.answer;
    else if (asked.came === 'refusal') account = null;
    else wrong = 'The server does not answer. The account needs the network; selling does not.';
  }
  $effect(() => void look());

  async function signOut(): Promise<void> {
    await askServer({ path: '/api/account/sign-out', body: {} }, doneSchema);
    await look();
  }
</script>

{#if wrong !== ''}
  <h1>The account</h1>
  <p class="sheet text-error" role="alert">{wrong}</p>
  <button type="button" class="btn btn-quiet justify-self-start" onclick={look}>Try again</button>
{:else if account === null}
  <h1>Sign in as an owner</h1>
  <SignIn onSignedIn={look} />
{:else if account !== undefined}
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Devices and account</h1>
    <button type="button" class="btn btn-quiet" onclick={signOut}>Sign out</button>
  </div>
  <p class="soft">Signed in as {account.email}</p>
  {#if !account.isVerified}<Unverified email={account.email} />{/if}
  <Devices />
  <CalendarAddress />
  <Sessions {account} onEnded={look} />
  <Passkeys {account} onChanged={look} />
  <PasswordForm email={account.email} passkeys={account.passkeys.length} onChanged={look} />
{/if}
