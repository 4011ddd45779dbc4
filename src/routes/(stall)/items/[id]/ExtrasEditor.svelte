<script lang="ts">
  import type { TypedExtraGroup, TypedItem } from '$lib/core/goods/set-item';

  interface Props {
    groups: TypedItem['extras'];
  }
  let { groups = $bindable() }: Props = $props();
  const BLANK = { name: '', price: '', isDefault: false };
  const change = (at: number, said: Partial<TypedExtraGroup>): void => {
    groups = groups.map((each, i) => (i === at ? { ...each, ...said } : each));
  };
  const changeOption = (at: number, option: number, said: Partial<typeof BLANK>): void => {
    const options = groups[at]?.options ?? [];
    change(at, { options: options.map((each, i) => (i === option ? { ...each, ...said } : each)) });
  };
</script>

<section class="sheet grid grid-cols-[minmax(0,1fr)] gap-4" aria-labelledby="extras">
  <h2 id="extras">Extras</h2>
  <p class="soft">Gift wrap, engraving, another compost: in groups, each at a price of its own.</p>
  {#each groups as group, at (at)}
    <fieldset class="border-base-300 grid gap-2 rounded-lg border p-3">
      <div class="flex flex-wrap items-end gap-2">
        <label class="grid min-w-0 flex-[1_1_9rem] gap-1 font-[560]">
          Group
          <input
            class="input w-full"
            maxlength="80"
            value={group.name}
            oninput={(event) => change(at, { name: event.currentTarget.value })}
          />
        </label>
        <label class="grid w-20 gap-1 font-[560]">
          At least
          <input
            class="input figure w-full"
            inputmode="numeric"
            value={group.least}
            oninput={(event) => change(at, { least: event.currentTarget.value })}
          />
        </label>
        <label class="grid w-20 gap-1 font-[560]">
          At most
          <input
            class="input figure w-full"
            inputmode="numeric"
            value={group.most}
            oninput={(event) => change(at, { most: event.currentTarget.value })}
          />
        </label>
        <button
          type="button"
          class="btn btn-quiet"
          onclick={() => (groups = groups.filter((_, i) => i !== at))}>Remove</button
        >
      </div>
      {#each group.options as option, i (i)}
        <div class="flex flex-wrap items-center gap-2">
          <input
            class="input min-w-0 flex-[1_1_9rem]"
            aria-label="Extra"
            placeholder="Gift wrap"
            maxlength="80"
            value={option.name}
            oninput={(event) => changeOption(at, i, { name: event.currentTarget.value })}
          />
          <input
            class="input figure w-24"
            aria-label={`Price of ${option.name}`}
            inputmode="decimal"
            placeholder="0.00"
            value={option.price}
            oninput={(event) => changeOption(at, i, { price: event.currentTarget.value })}
          />
          <label class="flex min-h-12 items-center gap-2">
            <input
              type="checkbox"
              class="checkbox size-6 !rounded-md"
              checked={option.isDefault}
              onchange={(event) => changeOption(at, i, { isDefault: event.currentTarget.checked })}
            />
            usual
          </label>
        </div>
      {/each}
      <button
        type="button"
        class="btn btn-quiet justify-self-start"
        onclick={() => change(at, { options: [...group.options, BLANK] })}>Add an extra</button
      >
    </fieldset>
  {/each}
  <button
    type="button"
    class="btn btn-quiet justify-self-start"
    onclick={() =>
      (groups = [...groups, { name: '', least: '0', most: '1', options: [{ ...BLANK }] }])}
    >Add a group</button
  >
</section>
