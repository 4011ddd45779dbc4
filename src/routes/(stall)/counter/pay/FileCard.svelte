<script lang="ts">
  import { cardHolder, cardOf, hasExpired } from '$lib/core/customer/card-on-file';
  import { localTime } from '$lib/core/event/local-time';
  import type { WayToPay } from '$lib/core/payment/ways';
  import { fileReader } from '$lib/device/cards/file-reader';
  import { personOf } from '$lib/device/customer-records';
  import { live } from '$lib/device/live.svelte';
  import { cardWords } from '$lib/ui/words/payment-words';
  import { useStall } from '../../stall.svelte';
  import type { CardSteps } from './card-steps.svelte';
  import type { Paying } from './paying.svelte';

  interface Props {
    way: WayToPay;
    paying: Paying;
    card: CardSteps;
    /** Of what is left. Minor units; null while no amount is typed that can be read. */
    clears: number | null;
    /** What the way asks for, as typed beside it. */
    reference: string;
  }
  const { way, paying, card, clears, reference }: Props = $props();
  const stall = useStall();
  const customer = live(() => {
    const id = stall.slip.current.customer?.id;
    return async () =>
      id === undefined ? undefined : cardHolder((await personOf(stall.db, id)).rows);
  }, undefined);
  const onFile = $derived(cardOf(customer.value));
  const today = $derived(localTime(Date.now(), stall.business.timeZone).day);
  const isExpired = $derived(onFile !== null && hasExpired(onFile, today));
  const would = $derived(clears === null ? null : paying.charge(way, clears));
  const inAll = $derived(would === null ? 0 : would.charge + would.surcharge + paying.tip);
</script>

{#if onFile !== null}
  <div
    class="bg-base-200 col-[1/-1] flex flex-wrap items-center justify-between gap-3 rounded-lg p-3"
    data-testid="file-card"
  >
    <p>
      <b>{cardWords(onFile)}</b>, on file for {customer.value?.name}
      {#if isExpired}<span class="text-error">, expired</span>{/if}
    </p>
    <button
      type="button"
      class="btn btn-quiet"
      disabled={paying.isBusy || would === null || isExpired}
      onclick={() =>
        card.begin(way, clears ?? 0, fileReader(customer.value?.id ?? '', onFile), {
          reference,
          neverCarried: 'carry/on-file',
        })}>Charge {stall.money.text(inAll)}</button
    >
  </div>
{/if}
