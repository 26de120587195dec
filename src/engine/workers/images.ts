import { JackplaneError } from '../../core/base/errors';
import { checkHeader, checkSize, damagedPicture } from '../../core/formats/picture-size';
import { upright } from './upright';

const startsWith = (head: Uint8Array, ...bytes: number[]) => bytes.every((byte, i) => head[i] === byte);
const ascii = (head: Uint8Array, from: number, to: number) => String.fromCharCode(...head.subarray(from, to));
const headOf = async (file: Blob, bytes: number) => new Uint8Array(await file.slice(0, bytes).arrayBuffer());

const AVIF = ['avif', 'avis'];
const HEIC = ['heic', 'heix', 'hevc', 'hevx', 'heim', 'heis', 'mif1', 'msf1'];

/** Image type by content, whatever the file is called. */
export async function imageType(file: Blob): Promise<string | null> {
  const head = await headOf(file, 32);
  if (startsWith(head, 0x89, 0x50, 0x4e, 0x47)) return 'image/png';
  if (startsWith(head, 0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (ascii(head, 0, 4) === 'RIFF' && ascii(head, 8, 12) === 'WEBP') return 'image/webp';
  if (ascii(head, 0, 4) === 'GIF8') return 'image/gif';
  if (ascii(head, 4, 8) !== 'ftyp') return null;
  const brands = [ascii(head, 8, 12), ascii(head, 16, 20), ascii(head, 20, 24)];
  if (brands.some((brand) => AVIF.includes(brand))) return 'image/avif';
  return HEIC.includes(brands[0]!) ? 'image/heic' : null;
}

/** True for pictures that move: animated GIF, WebP and PNG. */
export async function isAnimated(file: Blob): Promise<boolean> {
  const head = await headOf(file, 4096);
  if (ascii(head, 0, 4) === 'GIF8') return (await framesOf(file, 'image/gif')) > 1;
  if (ascii(head, 8, 12) === 'WEBP') return ascii(head, 12, 16) === 'VP8X' && (head[20]! & 2) !== 0;
  return startsWith(head, 0x89, 0x50, 0x4e, 0x47) && ascii(head, 0, head.length).includes('acTL');
}

async function framesOf(file: Blob, type: string): Promise<number> {
  if (typeof ImageDecoder !== 'function') return 1;
  const decoder = new ImageDecoder({ data: await file.arrayBuffer(), type });
  try {
    await Promise.all([decoder.tracks.ready, decoder.completed]);
    return decoder.tracks.selectedTrack?.frameCount ?? 1;
  } catch {
    return 1;
  } finally {
    decoder.close();
  }
}

export interface Still {
  data: Uint8ClampedArray<ArrayBuffer>;
  width: number;
  height: number;
}

/** Straight 8-bit RGBA of a still, upright. @throws JackplaneError bad-media or unsupported */
export async function readStill(file: Blob, name: string, type: string): Promise<Still> {
  if (type === 'image/heic' || (type === 'image/avif' && !(await canDecode(type)))) {
    throw new JackplaneError(
      'unsupported',
      `“${name}” is a ${type.slice(6).toUpperCase()} picture, which this browser cannot decode.`,
      'Save it as PNG, JPEG or WebP and import that.',
    );
  }
  await checkHeader(file, name);
  try {
    // JPEG carries its orientation outside the picture and has no alpha; the bitmap decoder applies the one and needs not keep the other
    return type !== 'image/jpeg' && typeof ImageDecoder === 'function'
      ? await decodeExactly(file, name, type)
      : await decodeUpright(file, name);
  } catch (error) {
    if (error instanceof JackplaneError) throw error;
    throw damagedPicture(name);
  }
}

const canDecode = async (type: string): Promise<boolean> =>
  typeof ImageDecoder === 'function' && ImageDecoder.isTypeSupported(type);

async function decodeExactly(file: Blob, name: string, type: string): Promise<Still> {
  const decoder = new ImageDecoder({ data: await file.arrayBuffer(), type });
  try {
    const { image } = await decoder.decode({ completeFramesOnly: true });
    return await stillOf(image, name);
  } finally {
    decoder.close();
  }
}

/** A decoded picture as straight RGBA, turned as its file says. The frame is closed. */
export async function stillOf(image: VideoFrame, name: string): Promise<Still> {
  try {
    const { width, height } = image.visibleRect!;
    checkSize(name, width, height);
    const data = new Uint8ClampedArray(image.allocationSize({ format: 'RGBA' }));
    await image.copyTo(data, { format: 'RGBA' });
    const { rotation = 0, flip = false } = image as VideoFrame & { rotation?: number; flip?: boolean };
    return upright({ data, width, height }, rotation, flip);
  } finally {
    image.close();
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
