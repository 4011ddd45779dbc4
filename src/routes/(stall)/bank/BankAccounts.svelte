<script lang="ts">
  /** The accounts whose statements are taken in: a name, and the number that stands on them. */
  import { setBankAccount } from '$lib/core/bank/take-statement';
  import type { Row } from '$lib/core/books/tables';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { bankRefusalWords } from '$lib/ui/words/bank-words';
  import RightButton from '../RightButton.svelte';
  import type { AskedBank } from './bank.svelte';

  interface Props {
    bank: AskedBank;
  }
  const { bank }: Props = $props();
  const accounts = $derived(bank.now?.accounts ?? []);
  /** Which one is changed: its id, or `new`. */
  let open = $state('');
  let typedName = $state('');
  let typedNumber = $state('');
  let isActive = $state(true);
  let wrong = $state('');

  function begin(account: Row<'bankAccounts'> | null): void {
    open = account?.id ?? 'new';
    typedName = account?.name ?? '';
    typedNumber = account?.number ?? '';
    isActive = account?.isActive ?? true;
    wrong = '';
  }

  async function save(lentBy?: string): Promise<void> {
    const account = accounts.find(({ id }) => id === open);
    const set = {
      ...{ id: account?.id ?? null, typedName, typedNumber, isActive, accounts },
      columns: account?.columns ?? null,
    };
    wrong = await bank.write(() => setBankAccount(newId, set), bankRefusalWords, lentBy);
    if (wrong === '') open = '';
  }
</script>

<section class="sheet grid gap-3" aria-labelledby="accounts">
  <h2 id="accounts">Accounts</h2>
  <ul class="grid gap-1" data-testid="bank-accounts">
    {#each accounts as account (account.id)}
      <li class="flex flex-wrap items-center justify-between gap-2">
        <span class={['min-w-0 break-words', !account.isActive && 'soft']}
          >{account.name} <span class="soft code text-sm break-all">{account.number}</span>
          {#if !account.isActive}· put away{/if}</span
        >
        <button
          type="button"
          class="btn btn-quiet"
          aria-label="Change {account.name}"
          onclick={() => begin(account)}>Change</button
        >
      </li>
    {:else}
      <li class="soft">None yet: add the one that payouts and bags come to.</li>
    {/each}
  </ul>
  {#if open === ''}
    <button type="button" class="btn btn-quiet justify-self-start" onclick={() => begin(null)}
      >Add an account</button
    >
  {:else}
    <Field label="Name" bind:value={typedName} maxlength={80} says={wrong} />
    <Field
      label="Number"
      bind:value={typedNumber}
      maxlength={60}
      autocomplete="off"
      help="Its IBAN, or the bank’s own number, as it stands on its statements."
    />
    {#if open !== 'new'}<Tick label="In use" bind:checked={isActive} />{/if}
    <div class="flex flex-wrap gap-2">
      <RightButton
        right="set-up"
        label="Save the account"
        look="btn-quiet"
        isBusy={bank.isOld}
        onGo={save}
      />
      <button type="button" class="btn btn-quiet" onclick={() => (open = '')}>Cancel</button>
    </div>
  {/if}
</section>
