<script lang="ts">
  import { goto } from '$app/navigation';
  import { toast } from 'svelte-sonner';
  import { discountText, readDiscount } from '$lib/core/slip/read-discount';
  import type { SlipRefusal } from '$lib/core/slip/open-slip';
  import { serviceOf } from '$lib/core/slip/price-slip';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../stall.svelte';
  import CustomerPicker from './CustomerPicker.svelte';
  import { setAside } from './keep-slip';
  import KeepOrder from './KeepOrder.svelte';
  import PaidIn from './PaidIn.svelte';

  interface Props {
    dialog: HTMLDialogElement | undefined;
  }
  let { dialog = $bindable() }: Props = $props();
  const stall = useStall();
  const { slip } = stall;
  const money = $derived(stall.money);
  const open = $derived(slip.current);
  const { groups } = $derived(stall.business);
  const service = $derived(serviceOf(open, stall.business));
  let discount = $derived(discountText(open.discount, (each) => money.plain(each)));
  let charge = $derived(
    service === null
      ? ''
      : 'percent' in service
        ? `${service.percent} %`
        : money.plain(service.amount),
  );
  let note = $derived(open.note ?? '');
  let name = $derived(open.kept?.name ?? '');
  let isAsking = $state(false);
  let wrong = $state('');

  const tell = (refusal: SlipRefusal | null): void => {
    wrong = refusal === null ? '' : refusalWords(refusal, money);
  };
  function setDiscount(): void {
    const read = readDiscount(discount, money.currency);
    wrong = read.ok ? '' : refusalWords(read.refusal, money);
    if (read.ok) tell(slip.say({ discount: read.discount }));
  }
  /** Carries the taxes of the business's own charge, or the first there is. */
  function setService(): void {
    const read = readDiscount(charge, money.currency);
    wrong = read.ok ? '' : refusalWords(read.refusal, money);
    if (!read.ok) return;
    const taxes = stall.business.service?.taxes ?? stall.taxes.slice(0, 1).map(({ id }) => id);
    tell(slip.say({ service: read.discount === undefined ? null : { ...read.discount, taxes } }));
  }
  async function keep(sort: 'aside' | 'tab'): Promise<void> {
    const kept = await setAside(stall, name, sort);
    if (!kept.ok) {
      wrong = refusalWords(kept.refusal, money);
      return;
    }
    dialog?.close();
    toast(
      `${kept.name === '' ? 'The slip' : kept.name} is ${sort === 'tab' ? 'open as a tab' : 'set aside'}.`,
    );
  }
</script>

<dialog
  bind:this={dialog}
  class="sheet m-auto max-h-[92dvh] w-[min(34rem,96vw)] overflow-y-auto backdrop:bg-black/40"
  aria-labelledby="slip-more"
  onclose={() => {
    wrong = '';
    isAsking = false;
  }}
>
  <div class="grid gap-4">
    <div class="flex items-center justify-between">
      <h2 id="slip-more">This slip</h2>
      <form method="dialog"><button class="btn btn-quiet">Done</button></form>
    </div>

    <CustomerPicker />

    {#if groups.length > 0}
      <div class="flex flex-wrap gap-2" role="group" aria-label="Group discount">
        {#each groups as group (group.id)}
          {@const isOn = open.group?.name === group.name}
          <button
            type="button"
            class={['btn btn-quiet', isOn && '!border-primary !border-3']}
            aria-pressed={isOn}
            onclick={() =>
              tell(
                slip.say({
                  group: isOn ? undefined : { name: group.name, percent: group.percent },
                }),
              )}>{group.name}, {group.percent} % off</button
          >
        {/each}
      </div>
    {/if}

    <div class="grid grid-cols-2 gap-3">
      <label class="grid gap-1 font-[560]">
        Off the whole, % or amount
        <input
          class="input figure w-full"
          bind:value={discount}
          onchange={setDiscount}
          autocomplete="off"
        />
      </label>
      <label class="grid gap-1 font-[560]">
        Service charge, % or amount
        <input
          class="input figure w-full"
          bind:value={charge}
          onchange={setService}
          autocomplete="off"
        />
      </label>
    </div>
    <label class="grid gap-1 font-[560]">
      Note
      <input
        class="input w-full"
        bind:value={note}
        maxlength="500"
        autocomplete="off"
        onchange={() => slip.say({ note: note.trim() === '' ? undefined : note.trim() })}
      />
    </label>

    <PaidIn
      ondone={(says) => {
        dialog?.close();
        toast(says);
      }}
    />

    <KeepOrder
      ondone={(says) => {
        dialog?.close();
        toast(says);
      }}
    />

    <section class="grid gap-2" aria-labelledby="for-later">
      <h3 id="for-later" class="text-lg">For later</h3>
      <label class="grid gap-1 font-[560]">
        What to call it
        <input class="input w-full" bind:value={name} maxlength="80" autocomplete="off" />
      </label>
      <div class="flex flex-wrap gap-2">
        <button type="button" class="btn btn-quiet" onclick={() => keep('aside')}
          >Set it aside</button
        >
        <button type="button" class="btn btn-quiet" onclick={() => keep('tab')}
          >Open as a tab</button
        >
        <button
          type="button"
          class="btn btn-quiet"
          disabled={slip.isEmpty}
          onclick={() => goto('/counter/show')}>Show it to the customer</button
        >
      </div>
    </section>
    {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}

    {#if isAsking}
      <div
        class="bg-base-200 flex flex-wrap items-center gap-2 rounded-lg p-3"
        role="group"
        aria-label="Empty it?"
      >
        <p class="min-w-48 flex-1">All lines come off. They can be put back until you go on.</p>
        <button
          type="button"
          class="btn btn-quiet !border-error text-error"
          onclick={() => {
            slip.empty();
            dialog?.close();
          }}>Empty it</button
        >
        <button type="button" class="btn btn-quiet" onclick={() => (isAsking = false)}
          >Cancel</button
        >
      </div>
    {:else}
      <button
        type="button"
        class="btn btn-quiet text-error justify-self-start"
        disabled={slip.isEmpty || slip.isPartPaid}
        onclick={() => (isAsking = true)}>Empty the slip …</button
      >
    {/if}
  </div>
</dialog>
