<script lang="ts">
  /** What somebody is paid. No device keeps it: it is asked for by whoever is signed in as the owner. */
  import { toast } from 'svelte-sonner';
  import { z } from 'zod';
  import { setPay, type PayRefusal } from '$lib/core/people/set-pay';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { payWords } from '$lib/ui/words/people-words';
  import RightButton from '../../RightButton.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    person: { readonly id: string; readonly name: string };
  }
  const { person }: Props = $props();
  const stall = useStall();
  const answer = z.object({
    business: z.string(),
    pay: z.array(z.object({ id: z.string(), wage: z.number(), commission: z.string() })),
  });
  let seen = $state<'asking' | 'here' | 'sign in' | 'away'>('asking');
  /** Why nothing of it is shown. */
  let away = $state('');
  let wage = $state('');
  let commission = $state('');
  let wrong = $state<PayRefusal | null>(null);
  let isBusy = $state(false);

  async function ask(): Promise<void> {
    const asked = await stall.transport.ask('/api/pay', answer);
    if (asked.came === 'answer' && asked.answer.business === stall.business.id) {
      const found = asked.answer.pay.find(({ id }) => id === person.id);
      wage = stall.money.plain(found?.wage ?? 0);
      commission = found === undefined || found.commission === '' ? '0' : found.commission;
      seen = 'here';
      return;
    }
    seen = asked.came === 'nothing' ? 'away' : 'sign in';
    away = wrongOf(asked, 'No network now; what people are paid is on no device.');
  }
  $effect(() => {
    void person.id;
    void ask();
  });

  async function save(lentBy?: string): Promise<void> {
    isBusy = true;
    const set = {
      ...{ newId, person: person.id, typedWage: wage, typedCommission: commission },
      currency: stall.business.currency,
    };
    const made = await stall.daybook.append(
      () => setPay(set),
      lentBy === undefined ? {} : { lentBy },
    );
    await stall.daybook.settle();
    isBusy = false;
    wrong = made.ok || made.refusal.code === 'slip/gone' ? null : made.refusal;
    if (made.ok) toast(`What ${person.name} is paid is saved.`);
  }
</script>

<section class="sheet grid gap-3" aria-labelledby="paid">
  <h2 id="paid">Wage and commission</h2>
  {#if seen === 'sign in'}
    <p class="soft">
      Only whoever signs in with the business’s e-mail and password sees what people are paid.
      <a class="plain" href="/sign-in">Sign in</a>
    </p>
  {:else if seen === 'away'}
    <p class="soft">{away}</p>
  {:else if seen === 'here'}
    <div class="grid items-start gap-3 sm:grid-cols-2">
      <Field
        label="Wage an hour"
        bind:value={wage}
        inputmode="decimal"
        says={wrong?.code === 'pay/wage' ? payWords(wrong) : ''}
        help="Of the hours on duty at each event."
      />
      <Field
        label="Commission in percent"
        bind:value={commission}
        inputmode="decimal"
        says={wrong?.code === 'pay/commission' ? payWords(wrong) : ''}
        help="Of what was sold, without tax."
      />
    </div>
    <RightButton right="set-up" label="Set the pay" look="btn-quiet" {isBusy} onGo={save} />
  {:else}
    <p class="soft">Asking the server …</p>
  {/if}
</section>
