<script lang="ts">
  import { doneSchema, type Account } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { agentWords } from '$lib/ui/words/agent-words';
  import { shortDayWords, timeWords } from '$lib/ui/words/date-words';

  interface Props {
    account: Account;
    onEnded: () => void;
  }
  const { account, onEnded }: Props = $props();
  const { language } = navigator;
  const { timeZone } = Intl.DateTimeFormat().resolvedOptions();

  let says = $state('');

  async function end(id: string): Promise<void> {
    const path = `/api/account/sessions/${id}`;
    const asked = await askServer({ path, method: 'DELETE', isHarmless: true }, doneSchema);
    // One that is not there any more has ended.
    says = asked.came === 'nothing' ? wrongOf(asked) : '';
    onEnded();
  }
</script>

<section class="sheet grid gap-2" aria-labelledby="sessions">
  <h2 id="sessions">Where you are signed in</h2>
  <ul class="grid">
    {#each account.sessions as session (session.id)}
      <li
        class="border-base-300 flex flex-wrap items-center justify-between gap-2 border-b py-2 last:border-0"
      >
        <span>
          <b>{agentWords(session.agent)}</b>
          <span class="soft block text-sm"
            >since {shortDayWords(session.made.slice(0, 10), language)}, last seen {shortDayWords(
              session.seen.slice(0, 10),
              language,
            )}
            {timeWords(session.seen, language, timeZone)}</span
          >
        </span>
        {#if session.id === account.session}
          <span class="soft">this one</span>
        {:else}
          <button type="button" class="btn btn-quiet" onclick={() => end(session.id)}
            >End this session</button
          >
        {/if}
      </li>
    {/each}
  </ul>
  {#if says !== ''}<p class="text-error" role="alert">{says}</p>{/if}
</section>
