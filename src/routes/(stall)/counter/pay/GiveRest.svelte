<script lang="ts">
  /** What comes back pays for all of the slip: it is rung up, and the rest is given back. */
  import { toast } from 'svelte-sonner';
  import { asCredit } from '$lib/core/held/held-account';
  import { EXCHANGE } from '$lib/core/payment/methods';
  import { CASH_WAY } from '$lib/core/payment/ways';
  import type { RestBy } from '$lib/core/sale/exchange';
  import { leftOnCard, mostOnAccount } from '$lib/core/sale/make-return';
  import { live } from '$lib/device/live.svelte';
  import { ownSale } from '$lib/device/sale-document';
  import { faultWords } from '$lib/ui/words/fault-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../../stall.svelte';
  import { ringUpExchanged } from '../take-payment';

  interface Props {
    onnext: () => void;
  }
  const { onnext }: Props = $props();
  const stall = useStall();
  const { slip, db } = stall;
  const money = $derived(stall.money);
  const over = $derived(slip.over);
  /** The sale that the goods are of, where they are of one: the rest can go back as that was paid. */
  const found = live(() => {
    const [only, ...more] = slip.current.back ?? [];
    return async () =>
      only === undefined || more.length > 0 ? null : await ownSale(db, only.sale);
  }, null);
  interface Choice {
    readonly id: string;
    readonly label: string;
    readonly rest: RestBy;
  }
  const choices = $derived.by((): readonly Choice[] => [
    ...stall.openDrawers.map(({ id, name }) => ({
      id: `drawer ${id}`,
      label: `Cash out of ${name}`,
      rest: { way: CASH_WAY.id, drawer: id, card: null },
    })),
    ...(found.value?.payments ?? []).flatMap((part): Choice[] => {
      const { id, way, wayName, card, drawer, held, promotion } = part;
      // What points and rewards paid went back as such.
      if (drawer !== null || way === EXCHANGE || promotion !== null) return [];
      if (held != null) {
        const { account } = held;
        const { payments = [], returns = [] } = found.value ?? {};
        const most = mostOnAccount(account, payments, returns);
        if (most === null || most < over) return [];
        const label = `On ${wayName}, as it was paid`;
        return [{ id: account, label, rest: { way, drawer: null, card: null, account } }];
      }
      if (card === null) {
        const label = `By ${wayName}, as it was paid`;
        return [{ id: `way ${way}`, label, rest: { way, drawer: null, card: null } }];
      }
      if (leftOnCard(part, found.value?.refunds ?? []) < over) return [];
      const label = `To ${wayName} ${card.last4}`;
      return [{ id: `card ${id}`, label, rest: { way, drawer: null, card: id } }];
    }),
    ...keptAsCredit(),
  ]);
  /** Of whoever is on the slip, where credit is a way to pay. */
  function keptAsCredit(): readonly Choice[] {
    const { customer } = slip.current;
    const credit = customer === undefined ? null : asCredit(stall.wayRows, customer.id);
    if (customer === undefined || credit === null) return [];
    const rest = { ...credit, drawer: null, card: null };
    return [{ id: credit.account, label: `As credit of ${customer.name}`, rest }];
  }
  let chosen = $state('');
  const choice = $derived(choices.find(({ id }) => id === chosen) ?? choices[0]);
  let isBusy = $state(false);
  let wrong = $state('');

  async function go(): Promise<void> {
    if (isBusy) return;
    isBusy = true;
    wrong = '';
    const given = over;
    const isCard = choice?.rest.card != null;
    const isOnAccount = choice?.rest.account != null;
    try {
      const rest = given === 0 ? null : (choice?.rest ?? null);
      const rung = await ringUpExchanged(stall, rest);
      if (!rung.ok) {
        wrong = refusalWords(rung.refusal, money);
        return;
      }
      if (given > 0)
        toast(
          isCard
            ? `${rung.number ?? ''}: ${money.text(given)} goes to the card as soon as there is network.`
            : isOnAccount
              ? `${rung.number ?? ''}: ${money.text(given)} is on the account.`
              : `${rung.number ?? ''}: give back ${money.text(given)}.`,
        );
      onnext();
    } catch (error) {
      wrong = `Nothing was written, and the slip is still here: ${faultWords(error)}`;
    } finally {
      isBusy = false;
    }
  }
</script>

<section class="sheet grid gap-3" aria-label="Exchange" data-testid="exchange">
  {#if over === 0}
    <p>What comes back pays for all of it: nothing is to pay, and nothing to give back.</p>
  {:else}
    <p>What comes back is worth more than what is on the slip.</p>
    {#if choices.length === 0}
      <p class="text-error" role="alert">
        Open a drawer first: there is nothing here that {money.text(over)} can be given back from.
      </p>
    {:else}
      <label class="grid gap-1 font-[560]">
        Given back
        <select
          class="select min-h-12 w-full"
          bind:value={() => choice?.id ?? '', (value) => (chosen = value)}
        >
          {#each choices as { id, label } (id)}<option value={id}>{label}</option>{/each}
        </select>
      </label>
    {/if}
  {/if}
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  <button
    type="button"
    class="btn btn-main justify-self-start"
    disabled={isBusy || stall.slipLacks.length > 0 || (over > 0 && choice === undefined)}
    onclick={go}>{over === 0 ? 'Ring it up' : `Give back ${money.text(over)}`}</button
  >
</section>
