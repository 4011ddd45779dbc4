<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { draft } from '$lib/core/daybook/kinds';
  import { readAmount } from '$lib/core/money/amount-text';
  import { cardAnswerSchema } from '$lib/core/payment/card-messages';
  import { heldResult, takeHeld } from '$lib/core/payment/card-answers';
  import { heldCards, type CardPayment } from '$lib/core/payment/carry';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { heldWords } from '$lib/ui/words/payment-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const all = live(() => () => db.books.cardPayments.toArray(), []);
  const held = $derived(heldCards(all.value));
  let typed = $state<Record<string, string>>({});
  let wrong = $state.raw<{ readonly at: string; readonly words: string } | null>(null);
  let busy = $state<string | null>(null);

  /** Asks the acquirer, and writes down what it says; nothing is written if nobody answers. */
  async function ask(payment: CardPayment, what: 'capture' | 'release'): Promise<void> {
    const { id } = payment;
    const text = (typed[id] ?? '').trim();
    const read = text === '' || what === 'release' ? null : readAmount(text, money.currency);
    if (read?.ok === false) {
      wrong = { at: id, words: refusalWords(read.refusal, money) };
      return;
    }
    const taken = takeHeld(payment, read?.amount ?? null);
    if (!taken.ok) {
      wrong = { at: id, words: `At most ${money.text(taken.refusal.most)} is held.` };
      return;
    }
    wrong = null;
    busy = id;
    const body = what === 'capture' ? { payment: id, amount: taken.amount } : { payment: id };
    const asked = await stall.transport.ask(`/api/cards/${what}`, cardAnswerSchema, body);
    busy = null;
    if (asked.came !== 'answer') {
      const words =
        asked.came === 'refusal'
          ? asked.refusal.message
          : 'No network now: what is held can only be taken or let go of with it.';
      wrong = { at: id, words };
      return;
    }
    const result = heldResult(id, asked.answer);
    if (result === null) {
      wrong = { at: id, words: 'The acquirer still holds it. Ask again.' };
      return;
    }
    await stall.daybook.append(() => ({
      ok: true,
      drafts: [draft('payment.result', newId(), payment.event, result)],
    }));
    await stall.daybook.settle();
    toast(heldWords(result, payment, money));
  }
</script>

{#if held.length > 0}
  <section class="grid gap-3" aria-labelledby="held">
    <h2 id="held">Cards that are held</h2>
    <ul class="grid gap-3" data-testid="held">
      {#each held as payment (payment.id)}
        <li class="sheet grid gap-3">
          <p class="flex flex-wrap items-baseline justify-between gap-3">
            <span><b>{payment.scheme}</b> <span class="code">{payment.last4}</span></span>
            <span class="amount text-xl">{money.text(payment.amount)}</span>
          </p>
          <p class="soft text-sm">
            approval {payment.approval} · to be taken until
            {shortDayWords(payment.expires.slice(0, 10), stall.business.locale)}
          </p>
          <div class="flex flex-wrap items-end gap-2">
            <label class="grid gap-1 font-[560]">
              Take
              <input
                class="input figure w-32"
                inputmode="decimal"
                autocomplete="off"
                placeholder={money.plain(payment.amount)}
                value={typed[payment.id] ?? ''}
                oninput={(event) => (typed[payment.id] = event.currentTarget.value)}
                aria-invalid={wrong?.at === payment.id}
              />
            </label>
            <button
              type="button"
              class="btn btn-quiet"
              disabled={busy !== null}
              onclick={() => ask(payment, 'capture')}>Take it</button
            >
            <button
              type="button"
              class="btn btn-quiet"
              disabled={busy !== null}
              onclick={() => ask(payment, 'release')}>Let it go</button
            >
          </div>
          {#if wrong?.at === payment.id}<p class="text-error" role="alert">{wrong.words}</p>{/if}
        </li>
      {/each}
    </ul>
  </section>
{/if}
