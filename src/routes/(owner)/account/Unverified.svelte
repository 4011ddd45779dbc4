<script lang="ts">
  import { doneSchema } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';
  import { wrongOf } from '$lib/ui/words/answer-words';

  interface Props {
    email: string;
  }
  const { email }: Props = $props();
  let says = $state('');

  async function send(): Promise<void> {
    const asked = await askServer({ path: '/api/account/verify/letter', body: {} }, doneSchema);
    says = asked.came === 'answer' ? `A letter is on its way to ${email}.` : wrongOf(asked);
  }
</script>

<section class="sheet grid gap-3" aria-label="Your address">
  <p>
    Nobody has opened the link in the letter to {email} yet. Until then no receipts are sent by mail or
    text; everything else works.
  </p>
  <button type="button" class="btn btn-quiet justify-self-start" onclick={send}
    >Send the letter again</button
  >
  {#if says !== ''}<p role="status">{says}</p>{/if}
</section>
