import { describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { JackplaneError } from '../../core/errors';
import { MOST_PIXELS, MOST_SIDE } from '../types';
import { checkSize, hasAlpha, imageType, readStill } from './images';

const picture = (alpha: number) => sharp({ create: { width: 6, height: 4, channels: 4, background: { r: 200, g: 90, b: 40, alpha } } });

describe('stills', () => {
  test.each([['png', 'image/png'], ['jpeg', 'image/jpeg'], ['webp', 'image/webp']] as const)('a %s is known by its content', async (format, type) => {
    expect(imageType(await picture(1).toFormat(format).toBuffer())).toBe(type);
  });

  test('other content is no still, whatever it is called', async () => {
    expect(imageType(await picture(1).gif().toBuffer())).toBeNull();
    expect(imageType(new Uint8Array())).toBeNull();
    expect(imageType(new TextEncoder().encode('RIFF....WAVEfmt '))).toBeNull();
  });

  test('sizes are bounded by side and by area, and the sentence says both', () => {
    expect(() => checkSize('sky', MOST_SIDE, 1)).not.toThrow();
    for (const [w, h] of [[MOST_SIDE + 1, 1], [1, MOST_SIDE + 1], [MOST_SIDE, Math.ceil(MOST_PIXELS / MOST_SIDE) + 1]] as const) {
      expect(() => checkSize('sky', w, h)).toThrow(JackplaneError);
      expect(() => checkSize('sky', w, h)).toThrow(`“sky” is ${w}×${h} pixels`);
    }
  });

  test('a PNG that claims to be huge is refused by its head, before any memory is taken', async () => {
    const file = await picture(1).png().toBuffer();
    file.writeUInt32BE(1_000_000, 16);
    file.writeUInt32BE(1_000_000, 20);
    await expect(readStill(new Blob([new Uint8Array(file)]), 'bomb', 'image/png')).rejects.toThrow('“bomb” is 1000000×1000000 pixels');
  });

  test('a damaged still is said to be damaged, with its name', async () => {
    await expect(readStill(new Blob(['not a picture']), 'rail', 'image/jpeg')).rejects.toMatchObject({ code: 'bad-media', sentence: expect.stringContaining('“rail” is damaged') });
  });

  test('alpha is told from the pixels', async () => {
    for (const [alpha, want] of [[1, false], [0.5, true]] as const) {
      const { data, info } = await picture(alpha).raw().toBuffer({ resolveWithObject: true });
      expect(hasAlpha({ data: new Uint8ClampedArray(data), width: info.width, height: info.height })).toBe(want);
    }
  });
});
