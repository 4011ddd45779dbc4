<script lang="ts">
  import { doneSchema, type Account } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';
  import { PASSKEY_UNKNOWN } from '$lib/ui/words/account-words';
  import { agentWords } from '$lib/ui/words/agent-words';
  import { NO_ANSWER, wrongOf } from '$lib/ui/words/answer-words';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import Field from '$lib/ui/forms/Field.svelte';
  import { addPasskey } from '../passkey';
  import AskProof from './AskProof.svelte';

  interface Props {
    account: Account;
    onChanged: () => void;
  }
  const { account, onChanged }: Props = $props();
  const { language } = navigator;
  let name = $state(agentWords(navigator.userAgent));
  let says = $state('');
  /** What goes on when the owner has shown who it is. */
  let toProve = $state.raw<(() => Promise<void>) | null>(null);

  async function add(): Promise<void> {
    toProve = null;
    const came = await addPasskey(name.trim() === '' ? 'A passkey' : name.trim());
    says = came.ok || came.code === 'proof/needed' ? '' : came.message;
    if (came.ok) onChanged();
    else if (came.code === 'proof/needed') toProve = add;
  }

  async function remove(id: string): Promise<void> {
    toProve = null;
    const path = `/api/account/passkeys/${id}`;
    const asked = await askServer({ path, method: 'DELETE' }, doneSchema);
    says = '';
    if (asked.came === 'answer') onChanged();
    else if (asked.came === 'refusal' && asked.refusal.code === 'proof/needed')
      toProve = () => remove(id);
    else says = wrongOf(asked, NO_ANSWER, PASSKEY_UNKNOWN);
  }
</script>

<section class="sheet grid gap-3" aria-labelledby="passkeys">
  <h2 id="passkeys">Passkeys</h2>
  <p>
    A passkey signs you in with this device’s own lock, a fingerprint or a key; there is nothing to
    type and nothing to find out. The password goes on working.
  </p>
  <ul class="grid" data-testid="passkeys">
    {#each account.passkeys as each (each.id)}
      <li
        class="border-base-300 flex flex-wrap items-center justify-between gap-2 border-b py-2 last:border-0"
      >
        <span>
          <b>{each.name}</b>
          <span class="soft block text-sm"
            >since {shortDayWords(each.made.slice(0, 10), language)}, {each.seen === null
              ? 'not used yet'
              : `last used ${shortDayWords(each.seen.slice(0, 10), language)}`}</span
          >
        </span>
        <button
          type="button"
          class="btn btn-quiet"
          aria-label={`Remove ${each.name}`}
          onclick={() => remove(each.id)}>Remove</button
        >
      </li>
    {/each}
  </ul>
  <form
    class="flex flex-wrap items-end gap-3"
    onsubmit={(event) => {
      event.preventDefault();
      void add();
    }}
  >
    <div class="min-w-56 flex-1">
      <Field label="What to call it" bind:value={name} maxlength={80} />
    </div>
    <button class="btn btn-quiet">Add a passkey</button>
  </form>
  {#if toProve !== null}
    <AskProof onProved={() => void toProve?.()} onBack={() => (toProve = null)} />
  {/if}
  {#if says !== ''}<p class="text-error" role="alert">{says}</p>{/if}
</section>
