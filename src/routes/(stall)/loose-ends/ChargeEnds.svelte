<!-- Standing charges that a card on file did not pay. -->
<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { byRecord } from '$lib/core/customer/joined';
  import { chargeEnds } from '$lib/core/loose-end/charge-ends';
  import { live } from '$lib/device/live.svelte';
  import { notChargedWords } from '$lib/ui/words/charge-words';
  import { InvoicesNow } from '../invoices/invoices-now.svelte';
  import { useStall } from '../stall.svelte';
  import SeenCard from './SeenCard.svelte';

  interface Props {
    settlements: readonly Row<'settlements'>[];
    isShown: (looseEnd: string) => boolean;
    /** Told how many there are. */
    onFound: (count: number) => void;
  }
  const { settlements, isShown, onFound }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  const found = live(
    () => async () => ({
      cards: await db.books.chargeCards.toArray(),
      people: byRecord(await db.books.customers.toArray()),
    }),
    undefined,
  );
  /** Only where a card failed: it looks at all that was invoiced. */
  const invoices = new InvoicesNow(() =>
    (found.value?.cards ?? []).some(({ is }) => is === 'failed') ? undefined : null,
  );
  const left = $derived(new Map(invoices.all.map((each) => [each.invoice.id, each.left])));
  const ends = $derived(chargeEnds(found.value?.cards ?? [], left, settlements));
  $effect(() => onFound(ends.length));
</script>

{#each ends.filter( ({ looseEnd }) => isShown(looseEnd) ) as { looseEnd, failed, left: due } (looseEnd)}
  {@const who = found.value?.people.get(failed.customer)?.name ?? 'a customer'}
  <SeenCard
    {looseEnd}
    label="Standing charge of {who}"
    title="{stall.money.text(due)} of {who}’s standing charge is not paid"
    {settlements}
  >
    <p>
      {notChargedWords(failed)}
      <a class="plain" href="/invoices/charges/{failed.charge}">Open it</a>
    </p>
  </SeenCard>
{/each}
