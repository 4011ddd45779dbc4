<!-- Reminders that are due: who is written to now, and who cannot be. -->
<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { mailOf } from '$lib/core/invoice/invoice-paper';
  import type { InvoiceNow } from '$lib/core/invoice/invoice-state';
  import { isMail } from '$lib/core/customer/mail-address';
  import { nextReminder, remind, type ReminderTo } from '$lib/core/invoice/reminders';
  import { customerOf } from '$lib/device/customer-records';
  import { live } from '$lib/device/live.svelte';
  import { newId, newSalt } from '$lib/device/new-id';
  import { invoiceNumberWords, reminderWords } from '$lib/ui/words/invoice-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    /** Those that are looked through. */
    all: readonly InvoiceNow[];
    /** Whether those are of one page, which says itself what they are. */
    isOne?: boolean;
  }
  const { all, isOne = false }: Props = $props();
  const stall = useStall();
  const { db } = stall;

  interface Due extends ReminderTo {
    readonly number: string;
    readonly who: string;
  }

  /** As things are now: what another window has asked for meanwhile is not asked for again. */
  async function dueNow(of: readonly InvoiceNow[]): Promise<readonly Due[]> {
    const sent = await db.books.reminders.toArray();
    const customers = await Promise.all(of.map(({ invoice }) => customerOf(db, invoice.customer)));
    const { reminders } = stall.business;
    return of.flatMap((now, at) => {
      const { invoice, number } = now;
      const own = sent.filter((each) => each.invoice === invoice.id);
      const next = nextReminder(now, own, reminders, stall.today);
      if (next === null || invoice.buyer === null) return [];
      const to = mailOf(invoice, customers[at]);
      return [{ invoice, number, next, to, who: invoice.buyer.name }];
    });
  }
  const overdue = $derived(all.filter(({ stands }) => stands === 'overdue'));
  const due = live(
    () => {
      const of = overdue;
      return () => dueNow(of);
    },
    [] as readonly Due[],
  );
  const reached = $derived(due.value.filter(({ to }) => isMail(to)));
  const others = $derived(due.value.filter(({ to }) => !isMail(to)));

  async function send(lentBy?: string): Promise<void> {
    const of = overdue;
    const made = await stall.daybook.decide(
      () => dueNow(of),
      (now) => ({ ok: true, drafts: remind(newId, newSalt, now) }),
      lentBy === undefined ? {} : { lentBy },
    );
    if (made.ok) toast('Mailed as soon as there is network. What is paid meanwhile is left out.');
  }
</script>

{#if due.value.length > 0}
  <section class="sheet grid gap-2" aria-labelledby="remind" data-testid="remind">
    <h2 id="remind">{isOne ? 'A reminder is due' : 'To be reminded'}</h2>
    <ul class="grid gap-1">
      {#each reached as { invoice, number, next, to, who } (invoice.id)}
        <li>
          {reminderWords(next.step)}{isOne ? '' : ` of ${invoiceNumberWords(number)}`} to {who},
          <span class="soft [overflow-wrap:anywhere]">{to}</span>
        </li>
      {/each}
      {#each others as { invoice, number, who } (invoice.id)}
        <li class="soft">
          {isOne ? '' : `${invoiceNumberWords(number)}: `}{who} has no mail address; send the PDF by post,
          or write an address with the customer.
        </li>
      {/each}
    </ul>
    {#if reached.length > 0}
      <RightButton
        right="invoice"
        look="btn-quiet"
        label={reached.length === 1 ? 'Send it' : `Send all ${String(reached.length)}`}
        onGo={send}
      />
    {/if}
  </section>
{/if}
