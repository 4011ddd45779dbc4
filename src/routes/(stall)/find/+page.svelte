<script lang="ts">
  import { MOST_FOUND, type FoundSale } from '$lib/core/sale/sale-document';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { fittingDocuments, type DocumentKind } from '$lib/core/find/documents';
  import { fittingSales } from '$lib/core/find/sales';
  import { receiptCodeIn, receiptOfSale } from '$lib/core/receipt/receipt-code';
  import { isSaleNumber } from '$lib/core/sale/sale-number';
  import { readDocumentsToFind } from '$lib/device/find-documents';
  import { readSalesToFind } from '$lib/device/find-sales';
  import { asked } from '$lib/device/asked.svelte';
  import { live } from '$lib/device/live.svelte';
  import { askOlder } from '$lib/device/sale-document';
  import type { Away } from '$lib/device/sync/ask-server';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { shortDayWords, timeWords } from '$lib/ui/words/date-words';
  import { keyOf } from '$lib/ui/counter/keys';
  import { kindWords } from '$lib/ui/words/find-words';
  import { useWords } from '$lib/ui/words/stock-words';
  import { Goods } from '../stock/goods.svelte';
  import { sortWords } from '$lib/ui/words/invoice-words';
  import { useStall } from '../stall.svelte';
  import FoundDocuments from './FoundDocuments.svelte';
  import { Later } from './later.svelte';

  const LIST = 'grid max-w-3xl grid-cols-[minmax(0,1fr)] gap-2 [&[hidden]]:hidden';
  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  /** What a scanner read elsewhere comes along. */
  let typed = $state(page.url.searchParams.get('for') ?? '');
  const sales = live(() => () => readSalesToFind(db), undefined);
  const found = $derived(
    sales.value === undefined ? [] : fittingSales(sales.value, typed, stall.business.currency),
  );
  /** The first are there with the key, the others as soon as they have been painted. */
  let allFor = $state('');
  $effect(() => {
    const wanted = typed;
    const timer = setTimeout(() => (allFor = wanted), 80);
    return () => clearTimeout(timer);
  });
  const isBehind = $derived(allFor !== typed);
  const here = new Later(
    () => found,
    () => isBehind,
  );
  let field = $state<HTMLInputElement>();
  $effect(() => {
    if (matchMedia('(pointer: fine)').matches) field?.focus();
  });

  /** What the server has besides, once nothing has been typed for a moment. */
  const asks = asked<Awaited<ReturnType<typeof askOlder>> | 'asking'>(() => {
    const of = typed.trim();
    return of === '' ? null : { of, ask: () => askOlder(stall.transport, of), after: 400 };
  }, 'asking');
  const older = $derived(typed.trim() === '' ? 'not asked' : asks.value);
  const known = $derived(new Set(found.map(({ sale }) => sale.id)));
  const elsewhere = $derived(
    typeof older === 'string' || older.is !== 'there'
      ? []
      : older.sales.filter(({ sale }) => !known.has(sale.id)),
  );

  const goods = new Goods(stall);
  const documents = live(() => {
    // Names are put in once: what is read only inside the query would not be followed.
    void [goods.places, stall.everybody, stall.events];
    const words = {
      list: (use: string) => useWords[use as keyof typeof useWords],
      place: (id: string) => goods.placeName(id),
      person: (id: string | null) => stall.nameOf(id),
      invoice: sortWords,
    };
    return () => readDocumentsToFind(db, words);
  }, []);
  const own = $derived(fittingDocuments(documents.value, typed, stall.business.currency));
  /** Those that this device let go of come after its own. */
  const others = $derived.by(() => {
    if (typeof older === 'string' || older.is !== 'there') return own;
    const known = new Set(documents.value.map(({ document }) => document.id));
    return [...own, ...older.documents.filter(({ id }) => !known.has(id))];
  });
  /** Only these are shown; empty for everything. */
  let only = $state<DocumentKind | 'sale' | ''>('');
  /** Kinds of which there is something, with how many. */
  const kinds = $derived.by(() => {
    const counts = new Map<DocumentKind | 'sale', number>();
    if (found.length + elsewhere.length > 0) counts.set('sale', found.length + elsewhere.length);
    for (const { kind } of others) counts.set(kind, (counts.get(kind) ?? 0) + 1);
    return [...counts];
  });
  $effect(() => {
    if (only !== '' && !kinds.some(([kind]) => kind === only)) only = '';
  });

  /** As many as are ever asked for are as many or more. */
  const countWords = (kind: DocumentKind | 'sale', many: number): string =>
    kind === 'sale' && many >= MOST_FOUND ? `${String(MOST_FOUND)} or more` : String(many);

  async function ofNumber(number: string): Promise<readonly FoundSale[] | Away> {
    const all = sales.value ?? (await readSalesToFind(db));
    const own = fittingSales(all, number, stall.business.currency);
    if (own.some(({ sale }) => sale.number === number)) return own;
    const answer = await askOlder(stall.transport, number);
    return answer.is === 'there' ? answer.sales : answer;
  }

  /** A receipt that was scanned opens its sale, if it is one of this business. */
  const code = $derived(receiptCodeIn(typed));
  let ofOthers = $state('');
  $effect(() => {
    const scanned = code;
    ofOthers = '';
    if (scanned === null) return;
    const { id } = stall.business;
    let isOld = false;
    void ofNumber(scanned.number).then((known) => {
      if (isOld) return;
      if ('is' in known) {
        ofOthers = `${scanned.number} is not on this device. ${wrongOf(known.asked, 'There is no network to ask the server for it.')}`;
        return;
      }
      for (const { sale } of known) {
        const is = receiptOfSale(scanned, id, sale);
        if (is === null) continue;
        void goto(`/sales/${sale.id}${is === 'gift' ? '?gift' : ''}`);
        return;
      }
      ofOthers = `This is no receipt of ${stall.business.name}: its code is of another business, or of a sale ${scanned.number} that came to another amount.`;
    });
    return () => (isOld = true);
  });

  /** Arrows go through what was found, and Enter opens it; from the field, the first. */
  let results = $state<HTMLElement>();
  function onkeydown(event: KeyboardEvent): void {
    const key = keyOf(event);
    if (results === undefined || !['ArrowDown', 'ArrowUp', 'Enter', 'Esc'].includes(key)) return;
    const links = [...results.querySelectorAll<HTMLElement>('[data-found]')].filter(
      (link) => link.closest('[hidden]') === null,
    );
    const at = links.findIndex((link) => link === document.activeElement);
    if (key === 'Enter') {
      if (document.activeElement !== field || code !== null) return;
      links[0]?.click();
    } else if (key === 'Esc' || (key === 'ArrowUp' && at === 0)) field?.focus();
    else if (key === 'ArrowDown') links[Math.min(at + 1, links.length - 1)]?.focus();
    else if (at > 0) links[at - 1]?.focus();
    else return;
    event.preventDefault();
  }
</script>

{#snippet row({ sale, lines, isVoid, back }: FoundSale)}
  <li>
    <a
      href="/sales/{sale.id}"
      data-found
      class="sheet grid grid-cols-[auto_minmax(0,1fr)_auto] items-baseline gap-x-4"
    >
      <b class="code">{sale.number}</b>
      <span class="truncate">{lines.map((line) => line.name).join(', ')}</span>
      <span class={['amount', isVoid && 'line-through']}
        >{money.text(sale.total + sale.uplift)}</span
      >
      <span></span>
      <span class="soft text-sm">
        {shortDayWords(sale.day, stall.business.locale)}, {timeWords(
          sale.at,
          stall.business.locale,
          stall.business.timeZone,
        )} · {stall.nameOf(sale.by)}{isVoid ? ' · void' : ''}{back === 0
          ? ''
          : ` · ${money.text(back)} given back`}
      </span>
    </a>
  </li>
{/snippet}

<svelte:window {onkeydown} />

<div class="page gap-5">
  <div class="flex flex-wrap items-baseline justify-between gap-3">
    <h1>Find</h1>
    <a
      class="plain"
      href="/refund{isSaleNumber(typed) ? `?number=${encodeURIComponent(typed.trim())}` : ''}"
      >Give back without a sale …</a
    >
  </div>
  <label class="grid max-w-xl gap-1 font-[560]">
    Anything by number, name, item or amount
    <input
      bind:this={field}
      class="input w-full text-lg"
      bind:value={typed}
      autocomplete="off"
      maxlength="100"
      placeholder="D4-17, lavender, 13.50"
      aria-describedby="find-by"
    />
  </label>
  <p id="find-by" class="soft text-sm">
    Also by who sold or bought, a day such as 2026-05-01, a payment’s reference, a card’s last four,
    a barcode, or a receipt’s code scanned.
  </p>
  {#if ofOthers !== ''}<p class="sheet text-error max-w-3xl" role="alert">{ofOthers}</p>{/if}
  {#if kinds.length > 1}
    <div class="flex flex-wrap gap-2" role="group" aria-label="Only these">
      {#each [['', 'Everything'], ...kinds.map( ([kind, many]) => [kind, `${kindWords[kind].many} ${countWords(kind, many)}`] )] as [kind, label] (kind)}
        <button
          type="button"
          class={['btn btn-quiet', only === kind && '!border-primary !border-3']}
          aria-pressed={only === kind}
          onclick={() => (only = kind as typeof only)}>{label}</button
        >
      {/each}
    </div>
  {/if}
  <div bind:this={results} class="contents">
    {#if only === '' || only === 'sale'}
      <div class={LIST} data-testid="found-here">
        <ul class={LIST} aria-label="On this device">
          {#each here.first as each (each.sale.id)}
            {@render row(each)}
          {:else}
            {#if sales.isRead}
              <li class="soft">
                {typed.trim() === ''
                  ? 'Sales of this and recent events show here, newest first.'
                  : `No sale on this device fits “${typed}”.`}
              </li>
            {/if}
          {/each}
        </ul>
        {#if here.rest.length > 0}
          <ul class={LIST} aria-label="More on this device" hidden={isBehind}>
            {#each here.rest as each (each.sale.id)}{@render row(each)}{/each}
          </ul>
        {/if}
      </div>
    {/if}
    <FoundDocuments documents={others} {only} {isBehind} />
    {#if older !== 'not asked' && (only === '' || only === 'sale')}
      <section class="grid max-w-3xl grid-cols-[minmax(0,1fr)] gap-2" aria-labelledby="older">
        <h2 id="older">On the server</h2>
        <p class="soft" role="status">
          {#if older === 'asking'}Asking the server for older ones …
          {:else if older.is === 'away'}{wrongOf(
              older.asked,
              'No network.',
              'Sales of events more than two weeks past are with the server.',
            )}
          {:else if elsewhere.length === 0}The server has no other sale that fits.
          {:else}{elsewhere.length}
            {elsewhere.length === 1 ? 'that is' : 'that are'} not on this device, newest first.{/if}
        </p>
        <ul class="grid grid-cols-[minmax(0,1fr)] gap-2" data-testid="found-older">
          {#each elsewhere as each (each.sale.id)}{@render row(each)}{/each}
        </ul>
      </section>
    {/if}
  </div>
</div>
