/** Reading barcodes out of pictures, with a reader that is served by us and works offline. */
import { BarcodeDetector, prepareZXingModule } from 'barcode-detector/ponyfill';
import wasm from 'zxing-wasm/reader/zxing_reader.wasm?url';

let detector: BarcodeDetector | undefined;

/** What goods carry, and what this till prints. */
const FORMATS = [
  'ean_13',
  'ean_8',
  'upc_a',
  'upc_e',
  'itf',
  'code_128',
  'code_39',
  'qr_code',
  'data_matrix',
] as const;

/** The first code in a picture, or null; the reader is loaded when it is first asked. */
export async function codeIn(image: ImageBitmapSource): Promise<string | null> {
  if (detector === undefined) {
    prepareZXingModule({
      overrides: {
        locateFile: (path: string, prefix: string) =>
          path.endsWith('.wasm') ? wasm : prefix + path,
      },
    });
    detector = new BarcodeDetector({ formats: [...FORMATS] });
  }
  const [found] = await detector.detect(image);
  return found === undefined ? null : found.rawValue;
}
