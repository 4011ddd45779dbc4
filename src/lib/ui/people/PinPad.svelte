<script lang="ts">
  import { LONGEST_PIN, SHORTEST_PIN } from '../../core/people/pin';

  interface Props {
    /** Whose PIN it is; heads the pad. */
    name: string;
    /** What the button says that hands the PIN over. */
    does: string;
    /** What is wrong, in a sentence; empty when nothing is. */
    says: string;
    isBusy: boolean;
    onPin: (pin: string) => void;
    onBack: () => void;
  }
  const { name, does, says, isBusy, onPin, onBack }: Props = $props();

  let pin = $state('');
  const isLongEnough = $derived(pin.length >= SHORTEST_PIN);
  const press = (digit: string): void => {
    if (pin.length < LONGEST_PIN) pin += digit;
  };
  function give(): void {
    if (!isLongEnough || isBusy) return;
    onPin(pin);
    pin = '';
  }
  const keys = ['1', '2', '3', '4', '5', '6', '7', '8', '9'];
</script>

<form
  class="mx-auto grid w-full max-w-xs gap-3"
  onsubmit={(event) => {
    event.preventDefault();
    give();
  }}
>
  <label class="grid gap-1 font-[560]">
    PIN of {name}
    <!-- svelte-ignore a11y_autofocus -->
    <input
      class={['input amount w-full text-center text-2xl tracking-[0.4em]', says && '!border-error']}
      type="password"
      inputmode="numeric"
      autocomplete="off"
      maxlength={LONGEST_PIN}
      autofocus
      bind:value={() => pin, (typed) => (pin = typed.replace(/\D/g, '').slice(0, LONGEST_PIN))}
      aria-invalid={says !== ''}
      aria-describedby="pin-says"
    />
  </label>
  <p id="pin-says" class="text-error min-h-6" role="alert">{says}</p>
  <div class="grid grid-cols-3 gap-2">
    {#each keys as key (key)}
      <button
        type="button"
        class="btn btn-quiet amount !min-h-14 text-2xl"
        onclick={() => press(key)}>{key}</button
      >
    {/each}
    <button type="button" class="btn btn-quiet !min-h-14" onclick={onBack}>Back</button>
    <button type="button" class="btn btn-quiet amount !min-h-14 text-2xl" onclick={() => press('0')}
      >0</button
    >
    <button
      type="button"
      class="btn btn-quiet !min-h-14"
      aria-label="Take the last figure away"
      onclick={() => (pin = pin.slice(0, -1))}>←</button
    >
  </div>
  <button class="btn btn-main" disabled={!isLongEnough || isBusy}>{does}</button>
</form>
