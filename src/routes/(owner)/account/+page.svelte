<script lang="ts">
  import {
    accountSchema,
    calendarSchema,
    devicesSchema,
    doneSchema,
    type Account,
    type SeenDevice,
  } from '$lib/core/access/account-messages';
  import { ACCOUNT_NEEDS_NETWORK } from '$lib/ui/words/account-words';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { askServer } from '$lib/device/sync/ask-server';
  import SignIn from '../SignIn.svelte';
  import CalendarAddress from './CalendarAddress.svelte';
  import Devices from './Devices.svelte';
  import Passkeys from './Passkeys.svelte';
  import PasswordForm from './PasswordForm.svelte';
  import Sessions from './Sessions.svelte';
  import Unverified from './Unverified.svelte';

  interface Known {
    readonly account: Account;
    readonly devices: readonly SeenDevice[];
    /** Since when there is an address for calendars. */
    readonly calendar: string | null;
  }
  /** Undefined until the server has said; null when nobody is signed in. */
  let known = $state.raw<Known | null | undefined>(undefined);
  let wrong = $state('');

  /** All of it at once: what came later would move the page under a finger that is on its way. */
  async function look(): Promise<void> {
    const isHarmless = true;
    const [account, devices, calendar] = await Promise.all([
      askServer({ path: '/api/account', isHarmless }, accountSchema),
      askServer({ path: '/api/devices', isHarmless }, devicesSchema),
      askServer({ path: '/api/account/calendar', isHarmless }, calendarSchema),
    ]);
    const isRefused = [account, devices, calendar].some(({ came }) => came === 'refusal');
    wrong = '';
    if (isRefused) known = null;
    else if (account.came === 'answer' && devices.came === 'answer' && calendar.came === 'answer')
      known = {
        account: account.answer,
        devices: devices.answer.devices,
        calendar: calendar.answer.made,
      };
    else
      wrong =
        [account, devices, calendar]
          .map((asked) => wrongOf(asked, ACCOUNT_NEEDS_NETWORK))
          .find((says) => says !== '') ?? '';
  }
  $effect(() => void look());

  async function signOut(): Promise<void> {
    await askServer({ path: '/api/account/sign-out', body: {} }, doneSchema);
    await look();
  }
</script>

{#snippet noAnswer()}
  <p class="sheet text-error" role="alert">{wrong}</p>
  <button type="button" class="btn btn-quiet justify-self-start" onclick={look}>Try again</button>
{/snippet}
{#if wrong !== '' && !known}
  <h1>The account</h1>
  {@render noAnswer()}
{:else if known === null}
  <h1>Sign in as an owner</h1>
  <SignIn onSignedIn={look} />
{:else if known !== undefined}
  {@const { account, devices, calendar } = known}
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Devices and account</h1>
    <button type="button" class="btn btn-quiet" onclick={signOut}>Sign out</button>
  </div>
  <p class="soft">Signed in as {account.email}</p>
  <!-- A link or an address that is shown once stays. -->
  {#if wrong !== ''}{@render noAnswer()}{/if}
  {#if !account.isVerified}<Unverified email={account.email} />{/if}
  <Devices {devices} onChanged={look} />
  <CalendarAddress made={calendar} onChanged={look} />
  <Sessions {account} onEnded={look} />
  <Passkeys {account} onChanged={look} />
  <PasswordForm email={account.email} passkeys={account.passkeys.length} onChanged={look} />
{/if}
