<script lang="ts">
  import { page } from '$app/state';
  import { live } from '$lib/device/live.svelte';
  import { useStall } from '../../stall.svelte';
  import Receipt from './Receipt.svelte';
  import VoidSale from './VoidSale.svelte';

  const { db } = useStall();
  const { books } = db;
  const found = live(() => {
    const id = page.params.id ?? '';
    return async () => {
      const sale = await books.sales.get(id);
      if (sale === undefined) return null;
      const lines = await books.saleLines.where('sale').equals(id).sortBy('line');
      const payments = (await books.payments.bulkGet([...sale.payments])).flatMap((part) =>
        part ? [part] : [],
      );
      const customer =
        sale.customer === null ? undefined : await books.customers.get(sale.customer);
      const { name = '', email = '', phone = '' } = customer ?? {};
      const paidBy = await books.payers.bulkGet([...sale.payments]);
      const payers = paidBy.flatMap((each) => (each ? [each] : []));
      const voids = await books.voids.where('sale').equals(id).toArray();
      return { sale, lines, payments, voids, payers, customer: name, email, phone };
    };
  }, null);
</script>

<div class="page gap-5">
  {#if found.value !== null}
    {#key found.value.sale.id}
      <Receipt found={found.value} />
      <VoidSale sale={found.value.sale} payments={found.value.payments} voids={found.value.voids} />
    {/key}
    {#if found.value.customer !== '' || found.value.sale.note !== ''}
      <p class="soft mx-auto w-full max-w-md print:hidden" data-testid="sale-said">
        {[found.value.customer, found.value.sale.standingName, found.value.sale.note]
          .filter((part) => part !== '')
          .join(' · ')}
      </p>
    {/if}
  {:else if found.isRead}
    <p class="sheet max-w-xl">
      This sale is not on this device. <a class="plain" href="/find">Find another</a>
    </p>
  {/if}
</div>
