<script lang="ts">
  import { page } from '$app/state';
  import type { SaleDocument } from '$lib/core/sale/sale-document';
  import { customerOf } from '$lib/device/customer-records';
  import { asked } from '$lib/device/asked.svelte';
  import { live } from '$lib/device/live.svelte';
  import { ownBack, withOwn } from '$lib/device/return-goods';
  import { askSale, ownSale, type OlderSale } from '$lib/device/sale-document';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { useStall } from '../../stall.svelte';
  import { standingVoids } from '$lib/core/loose-end/voided-twice';
  import PutRight from './PutRight.svelte';
  import Receipt from './Receipt.svelte';
  import ReturnGoods from './ReturnGoods.svelte';
  import SaleInvoice from './SaleInvoice.svelte';
  import VoidSale from './VoidSale.svelte';

  const stall = useStall();
  const { db } = stall;
  const own = live(() => {
    const id = page.params.id ?? '';
    return () => ownSale(db, id);
  }, null);
  /** What is long past is asked of the server. */
  const asks = asked<OlderSale | { readonly is: 'asking' }>(
    () => {
      const id = page.params.id ?? '';
      if (!own.isRead || own.value !== null) return null;
      return { of: id, ask: () => askSale(stall.transport, id) };
    },
    { is: 'asking' },
  );
  const older = $derived(asks.value);
  /** Of a sale that is with the server: what came back of it here, sent or not. */
  const back = live(
    () => {
      const id = page.params.id ?? '';
      return () => ownBack(db, id);
    },
    { returns: [], refunds: [], corrections: [] },
  );
  const found = $derived<SaleDocument | null>(
    own.value ?? (older.is === 'there' ? withOwn(older.found, back.value) : null),
  );
  const buyer = live(() => {
    const id = found?.sale.customer ?? null;
    return () => (id === null ? undefined : customerOf(db, id));
  }, undefined);
  /** By a receipt without prices: whoever brings goods back was given them, and sees what they cost nowhere. */
  const isGift = $derived(page.url.searchParams.has('gift'));
  const { name, email, phone } = $derived(buyer.value ?? { name: '', email: '', phone: '' });
</script>

<div class="page gap-5">
  {#if found !== null && (found.sale.customer === null || buyer.isRead)}
    {#key `${found.sale.id} ${name} ${String(isGift)}`}
      <div class="mx-auto grid w-full max-w-md gap-5 lg:max-w-4xl lg:grid-cols-2 lg:items-start">
        <div class="grid grid-cols-[minmax(0,1fr)] gap-5">
          <Receipt found={{ ...found, customer: name, email, phone }} asGift={isGift} />
          {#if name !== '' || found.sale.note !== ''}
            <p class="soft mx-auto w-full max-w-md print:hidden" data-testid="sale-said">
              {[name, found.sale.standingName, found.sale.note]
                .filter((part) => part !== '')
                .join(' · ')}
            </p>
          {/if}
        </div>
        <div class="grid grid-cols-[minmax(0,1fr)] gap-5">
          {#if isGift}
            <p class="sheet mx-auto w-full max-w-md print:hidden" role="status">
              Found by a gift receipt: no prices are shown.
              <a class="plain" href="/sales/{found.sale.id}">Show the whole sale</a>
            </p>
          {/if}
          <ReturnGoods {found} {isGift} />
          {#if !isGift}
            {#if standingVoids(found.voids, found.undone).length === 0}
              <PutRight {found} />
            {/if}
            <SaleInvoice
              sale={found.sale.id}
              isVoid={standingVoids(found.voids, found.undone).length > 0}
            />
            <VoidSale
              sale={found.sale}
              payments={found.payments}
              voids={found.voids}
              returns={found.returns}
            />
          {/if}
        </div>
      </div>
    {/key}
  {:else if own.isRead && found === null}
    <p class="sheet max-w-xl" role="status">
      {#if older.is === 'asking'}This sale is not on this device; asking the server …
      {:else if older.is === 'away'}This sale is not on this device. {wrongOf(
          older.asked,
          'There is no network to ask the server for it.',
        )}
      {:else}There is no such sale.{/if}
      <a class="plain" href="/find">Find another</a>
    </p>
  {/if}
</div>
