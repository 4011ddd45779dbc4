<!-- How a standing charge stands: when it is made next, what was made of it, what cards paid; halting it. -->
<script lang="ts">
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { chargeAgain, daysToCome, haltCharge } from '$lib/core/charge/set-charge';
  import { openFailures } from '$lib/core/loose-end/charge-ends';
  import { triesOf } from '$lib/device/charges';
  import { newId, newSalt } from '$lib/device/new-id';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { cardTryWords, notChargedWords, oftenWords } from '$lib/ui/words/charge-words';
  import { invoiceNumberWords, STANDS_WORDS } from '$lib/ui/words/invoice-words';
  import RightButton from '../../../RightButton.svelte';
  import { useStall } from '../../../stall.svelte';
  import { InvoicesNow } from '../../invoices-now.svelte';

  interface Props {
    charge: Row<'charges'>;
    person: Row<'customers'> | undefined;
    tries: readonly Row<'chargeCards'>[];
  }
  const { charge, person, tries }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const { locale } = $derived(stall.business);
  const isForgotten = $derived(person === undefined || person.isErased);
  const next = $derived(isForgotten ? [] : daysToCome(charge, 3));
  const invoices = new InvoicesNow(() => charge.customer);
  const made = $derived(
    invoices.all.filter(
      ({ invoice }) => invoice.sourceIs === 'charge' && invoice.source === charge.id,
    ),
  );
  const open = $derived(
    openFailures(tries).filter(({ invoice }) =>
      made.some((each) => each.invoice.id === invoice && each.left > 0),
    ),
  );
  const SHOWN = 24;

  async function halt(goesOn: boolean, lentBy?: string): Promise<void> {
    const { books } = stall.db;
    const { id } = charge;
    // As it is by then: another window may have changed or halted it.
    await stall.daybook.decide(
      () => books.charges.get(id),
      (known) => ({
        ok: true,
        drafts:
          known === undefined || known.isActive === goesOn
            ? []
            : [haltCharge({ newId, newSalt, known, today: stall.today }, goesOn)],
      }),
      lentBy === undefined ? {} : { lentBy },
    );
    toast(goesOn ? 'It goes on.' : 'It is charged no more.');
  }

  async function again(failed: Row<'chargeCards'>, lentBy?: string): Promise<void> {
    await stall.daybook.decide(
      () => triesOf(stall.db, failed.charge),
      (now) => ({
        ok: true,
        drafts: openFailures(now).some(({ id }) => id === failed.id)
          ? [chargeAgain(newId, failed)]
          : [],
      }),
      lentBy === undefined ? {} : { lentBy },
    );
    toast('The server tries the card again as soon as there is network.');
  }
</script>

<section class="sheet grid gap-4" aria-label="How it stands" data-testid="charge">
  <div class="flex flex-wrap items-baseline justify-between gap-3">
    <p class="text-xl">
      {oftenWords(charge)}{#if person !== undefined && !person.isErased},
        <a class="plain" href="/customers/{person.id}">{person.name}</a>{/if}
    </p>
    {#if !isForgotten}
      <RightButton
        right="invoice"
        label={charge.isActive ? 'Charge it no more' : 'Go on with it'}
        look="btn-quiet"
        onGo={(lentBy) => halt(!charge.isActive, lentBy)}
      />
    {/if}
  </div>
  <p data-testid="next">
    {#if isForgotten}
      Whoever it was of was forgotten: it is made no more.
    {:else if !charge.isActive}
      Halted: no invoice is made of it. The days in between are left out when it goes on.
    {:else if next.length === 0}
      It has ended.
    {:else}
      Next {next.map((day) => shortDayWords(day, locale)).join(', ')}{next.length === 3
        ? ' …'
        : ', and then it ends'}
    {/if}
  </p>
  {#each open as failed (failed.id)}
    <div class="border-error grid gap-2 border-l-8 pl-3" data-testid="not-charged">
      <p>
        <b
          >{money.text(failed.amount)} was not paid, {shortDayWords(
            failed.at.slice(0, 10),
            locale,
          )}.</b
        >
        {notChargedWords(failed)}
      </p>
      <div class="flex flex-wrap gap-2">
        <RightButton
          right="invoice"
          label="Try the card again"
          look="btn-quiet"
          onGo={(lentBy) => again(failed, lentBy)}
        />
        <a class="btn btn-quiet" href="/invoices/{failed.invoice}">Open the invoice</a>
      </div>
    </div>
  {/each}
  {#if made.length > 0}
    <ul class="grid" data-testid="made">
      {#each made.slice(0, SHOWN) as { invoice, number, stands, left } (invoice.id)}
        <li class="border-base-300 border-b border-dashed py-2 last:border-0">
          <a
            class="grid min-h-12 grid-cols-[1fr_auto] items-baseline gap-x-4 no-underline"
            href="/invoices/{invoice.id}"
          >
            <span
              ><b>{invoiceNumberWords(number)}</b>
              <span class={stands === 'overdue' ? 'text-error font-[600]' : 'soft'}
                >of {shortDayWords(invoice.sourceNumber, locale)}, {STANDS_WORDS[stands]}</span
              ></span
            >
            <span class="figure">{money.figure(left > 0 ? left : invoice.total)}</span>
          </a>
          {#each tries.filter((each) => each.invoice === invoice.id) as each (each.id)}
            <span class="soft block text-sm"
              >{cardTryWords(each, money)}, {shortDayWords(each.at.slice(0, 10), locale)}</span
            >
          {/each}
        </li>
      {/each}
    </ul>
    {#if made.length > SHOWN}
      <p class="soft">And {String(made.length - SHOWN)} older.</p>
    {/if}
  {:else if charge.isActive && !isForgotten}
    <p class="soft">No invoice was made of it yet.</p>
  {/if}
</section>
