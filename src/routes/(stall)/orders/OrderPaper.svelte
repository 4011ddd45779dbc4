<!-- A quote or an order on paper, and in a mail. -->
<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import type { OrderNow } from '$lib/core/order/order-state';
  import { documentPdf, type DocumentPaper } from '$lib/paper/document-pdf';
  import { mailAddress } from '$lib/ui/files/mail-to';
  import { saveFile } from '$lib/ui/files/save-file';
  import { dayWords } from '$lib/ui/words/date-words';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { SORT_WORDS } from '$lib/ui/words/order-words';
  import { useStall } from '../stall.svelte';

  interface Props {
    now: OrderNow;
    /** Whom it is for. */
    who: string;
    /** Where they are still known. */
    customer: Row<'customers'> | undefined;
  }
  const { now, who, customer }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const { locale, name: business } = $derived(stall.business);
  const paper = $derived<DocumentPaper>({
    title: now.order.sort === 'quote' ? 'Quote' : 'Order',
    number: now.order.number,
    head: business,
    facts: [
      ['For', who],
      ...(now.order.until === ''
        ? []
        : ([
            [
              now.order.sort === 'quote' ? 'Holds until' : 'Kept until',
              dayWords(now.order.until, locale),
            ],
          ] as const)),
      ...(now.order.note === '' ? [] : ([['Note', now.order.note]] as const)),
    ],
    columns: [
      { head: 'goods', isFigure: false },
      { head: 'quantity', isFigure: true },
      { head: money.currency, isFigure: true },
    ],
    rows: now.order.lines.map((line) => [
      [line.name, line.detail].filter((part) => part !== '').join(', '),
      quantityWords(line.quantity, line.unit),
      money.figure(line.total),
    ]),
    foot: [
      `${SORT_WORDS[now.order.sort]}: ${money.text(now.total)}`,
      now.deposit === 0 ? '' : `paid in advance: ${money.text(now.deposit)}`,
      now.order.sort === 'quote' ? '' : `to pay: ${money.text(now.due)}`,
    ]
      .filter((part) => part !== '')
      .join(' · '),
  });
  const letter = $derived({
    subject: `${paper.title} ${paper.number} from ${business}`,
    text: [
      ...paper.facts.map(([label, value]) => `${label}: ${value}`),
      '',
      ...paper.rows.map((row) => row.join(' · ')),
      '',
      paper.foot,
      '',
      business,
    ].join('\r\n'),
  });
</script>

<button
  type="button"
  class="btn btn-quiet"
  onclick={async () =>
    saveFile(
      `${paper.title} ${paper.number}.pdf`,
      'application/pdf',
      await documentPdf(paper, 'sheet'),
    )}>Save as a PDF</button
>
{#if (customer?.email ?? '') !== ''}
  <a class="btn btn-quiet" href={mailAddress(customer?.email ?? '', letter)}>Write them a mail</a>
{/if}
