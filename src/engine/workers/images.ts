import { JackplaneError } from '../../core/errors';
import { MOST_PIXELS, MOST_SIDE } from '../types';

const startsWith = (head: Uint8Array, ...bytes: number[]) => bytes.every((byte, i) => head[i] === byte);
const ascii = (head: Uint8Array, from: number, to: number) => String.fromCharCode(...head.subarray(from, to));

/** Image type by content, whatever the file is called. */
export function imageType(head: Uint8Array): string | null {
  if (startsWith(head, 0x89, 0x50, 0x4e, 0x47)) return 'image/png';
  if (startsWith(head, 0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (ascii(head, 0, 4) === 'RIFF' && ascii(head, 8, 12) === 'WEBP') return 'image/webp';
  return null;
}

/** @throws JackplaneError when a picture is larger than what is opened */
export function checkSize(name: string, width: number, height: number): void {
  if (width <= MOST_SIDE && height <= MOST_SIDE && width * height <= MOST_PIXELS) return;
  throw new JackplaneError('unsupported', `“${name}” is ${width}×${height} pixels, more than the ${MOST_SIDE} a side and ${MOST_PIXELS / 1e6} million pixels that Jackplane opens.`, 'Make it smaller first.');
}

export interface Still {
  data: Uint8ClampedArray<ArrayBuffer>;
  width: number;
  height: number;
}

/** Straight 8-bit RGBA of a still, upright. @throws JackplaneError bad-media or unsupported */
export async function readStill(file: Blob, name: string, type: string): Promise<Still> {
  const head = new Uint8Array(await file.slice(0, 32).arrayBuffer());
  if (type === 'image/png' && head.length >= 24) {
    const view = new DataView(head.buffer);
    checkSize(name, view.getUint32(16), view.getUint32(20));
  }
  try {
    // JPEG carries its orientation outside the picture and has no alpha; the bitmap decoder applies the one and needs not keep the other
    return type !== 'image/jpeg' && typeof ImageDecoder === 'function' ? await decodeExactly(file, name, type) : await decodeUpright(file, name);
  } catch (error) {
    if (error instanceof JackplaneError) throw error;
    throw new JackplaneError('bad-media', `“${name}” is damaged or cut off; its picture could not be decoded.`, 'Export it again and import the new file.');
  }
}

async function decodeExactly(file: Blob, name: string, type: string): Promise<Still> {
  const decoder = new ImageDecoder({ data: await file.arrayBuffer(), type });
  try {
    const { image } = await decoder.decode({ completeFramesOnly: true });
    const [width, height] = [image.displayWidth, image.displayHeight];
    try {
      checkSize(name, width, height);
      const data = new Uint8ClampedArray(image.allocationSize({ format: 'RGBA' }));
      await image.copyTo(data, { format: 'RGBA' });
      return { data, width, height };
    } finally {
      image.close();
    }
  } finally {
    decoder.close();
  }
}

async function decodeUpright(file: Blob, name: string): Promise<Still> {
  const bitmap = await createImageBitmap(file);
  try {
    const { width, height } = bitmap;
    checkSize(name, width, height);
    const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
    context.drawImage(bitmap, 0, 0);
    return { data: context.getImageData(0, 0, width, height).data as Uint8ClampedArray<ArrayBuffer>, width, height };
  } finally {
    bitmap.close();
  }
}

/** A small WebP of a picture for lists. */
export async function posterOf({ data, width, height }: Still): Promise<Blob> {
  const scale = Math.min(1, 320 / width, 200 / height);
  const bitmap = await createImageBitmap(new ImageData(data, width, height));
  const canvas = new OffscreenCanvas(Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale)));
  const context = canvas.getContext('2d')!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return canvas.convertToBlob({ type: 'image/webp', quality: 0.85 });
}

export function hasAlpha({ data }: Still): boolean {
  for (let i = 3; i < data.length; i += 4) if (data[i]! < 255) return true;
  return false;
}
