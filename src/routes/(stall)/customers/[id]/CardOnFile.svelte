<script lang="ts">
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { cardOf, hasExpired, keepCard, takeCardOff } from '$lib/core/customer/card-on-file';
  import { CONSENT_WAYS, type ConsentWay } from '$lib/core/daybook/kinds/customer-consent';
  import { localTime } from '$lib/core/event/local-time';
  import { cardKeptSchema } from '$lib/core/payment/card-messages';
  import { readFigures, schemeOf, type KeyedRefusal } from '$lib/core/payment/keyed-card';
  import { cardKey } from '$lib/device/cards/card-key';
  import { seal } from '$lib/device/cards/seal';
  import { newId, newSalt } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { consentWords } from '$lib/ui/words/customer-words';
  import { cardWords, keyedRefusalWords } from '$lib/ui/words/payment-words';
  import { useStall } from '../../stall.svelte';

  interface Props {
    customer: Row<'customers'>;
  }
  const { customer }: Props = $props();
  const stall = useStall();
  const today = $derived(localTime(Date.now(), stall.business.timeZone).day);
  const card = $derived(cardOf(customer));
  let isOpen = $state(false);
  let isRemoving = $state(false);
  let isBusy = $state(false);
  const typed = $state<{ number: string; expiry: string; consent: ConsentWay | '' }>({
    number: '',
    expiry: '',
    consent: '',
  });
  let wrong = $state.raw<KeyedRefusal | null>(null);
  let said = $state('');
  const scheme = $derived(schemeOf(typed.number));
  const saysOf = (field: string): string =>
    wrong?.field === field ? keyedRefusalWords(wrong) : '';

  async function keep(): Promise<void> {
    const figures = readFigures(typed, today);
    wrong = figures.ok ? null : figures.refusal;
    said = '';
    if (!figures.ok) return;
    const consent = typed.consent === '' ? null : typed.consent;
    if (consent === null) {
      said = 'Ask them first whether it may be kept and charged, and say how they agreed.';
      return;
    }
    isBusy = true;
    said = (await put(figures, consent)) ?? '';
    isBusy = false;
    if (said !== '') return;
    [typed.number, typed.expiry, typed.consent, isOpen] = ['', '', '', false];
    toast(`The card of ${customer.name} is on file.`);
  }

  /** @returns Why it was not kept, or null. */
  async function put(
    { number, expiry, scheme: named }: { number: string; expiry: string; scheme: string },
    consent: ConsentWay,
  ): Promise<string | null> {
    const known = await cardKey(stall.db, stall.transport);
    if (known === null) return 'What cards are sealed with has not been heard of yet.';
    const sealed = await seal(known.key, { number, expiry, scheme: named });
    const body = { customer: customer.id, sealed, consent };
    const asked = await stall.transport.ask('/api/cards/keep', cardKeptSchema, body);
    if (asked.came !== 'answer')
      return wrongOf(asked, 'No network now: a card can be put on file only with it.');
    const { answer } = asked;
    await stall.daybook.append(() =>
      keepCard({ newId, newSalt, customer: customer.id, card: answer, consent }),
    );
    await stall.daybook.settle();
    return null;
  }

  async function remove(): Promise<void> {
    await stall.daybook.append(() => takeCardOff(newId, customer.id));
    await stall.daybook.settle();
    isRemoving = false;
    toast('The card is removed. The acquirer is told automatically.');
  }
</script>

<section class="sheet grid gap-3" aria-labelledby="card-on-file">
  <h2 id="card-on-file">Card on file</h2>
  {#if card !== null}
    <p data-testid="card-on-file">
      <b>{cardWords(card)}</b>
      {#if hasExpired(card, today)}<span class="text-error">, expired</span>{/if}
    </p>
  {:else if !isOpen}
    <p class="soft">None. Its number goes to the acquirer, and is kept nowhere here.</p>
  {/if}
  {#if isOpen}
    <form
      class="grid gap-3 sm:grid-cols-2"
      autocomplete="off"
      onsubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <Field
        label={scheme === '' ? 'Card number' : `Card number, ${scheme}`}
        bind:value={typed.number}
        inputmode="numeric"
        autocomplete="off"
        maxlength={25}
        isWrong={wrong?.field === 'number'}
        says={saysOf('number')}
      />
      <Field
        label="Expires, month and year"
        bind:value={typed.expiry}
        placeholder="04/29"
        maxlength={7}
        isWrong={wrong?.field === 'expiry'}
        says={saysOf('expiry')}
      />
      <label class="grid content-start gap-1 font-[560]">
        It may be kept and charged
        <select class="select min-h-12 w-full" bind:value={typed.consent}>
          <option value="">not yet asked</option>
          {#each CONSENT_WAYS as way (way)}<option value={way}>{consentWords[way]}</option>{/each}
        </select>
      </label>
      {#if said !== ''}<p class="text-error sm:col-span-2" role="alert">{said}</p>{/if}
      <div class="flex flex-wrap gap-2 sm:col-span-2">
        <button class="btn btn-main px-5" disabled={isBusy}>Save the card</button>
        <button type="button" class="btn btn-quiet" onclick={() => (isOpen = false)}>Cancel</button>
      </div>
    </form>
  {:else if isRemoving}
    <div class="flex flex-wrap gap-2">
      <button type="button" class="btn btn-quiet !border-error text-error" onclick={remove}
        >Remove the card</button
      >
      <button type="button" class="btn btn-quiet" onclick={() => (isRemoving = false)}
        >Keep it</button
      >
    </div>
  {:else}
    <div class="flex flex-wrap gap-2">
      <button type="button" class="btn btn-quiet" onclick={() => (isOpen = true)}
        >{card === null ? 'Put a card on file' : 'Replace it'}</button
      >
      {#if card !== null}
        <button type="button" class="btn btn-quiet" onclick={() => (isRemoving = true)}
          >Remove the card …</button
        >
      {/if}
    </div>
  {/if}
</section>
