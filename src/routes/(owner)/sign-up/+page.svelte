<script lang="ts">
  import { goto } from '$app/navigation';
  import { COUNTRIES, countryOf } from '$lib/core/founding/countries';
  import { takeBackIfThrownAway } from '$lib/device/mirror/mirror';
  import { openedDatabase } from '$lib/device/opened-database';
  import { signUp } from '$lib/device/sign-up';
  import { askToKeep } from '$lib/device/storage';
  import Choice from '$lib/ui/forms/Choice.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import { ENROL_NEEDS_NETWORK } from '$lib/ui/words/account-words';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { countries, currencies } from '$lib/ui/words/places-words';
  import { noTillWords } from '$lib/ui/words/fault-words';

  const guessed = countryOf(navigator.language) ?? COUNTRIES.find(({ code }) => code === 'GB')!;
  let business = $state('');
  let owner = $state('');
  let email = $state('');
  let password = $state('');
  let code = $state(guessed.code);
  let currency = $state(guessed.currency);
  let isBusy = $state(false);
  let wrong = $state<{ readonly code: string; readonly message: string } | null>(null);
  const country = $derived(COUNTRIES.find((each) => each.code === code) ?? guessed);
  const is = (part: string): boolean => wrong?.code.startsWith(part) === true;

  async function begin(): Promise<void> {
    if (isBusy) return;
    isBusy = true;
    wrong = null;
    try {
      await takeBackIfThrownAway(openedDatabase());
      const result = await signUp(openedDatabase(), {
        email: email.trim(),
        password,
        owner: owner.trim(),
        founding: {
          name: business.trim(),
          country,
          currency,
          timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
        },
        deviceName: matchMedia('(pointer: coarse)').matches ? 'Phone' : 'Desk browser',
      });
      if (result.ok) {
        void askToKeep();
        await goto('/first-day');
        return;
      }
      const { asked } = result;
      const refused = asked.came === 'refusal' ? asked.refusal.code : '';
      wrong = { code: refused, message: wrongOf(asked, ENROL_NEEDS_NETWORK) };
    } catch (error) {
      wrong = { code: 'browser', message: noTillWords(error) };
    }
    isBusy = false;
  }
</script>

<h1>Begin with your own stall</h1>
<p>
  This browser becomes your first till. It takes a minute; after that it sells with no network at
  all.
</p>
<form
  class="sheet grid gap-4"
  onsubmit={(event) => {
    event.preventDefault();
    void begin();
  }}
>
  <Field label="What the stall is called" bind:value={business} required maxlength={80} />
  <Field
    label="Your first name"
    help="Sales say who rang them up. Others can be set up later."
    bind:value={owner}
    required
    maxlength={80}
    autocomplete="given-name"
  />
  <div class="grid gap-1">
    <Choice
      label="Country"
      options={countries()}
      bind:value={
        () => code,
        (chosen) => {
          code = chosen;
          currency = country.currency;
        }
      }
    />
    <p class="soft text-sm" data-testid="defaults">
      Prices {country.pricesIncludeTax ? 'include tax' : 'are without tax'}; {country.taxes
        .length === 0
        ? 'taxes are yours to set up'
        : country.taxes
            .map(({ name, rate }) => (name.includes(rate) ? name : `${name} ${rate} %`))
            .join(', ')}. All of it can be changed.
    </p>
  </div>
  <Choice label="Currency" options={currencies()} bind:value={currency} />
  <Field
    label="E-mail address"
    type="email"
    bind:value={email}
    required
    maxlength={254}
    autocomplete="email"
    isWrong={is('email')}
  />
  <Field
    label="Password"
    type="password"
    help="At least ten characters, of any kind. It is asked for when a device is added or shut out."
    bind:value={password}
    required
    autocomplete="new-password"
    isWrong={is('password')}
  />
  {#if wrong !== null}<p class="text-error" role="alert">{wrong.message}</p>{/if}
  <button class="btn btn-main" disabled={isBusy}>{isBusy ? 'Making the till …' : 'Begin'}</button>
</form>
<p class="soft">
  Somebody gave you a code? <a class="plain" href="/enrol">Make this browser one of their tills</a>.
</p>
