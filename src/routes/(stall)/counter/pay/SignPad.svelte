<script lang="ts">
  import SignaturePad from 'signature_pad';
  import type { Attachment } from 'svelte/attachments';
  import { readSignature, SIGNATURE_BOX } from '$lib/core/payment/signature';
  import { useStall } from '../../stall.svelte';
  import type { CardSteps } from './card-steps.svelte';

  interface Props {
    amount: number;
    card: CardSteps;
  }
  const { amount, card }: Props = $props();
  const stall = useStall();
  let pad: SignaturePad | undefined;
  /** Of the field, in the units that points are read in. */
  let width = 0;
  let wrong = $state('');

  const drawn: Attachment<HTMLCanvasElement> = (element) => {
    const penColor = getComputedStyle(element).color;
    const own = new SignaturePad(element, { penColor, minWidth: 1, maxWidth: 3 });
    pad = own;
    // As many points as the screen has, or it is drawn blurred. A phone that is turned begins anew.
    const observer = new ResizeObserver(() => {
      if (element.clientWidth === width) return;
      width = element.clientWidth;
      element.width = width * devicePixelRatio;
      element.height = element.clientHeight * devicePixelRatio;
      element.getContext('2d')?.scale(devicePixelRatio, devicePixelRatio);
      own.clear();
    });
    observer.observe(element);
    return () => {
      observer.disconnect();
      own.off();
    };
  };

  async function sign(): Promise<void> {
    const strokes = pad?.toData().map(({ points }) => points) ?? [];
    const read = readSignature(strokes, width);
    wrong = read.ok ? '' : 'Sign with a finger or a pen, all across the field.';
    if (read.ok) await card.signed(read.signature);
  }
  function clear(): void {
    pad?.clear();
    wrong = '';
  }
</script>

<p class="text-lg"><b>Sign here</b> for {stall.money.text(amount)}</p>
<canvas
  {@attach drawn}
  class="bg-base-100 border-base-300 w-full touch-none rounded-lg border-2"
  style:aspect-ratio="{SIGNATURE_BOX.width} / {SIGNATURE_BOX.height}"
  data-testid="sign-pad"
  aria-label="Signature"
></canvas>
{#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
<div class="flex flex-wrap gap-2">
  <button type="button" class="btn btn-main px-5" onclick={sign}>It is signed</button>
  <button type="button" class="btn btn-quiet" onclick={clear}>Clear</button>
  <button type="button" class="btn btn-quiet !border-error text-error" onclick={() => card.leave()}
    >Not signed as on the card</button
  >
</div>
<p class="soft">The card is good. It is paid once it is signed for; left unsigned, it is undone.</p>
