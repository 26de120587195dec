import { imageSize } from 'image-size';
import { JackplaneError } from '../base/errors';

/** Largest picture side and area that is opened. */
export const MOST_SIDE = 8192;
export const MOST_PIXELS = 40e6;

/** @throws JackplaneError when a picture is larger than what is opened */
export function checkSize(name: string, width: number, height: number): void {
  if (width <= MOST_SIDE && height <= MOST_SIDE && width * height <= MOST_PIXELS) return;
  throw new JackplaneError(
    'unsupported',
    `“${name}” is ${width}×${height} pixels, more than the ${MOST_SIDE} a side and ${MOST_PIXELS / 1e6} million pixels that Jackplane opens.`,
    'Make it smaller first.',
  );
}

/** Bytes from the beginning of a picture file within which its size stands, colour profiles and previews included. */
const HEADER = 1e6;

/** Reads a picture's size from its header, before anything is decoded. @throws JackplaneError bad-media or unsupported */
export async function checkHeader(file: Blob, name: string): Promise<void> {
  let size: { width: number; height: number };
  try {
    size = imageSize(new Uint8Array(await file.slice(0, HEADER).arrayBuffer()));
  } catch {
    throw damagedPicture(name);
  }
  checkSize(name, size.width, size.height);
}

export const damagedPicture = (name: string): JackplaneError =>
  new JackplaneError(
    'bad-media',
    `“${name}” is damaged or cut off; its picture could not be decoded.`,
    'Export it again and import the new file.',
  );
