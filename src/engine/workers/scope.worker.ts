// Reads scopes from the frame that is shown.
import * as Comlink from 'comlink';
import { LIMITS, readScopes, type LimitName, type ScopeQuestion, type ScopeReading } from '../../core/scopes/read';
import { carryErrors } from '../thrown';

carryErrors();

export interface Scoped {
  reading: ScopeReading;
  /** stripes where a channel is beyond its limits, of the bitmap's size; null when they were not asked for */
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
function stripes({ data, width, height }: ImageData, solid: boolean, limits: LimitName): ImageBitmap {
  const { low: least, high: most } = LIMITS[limits];
  const out = new OffscreenCanvas(width, height);
  const image = new ImageData(width, height);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 4) {
      if (solid && data[i + 3]! < 128) continue;
      const [r, g, b] = [data[i]!, data[i + 1]!, data[i + 2]!];
      const high = r >= most || g >= most || b >= most;
      const low = r <= least || g <= least || b <= least;
      // the ones lean one way, the others the other, so that colour does not have to tell them apart
      const on = high ? (x + y) % (2 * STRIPE) < STRIPE : low && (x - y + 2 * STRIPE * height) % (2 * STRIPE) < STRIPE;
      if (on) image.data.set(high ? [227, 88, 74, 255] : [120, 170, 235, 255], i);
    }
  out.getContext('2d')!.putImageData(image, 0, 0);
  return out.transferToImageBitmap();
}

const api = {
  /** @param bitmap given over */
  read(bitmap: ImageBitmap, { warn, ...question }: ScopeQuestion): Scoped {
    const pixels = pixelsOf(bitmap);
    bitmap.close();
    const reading = readScopes(pixels.data, pixels.width, pixels.height, question);
    const warnings = warn ? stripes(pixels, !!question.solid, question.limits ?? 'clipped') : null;
    const given = [...reading.histogram, ...reading.wave, reading.vector].map(({ buffer }) => buffer);
    return Comlink.transfer({ reading, warnings }, warnings ? [...given, warnings] : given);
  },
};
export type ScopeApi = typeof api;
Comlink.expose(api);
