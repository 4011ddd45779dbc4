<script lang="ts">
  import { doneSchema } from '$lib/core/access/account-messages';
  import { askByLink, tokenOfLink } from '../by-link';

  const token = tokenOfLink();
  let isDone = $state(false);
  let wrong = $state('');

  async function verify(): Promise<void> {
    const asked = await askByLink('/api/account/verify', { token }, doneSchema);
    isDone = 'answer' in asked;
    wrong = 'wrong' in asked ? asked.wrong : '';
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
