<script lang="ts">
  import { codeIn } from '$lib/device/scan-image';

  interface Props {
    /** Called once with what was read. */
    onfound: (code: string) => void;
    onclose: () => void;
  }
  const { onfound, onclose }: Props = $props();
  let dialog = $state<HTMLDialogElement>();
  let video = $state<HTMLVideoElement>();
  let says = $state('Hold the barcode in front of the camera.');
  const LOOK_EVERY = 150;

  $effect(() => {
    dialog?.showModal();
    let stream: MediaStream | null = null;
    let hasClosed = false;
    const isClosed = (): boolean => hasClosed;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const look = async (): Promise<void> => {
      if (isClosed() || video === undefined) return;
      const code = video.readyState >= 2 ? await codeIn(video).catch(() => null) : null;
      // Closed while it was looking.
      if (isClosed()) return;
      if (code !== null) {
        if ('vibrate' in navigator) navigator.vibrate(40);
        onfound(code);
        return;
      }
      timer = setTimeout(() => void look(), LOOK_EVERY);
    };
    const start = async (): Promise<void> => {
      try {
        stream = await navigator.mediaDevices.getUserMedia({
          video: { facingMode: 'environment' },
          audio: false,
        });
        if (isClosed()) stream.getTracks().forEach((track) => track.stop());
        else if (video !== undefined) {
          video.srcObject = stream;
          await video.play();
          await look();
        }
      } catch {
        says = 'The camera cannot be used: allow it in the browser, or take a picture instead.';
      }
    };
    void start();
    return () => {
      hasClosed = true;
      clearTimeout(timer);
      stream?.getTracks().forEach((track) => track.stop());
    };
  });

  async function fromPicture(files: FileList | null): Promise<void> {
    const [file] = files ?? [];
    if (file === undefined) return;
    const bitmap = await createImageBitmap(file).catch(() => null);
    const code = bitmap === null ? null : await codeIn(bitmap).catch(() => null);
    if (code === null) says = 'No barcode can be read in that picture; go nearer, with more light.';
    else onfound(code);
  }
</script>

<dialog
  bind:this={dialog}
  class="sheet m-auto w-[min(32rem,96vw)] backdrop:bg-black/60"
  aria-label="Scan with the camera"
  {onclose}
>
  <div class="grid gap-3">
    <video
      bind:this={video}
      class="aspect-[4/3] w-full rounded-lg bg-black object-cover"
      muted
      playsinline
    ></video>
    <p role="status">{says}</p>
    <div class="flex flex-wrap items-center gap-2">
      <input
        type="file"
        accept="image/*"
        capture="environment"
        class="file-input min-h-12 min-w-0 flex-1"
        aria-label="Read a picture instead"
        onchange={(event) => fromPicture(event.currentTarget.files)}
      />
      <button type="button" class="btn btn-quiet" onclick={() => dialog?.close()}>Close</button>
    </div>
  </div>
</dialog>
