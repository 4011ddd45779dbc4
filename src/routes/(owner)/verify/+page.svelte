<script lang="ts">
  import { doneSchema } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';

  // Behind the #, so that it is in no log on its way.
  const token = location.hash.slice(1);
  let isDone = $state(false);
  let wrong = $state('');

  async function verify(): Promise<void> {
    wrong = '';
    const asked = await askServer({ path: '/api/account/verify', body: { token } }, doneSchema);
    isDone = asked.came === 'answer';
    if (asked.came === 'refusal') {
      wrong =
        asked.refusal.code === 'body/wrong'
          ? 'This is not the whole link; open it from the letter.'
          : asked.refusal.message;
    }
    if (asked.came === 'nothing') wrong = 'The server does not answer.';
  }
</script>

<h1>Is this address yours?</h1>
{#if isDone}
  <p class="sheet" role="status">
    Thank you. Receipts can be sent now. <a class="plain" href="/">To the till</a>
  </p>
{:else}
  <div class="sheet grid gap-4">
    <p>
      Receipts are sent in your stall’s name once you have shown that you read the mail of the
      address you signed up with.
    </p>
    {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
    <button type="button" class="btn btn-main justify-self-start px-6" onclick={verify}
      >Yes, it is mine</button
    >
  </div>
{/if}
