import { strToU8, zlibSync } from 'fflate';

const CRC = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c >>> 0;
});

function chunk(type: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(12 + data.length);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  out.set(strToU8(type), 4);
  out.set(data, 8);
  let crc = 0xffffffff;
  for (let i = 4; i < out.length - 4; i++) crc = CRC[(crc ^ out[i]!) & 255]! ^ (crc >>> 8);
  view.setUint32(out.length - 4, (crc ^ 0xffffffff) >>> 0);
  return out;
}

/**
 * PNG of straight 8-bit RGBA. Written here because a canvas would premultiply and lose colour where alpha is low.
 * Source: PNG specification, third edition. Rows use the Up filter.
 */
export function encodePng(
  pixels: Uint8Array | Uint8ClampedArray,
  width: number,
  height: number,
): Uint8Array<ArrayBuffer> {
  const line = width * 4;
  const raw = new Uint8Array((line + 1) * height);
  for (let y = 0; y < height; y++) {
    const at = y * (line + 1);
    raw[at] = 2;
    for (let x = 0; x < line; x++) raw[at + 1 + x] = pixels[y * line + x]! - (y ? pixels[(y - 1) * line + x]! : 0);
  }
  const head = new Uint8Array(13);
  const view = new DataView(head.buffer);
  view.setUint32(0, width);
  view.setUint32(4, height);
  head.set([8, 6, 0, 0, 0], 8);
  const parts = [
    Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10),
    chunk('IHDR', head),
    chunk('sRGB', Uint8Array.of(0)),
    chunk('IDAT', zlibSync(raw, { level: 6 })),
    chunk('IEND', new Uint8Array()),
  ];
  const out = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}
