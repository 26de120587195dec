// Reads scopes from the frame that is shown.
import * as Comlink from 'comlink';
import { readScopes, type ScopeQuestion, type ScopeReading } from '../../core/scopes/read';
import { carryErrors } from '../thrown';

carryErrors();

export interface Scoped {
  reading: ScopeReading;
  /** stripes where a channel is at an end of its range, of the bitmap's size; null when they were not asked for */
  warnings: ImageBitmap | null;
}
let canvas: OffscreenCanvas | null = null;

function pixelsOf(bitmap: ImageBitmap): ImageData {
  const { width, height } = bitmap;
  if (canvas?.width !== width || canvas.height !== height) canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.clearRect(0, 0, width, height);
  context.drawImage(bitmap, 0, 0);
  return context.getImageData(0, 0, width, height);
}

/** Width of the stripes in pixels, and their colours: too dark, too bright. */
const STRIPE = 4;
/** @param solid not where it is clear */
function stripes({ data, width, height }: ImageData, solid: boolean): ImageBitmap {
  const out = new OffscreenCanvas(width, height);
  const image = new ImageData(width, height);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 4) {
      if (solid && data[i + 3]! < 128) continue;
      const [r, g, b] = [data[i]!, data[i + 1]!, data[i + 2]!];
      const high = r === 255 || g === 255 || b === 255;
      const low = r === 0 || g === 0 || b === 0;
      // the ones lean one way, the others the other, so that colour does not have to tell them apart
      const on = high ? (x + y) % (2 * STRIPE) < STRIPE : low && (x - y + 2 * STRIPE * height) % (2 * STRIPE) < STRIPE;
      if (on) image.data.set(high ? [227, 88, 74, 255] : [120, 170, 235, 255], i);
    }
  out.getContext('2d')!.putImageData(image, 0, 0);
  return out.transferToImageBitmap();
}

const api = {
  /** @param bitmap given over */
  read(bitmap: ImageBitmap, { warn, ...limits }: ScopeQuestion): Scoped {
    const pixels = pixelsOf(bitmap);
    bitmap.close();
    const reading = readScopes(pixels.data, pixels.width, pixels.height, limits);
    const warnings = warn ? stripes(pixels, !!limits.solid) : null;
    const given = [...reading.histogram, ...reading.wave, reading.vector].map(({ buffer }) => buffer);
    return Comlink.transfer({ reading, warnings }, warnings ? [...given, warnings] : given);
  },
};
export type ScopeApi = typeof api;
Comlink.expose(api);
