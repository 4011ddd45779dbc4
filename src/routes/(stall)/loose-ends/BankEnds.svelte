<script lang="ts">
  /** Lines of the bank that have no name yet; shown to whoever is signed in as the owner, as the bank is. */
  import { AskedBank } from '../bank/bank.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { useStall } from '../stall.svelte';

  interface Props {
    onFound: (count: number) => void;
  }
  const { onFound }: Props = $props();
  const stall = useStall();
  const asked = new AskedBank(stall);
  const open = $derived(asked.now?.open ?? []);
  const money = $derived(stall.money);
  $effect(() => onFound(open.length));
</script>

{#if open.length > 0}
  <section class="sheet border-accent grid gap-2 border-l-8" data-testid="bank-ends">
    <h2>
      {open.length}
      {open.length === 1 ? 'line of the bank has no name' : 'lines of the bank have no name'}
    </h2>
    <ul class="grid gap-1">
      {#each open.slice(0, 5) as { id, day, other, text, left } (id)}
        <li class="flex flex-wrap justify-between gap-2">
          <span>{shortDayWords(day, stall.business.locale)} · {other === '' ? text : other}</span>
          <span class="figure">{money.figure(left)}</span>
        </li>
      {/each}
    </ul>
    {#if open.length > 5}<p class="soft">And {open.length - 5} more.</p>{/if}
    <a class="plain justify-self-start" href="/bank">Say what each is</a>
  </section>
{/if}
