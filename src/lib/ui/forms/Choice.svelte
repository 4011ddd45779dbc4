<script lang="ts" module>
  export interface ChoiceOption {
    readonly value: string;
    /** As it is shown, and found by. */
    readonly label: string;
  }
</script>

<script lang="ts">
  import { Combobox } from 'bits-ui';
  import { beginsWords, hasWords, wordsIn } from '$lib/core/entry-line/words';

  interface Props {
    label: string;
    options: readonly ChoiceOption[];
    value: string;
    isWrong?: boolean;
  }
  let { label, options, value = $bindable(), isWrong = false }: Props = $props();
  /** What was typed to find one; null while nothing has been. */
  let typed = $state<string | null>(null);
  let isOpen = $state(false);
  const chosen = $derived(options.find((option) => option.value === value)?.label ?? value);
  const found = $derived.by(() => {
    const words = wordsIn(typed ?? '');
    const named = options.filter((option) => hasWords([option.value, option.label], words));
    // Those first in which a word begins with what was typed.
    return [true, false].flatMap((isFirst) =>
      named.filter(({ label: text }) => beginsWords(text, words) === isFirst),
    );
  });
  const id = $props.id();
</script>

<div class="grid content-start gap-1">
  <label class="font-[560]" for={id}>{label}</label>
  <Combobox.Root
    type="single"
    allowDeselect={false}
    items={[...found]}
    bind:value={() => value, (next) => (value = next === '' ? value : next)}
    bind:open={
      () => isOpen,
      (next) => {
        isOpen = next;
        if (!next) typed = null;
      }
    }
  >
    <div class="relative">
      <Combobox.Input {id}>
        {#snippet child({ props })}
          <input
            {...props}
            class={['input w-full pr-10 font-[560]', isWrong && '!border-error']}
            aria-invalid={isWrong}
            autocomplete="off"
            value={typed ?? chosen}
            oninput={(event) => {
              typed = event.currentTarget.value;
              (props['oninput'] as (event: Event) => void)(event);
            }}
            onclick={(event) => {
              isOpen = true;
              event.currentTarget.select();
            }}
          />
        {/snippet}
      </Combobox.Input>
      <span class="soft pointer-events-none absolute inset-y-0 right-3 grid place-items-center"
        >▾</span
      >
    </div>
    <Combobox.Portal>
      <Combobox.Content
        class="bg-card border-base-300 z-50 max-h-72 w-(--bits-combobox-anchor-width) min-w-(--bits-combobox-anchor-width) overflow-y-auto rounded-xl border-2 p-1 shadow-lg"
        sideOffset={4}
      >
        <Combobox.Viewport>
          {#each found as option (option.value)}
            <Combobox.Item
              value={option.value}
              label={option.label}
              class="data-highlighted:bg-base-200 flex min-h-12 cursor-pointer items-center rounded-lg px-3 data-selected:font-[650]"
              >{option.label}</Combobox.Item
            >
          {:else}
            <p class="soft px-3 py-2">Nothing fits “{typed}”.</p>
          {/each}
        </Combobox.Viewport>
      </Combobox.Content>
    </Combobox.Portal>
  </Combobox.Root>
</div>
