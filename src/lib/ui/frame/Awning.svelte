<script lang="ts">
  import type { Row } from '../../core/books/tables';
  import type { Standing } from '../words/sync-words';
  import { syncWords } from '../words/sync-words';

  interface Props {
    event: Row<'events'> | undefined;
    business: string;
    seller: string | null;
    standing: Standing;
  }
  const { event, business, seller, standing }: Props = $props();
</script>

<header
  class="awning"
  style:--stripe={event?.stripe ?? '#1c684c'}
  style:--cloth={event?.cloth ?? '#fffaf0'}
>
  <div class="flex items-center gap-2 px-2.5 pt-[9px] md:px-4">
    <a href="/" class="sign">
      <span class="font-head text-[length:min(1.125rem,4.6vw)] leading-tight font-bold md:truncate"
        >{event?.short ?? business}</span
      >
      {#if event?.pitch}<span class="soft hidden whitespace-nowrap md:inline"
          >pitch {event.pitch}</span
        >{/if}
    </a>
    <span class="min-w-0 flex-1"></span>
    <a href="/set-up" class="sign max-w-[40vw] leading-tight md:max-w-none" data-testid="standing">
      <span class="md:hidden" role="status">{syncWords(standing, true)}</span>
      <span class="hidden md:inline" role="status">{syncWords(standing, false)}</span>
    </a>
    <a
      href="/who"
      class="sign max-w-[28vw] shrink-0 leading-tight md:max-w-none"
      title="Who is selling"
    >
      <span class="max-md:line-clamp-2 md:truncate">{seller ?? 'Who?'}</span>
    </a>
  </div>
</header>
