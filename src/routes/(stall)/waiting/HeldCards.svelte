<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { readAmount } from '$lib/core/money/amount-text';
  import { takeHeld } from '$lib/core/payment/card-answers';
  import { decisionOf, heldCards, type CardPayment } from '$lib/core/payment/card-state';
  import { decideHold } from '$lib/core/payment/decide-hold';
  import { openCards } from '$lib/device/cards/card-rows';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { decidedWords } from '$lib/ui/words/payment-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const all = live(() => () => openCards(db), []);
  const held = $derived(heldCards(all.value));
  let typed = $state<Record<string, string>>({});
  let wrong = $state.raw<{ readonly at: string; readonly words: string } | null>(null);

  /** How much is to be taken as it is typed: all of it where nothing is; null where it is no such amount. */
  function amountOf(payment: CardPayment): number | null {
    const text = (typed[payment.id] ?? '').trim();
    const read = text === '' ? null : readAmount(text, money.currency);
    if (read?.ok === false) return null;
    const taken = takeHeld(payment, read?.amount ?? null);
    return taken.ok ? taken.amount : null;
  }

  /** Written down; the acquirer is told behind it, as soon as the server has heard. */
  async function decide(
    payment: CardPayment,
    does: 'capture' | 'release',
    lentBy?: string,
  ): Promise<void> {
    const amount = does === 'release' ? 0 : amountOf(payment);
    if (amount === null) {
      wrong = { at: payment.id, words: `At most ${money.text(payment.resultAmount)} is held.` };
      return;
    }
    wrong = null;
    await stall.daybook.append(
      () => ({ ok: true, drafts: [decideHold(newId, payment, does, amount)] }),
      lentBy === undefined ? {} : { lentBy },
    );
    await stall.daybook.settle();
    toast(decidedWords(does, amount, money));
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
          {#if decisionOf(payment) !== null}
            <p role="status">
              {decidedWords(decisionOf(payment) ?? 'release', payment.decidedAmount, money)}
            </p>
          {/if}
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
            <RightButton
              right={(amountOf(payment) ?? payment.resultAmount) < payment.resultAmount
                ? 'refund'
                : null}
              label="Take it"
              look="btn-quiet"
              onGo={(lentBy) => decide(payment, 'capture', lentBy)}
            />
            <RightButton
              right="refund"
              label="Release"
              look="btn-quiet"
              onGo={(lentBy) => decide(payment, 'release', lentBy)}
            />
          </div>
          {#if wrong?.at === payment.id}<p class="text-error" role="alert">{wrong.words}</p>{/if}
        </li>
      {/each}
    </ul>
  </section>
{/if}
