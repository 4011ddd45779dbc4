<script lang="ts">
  import BookOpen from '@lucide/svelte/icons/notebook-text';
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import Hourglass from '@lucide/svelte/icons/hourglass';
  import Search from '@lucide/svelte/icons/search';
  import Boxes from '@lucide/svelte/icons/boxes';
  import Settings from '@lucide/svelte/icons/settings';
  import Sun from '@lucide/svelte/icons/sun';
  import SunMoon from '@lucide/svelte/icons/sun-moon';
  import Tent from '@lucide/svelte/icons/tent';
  import { looks, THEMES } from './looks.svelte';

  interface Props {
    path: string;
  }
  const { path }: Props = $props();

  const ways = [
    { href: '/', name: 'Today', icon: Sun, more: false },
    { href: '/counter', name: 'Counter', icon: Tent, more: false },
    { href: '/waiting', name: 'Waiting', icon: Hourglass, more: false },
    { href: '/find', name: 'Find', icon: Search, more: false },
    { href: '/stock', name: 'Stock', icon: Boxes, more: true },
    { href: '/books', name: 'Books', icon: BookOpen, more: true },
    { href: '/set-up', name: 'Set-up', icon: Settings, more: true },
  ];
  /** Pages that belong under another way. */
  const under: Readonly<Record<string, string>> = {
    '/events': '/books',
    '/bank': '/books',
    '/ledger': '/books',
    '/season': '/books',
    '/sales': '/find',
    '/drawer': '/',
    '/people': '/set-up',
    '/acts': '/set-up',
    '/customers': '/set-up',
    '/vouchers': '/set-up',
    '/points': '/set-up',
    '/invoices': '/books',
    '/orders': '/waiting',
    '/devices': '/set-up',
    '/loose-ends': '/set-up',
    '/items': '/set-up',
    '/taxes': '/set-up',
    '/business': '/set-up',
    '/tables': '/set-up',
    '/ways': '/set-up',
    '/roll': '/set-up',
    '/categories': '/set-up',
    '/first-day': '/',
  };
  const here = $derived.by(() => {
    const first = `/${path.split('/')[1] ?? ''}`;
    return under[first] ?? first;
  });
  const moreHere = $derived(ways.some((way) => way.more && way.href === here));
  let isOpen = $state(false);
  $effect(() => {
    void path;
    isOpen = false;
  });
</script>

{#snippet themeButton(shape: string)}
  <button
    type="button"
    class={['soft flex min-h-14 items-center gap-0.5 rounded-xl text-sm font-[560]', shape]}
    title="Change the theme"
    onclick={() => looks.nextTheme()}
  >
    <SunMoon aria-hidden="true" class="size-5.5 md:size-6" />
    {THEMES.find(({ id }) => id === looks.theme)?.name}
  </button>
{/snippet}

<nav
  aria-label="Ways around"
  class="border-base-300 flex flex-none justify-between border-t px-1 pb-[env(safe-area-inset-bottom)] md:w-24 md:flex-col md:justify-start md:gap-1 md:border-t-0 md:border-r md:px-2 md:pt-8"
>
  {#each ways as { href, name, icon: Icon, more } (href)}
    <a
      {href}
      aria-current={here === href ? 'page' : undefined}
      class={[
        'flex min-h-14 min-w-0 flex-col items-center justify-center gap-0.5 rounded-xl px-1 text-[length:min(0.875rem,4.9vw)] font-[560] max-md:min-w-[min(3.5rem,16vw)]',
        here === href
          ? 'bg-base-200 text-base-content md:shadow-[inset_4px_0_0_var(--color-accent)]'
          : 'soft',
        more && 'max-md:hidden',
      ]}
    >
      <Icon aria-hidden="true" class="size-5.5 md:size-6" />
      {name}
    </a>
  {/each}
  <div class="relative md:hidden">
    <button
      type="button"
      class={[
        'flex min-h-14 min-w-0 flex-col items-center justify-center gap-0.5 rounded-xl px-1 text-[length:min(0.875rem,4.9vw)] font-[560] max-md:min-w-[min(3.5rem,16vw)]',
        moreHere ? 'bg-base-200' : 'soft',
      ]}
      aria-expanded={isOpen}
      onclick={() => (isOpen = !isOpen)}
    >
      <Ellipsis aria-hidden="true" class="size-5.5" />
      More
    </button>
    {#if isOpen}
      <ul
        class="sheet border-base-300 absolute right-0 bottom-16 z-30 grid w-44 gap-1 border-2 !p-2"
      >
        {#each ways.filter((way) => way.more) as { href, name, icon: Icon } (href)}
          <li>
            <a {href} class="flex min-h-12 items-center gap-3 rounded-lg px-3 font-[560]">
              <Icon aria-hidden="true" class="size-5" />
              {name}
            </a>
          </li>
        {/each}
        <li class="border-base-300 border-t pt-1">
          {@render themeButton('flex-row gap-3 px-3 w-full justify-start')}
        </li>
      </ul>
    {/if}
  </div>
  <div class="mt-auto mb-3 hidden md:block">
    {@render themeButton('flex-col justify-center w-full')}
  </div>
</nav>
