<script lang="ts">
  import { codeSchema, doneSchema, type SeenDevice } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';
  import { qrPath } from '$lib/ui/codes/qr-path';
  import { shutOutUnknown } from '$lib/ui/words/account-words';
  import { NO_ANSWER, wrongOf } from '$lib/ui/words/answer-words';
  import AskProof from './AskProof.svelte';
  import Unsent from './Unsent.svelte';
  import { counted } from '$lib/ui/words/money-words';

  interface Props {
    devices: readonly SeenDevice[];
    onChanged: () => void;
  }
  const { devices, onChanged }: Props = $props();
  let link = $state('');
  /** What went wrong, and with which device, or `NEW`; it stands there. */
  let wrong = $state.raw({ of: '', says: '' });
  /** The device about which the question is open. */
  let asked = $state('');
  /** The device to shut out as soon as the owner has shown who it is, or `NEW` for one to be added. */
  let toProve = $state('');
  const NEW = 'new';
  const qr = $derived(link === '' ? null : qrPath(link));

  async function makeLink(): Promise<void> {
    wrong = { of: '', says: '' };
    toProve = '';
    const answer = await askServer(
      { path: '/api/devices/code', body: {}, isHarmless: true },
      codeSchema,
    );
    if (answer.came === 'answer') link = `${location.origin}/enrol#${answer.answer.code}`;
    else if (answer.came === 'refusal' && answer.refusal.code === 'proof/needed') toProve = NEW;
    else wrong = { of: NEW, says: wrongOf(answer) };
  }

  async function shutOut({ device, number }: SeenDevice): Promise<void> {
    asked = '';
    toProve = '';
    wrong = { of: '', says: '' };
    const path = `/api/devices/${device}/shut-out`;
    const answer = await askServer({ path, body: {} }, doneSchema);
    if (answer.came === 'refusal' && answer.refusal.code === 'proof/needed') toProve = device;
    else if (answer.came === 'answer') onChanged();
    else wrong = { of: device, says: wrongOf(answer, NO_ANSWER, shutOutUnknown(number)) };
  }
</script>

<section class="sheet grid gap-3" aria-labelledby="devices">
  <h2 id="devices">Devices</h2>
  <ul class="grid">
    {#each devices as each (each.device)}
      <li class="border-base-300 grid gap-2 border-b py-3 last:border-0">
        <div class="flex flex-wrap items-center justify-between gap-2">
          <span>
            <b>D{each.number} {each.name}</b>
            <span class="soft block text-sm"
              >{counted(each.seq, 'entry', 'entries')}{each.shutOutAt === null
                ? ''
                : ' · shut out'}</span
            >
          </span>
          {#if each.shutOutAt === null && asked !== each.device}
            <button type="button" class="btn btn-quiet" onclick={() => (asked = each.device)}
              >Shut out …</button
            >
          {/if}
        </div>
        {#if each.copySeenAt !== null}
          <p class="text-error">
            A copy of this device has been writing as well. Shut it out, and enrol both anew.
          </p>
        {/if}
        {#if asked === each.device}
          <div class="flex flex-wrap items-center gap-2" role="group" aria-label="Shut it out?">
            <p class="min-w-60 flex-1">
              It can send and see nothing from then on. What it had sent stays; the rest it hands
              over for you to look at. This cannot be undone.
            </p>
            <button
              type="button"
              class="btn btn-quiet !border-error text-error"
              onclick={() => shutOut(each)}>Shut D{each.number} out</button
            >
            <button type="button" class="btn btn-quiet" onclick={() => (asked = '')}>Cancel</button>
          </div>
        {/if}
        {#if toProve === each.device}
          <AskProof onProved={() => shutOut(each)} onBack={() => (toProve = '')} />
        {/if}
        {#if wrong.of === each.device}<p class="text-error" role="alert">{wrong.says}</p>{/if}
        {#if each.unsent > 0}<Unsent device={each} onDone={onChanged} />{/if}
      </li>
    {/each}
  </ul>
  {#if toProve === NEW}
    <AskProof onProved={makeLink} onBack={() => (toProve = '')} />
  {:else if qr === null}
    <button type="button" class="btn btn-quiet justify-self-start" onclick={makeLink}
      >Add a device</button
    >
  {:else}
    <p>
      Open this on the new device, or let its camera read it. It is good once, for a quarter of an
      hour.
    </p>
    <div class="flex flex-wrap items-center gap-4">
      <svg
        class="size-44 bg-white p-3"
        viewBox={qr.viewBox}
        role="img"
        aria-label="The link as a QR code"><path d={qr.path} fill="#000" /></svg
      >
      <p class="code min-w-0 flex-1 break-all" data-testid="enrol-link">{link}</p>
    </div>
  {/if}
  {#if wrong.of === NEW}<p class="text-error" role="alert">{wrong.says}</p>{/if}
</section>
