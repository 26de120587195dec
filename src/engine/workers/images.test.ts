import { describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { JackplaneError } from '../../core/base/errors';
import { checkHeader, checkSize, MOST_PIXELS, MOST_SIDE } from '../../core/formats/picture-size';
import { hasAlpha, imageType, isAnimated, readStill } from './images';
import { upright } from './upright';

const blob = (data: Uint8Array) => new Blob([new Uint8Array(data)]);
const picture = (alpha: number) =>
  sharp({ create: { width: 6, height: 4, channels: 4, background: { r: 200, g: 90, b: 40, alpha } } });

describe('stills', () => {
  test.each([
    ['png', 'image/png'],
    ['jpeg', 'image/jpeg'],
    ['webp', 'image/webp'],
    ['gif', 'image/gif'],
    ['avif', 'image/avif'],
  ] as const)('a %s is known by its content', async (format, type) => {
    expect(await imageType(blob(await picture(1).toFormat(format).toBuffer()))).toBe(type);
  });

  test('other content is no still, whatever it is called', async () => {
    expect(await imageType(blob(new Uint8Array()))).toBeNull();
    expect(await imageType(blob(new TextEncoder().encode('RIFF....WAVEfmt ')))).toBeNull();
    expect(await imageType(blob(new TextEncoder().encode('\0\0\0 ftypisom\0\0\0\0mp41avc1')))).toBeNull();
  });

  test('sizes are bounded by side and by area, and the sentence says both', () => {
    expect(() => checkSize('sky', MOST_SIDE, 1)).not.toThrow();
    for (const [w, h] of [
      [MOST_SIDE + 1, 1],
      [1, MOST_SIDE + 1],
      [MOST_SIDE, Math.ceil(MOST_PIXELS / MOST_SIDE) + 1],
    ] as const) {
      expect(() => checkSize('sky', w, h)).toThrow(JackplaneError);
      expect(() => checkSize('sky', w, h)).toThrow(`“sky” is ${w}×${h} pixels`);
    }
  });

  test('a PNG that claims to be huge is refused by its head, before any memory is taken', async () => {
    const file = await picture(1).png().toBuffer();
    file.writeUInt32BE(1_000_000, 16);
    file.writeUInt32BE(1_000_000, 20);
    await expect(readStill(blob(file), 'bomb', 'image/png')).rejects.toThrow('“bomb” is 1000000×1000000 pixels');
  });

  test.each(['jpeg', 'webp', 'gif', 'avif'] as const)(
    'the size of a %s is read from its head and bounded',
    async (format) => {
      const wide = await sharp({ create: { width: 9000, height: 2, channels: 3, background: '#345' } })
        .toFormat(format)
        .toBuffer();
      await expect(checkHeader(blob(wide), 'wide')).rejects.toThrow('“wide” is 9000×2 pixels');
      await expect(checkHeader(blob(await picture(1).toFormat(format).toBuffer()), 'small')).resolves.toBeUndefined();
    },
  );

  test('HEIC gets a sentence that is true', async () => {
    const head = blob(new TextEncoder().encode('\0\0\0\u0018ftypheic\0\0\0\0mif1heic'));
    expect(await imageType(head)).toBe('image/heic');
    await expect(readStill(head, 'IMG_1.HEIC', 'image/heic')).rejects.toThrow(
      '“IMG_1.HEIC” is a HEIC picture, which this browser cannot decode. Save it as PNG',
    );
  });

  test('moving pictures are told from still ones by their head', async () => {
    const frames = sharp(Buffer.concat([0, 255].map((v) => Buffer.alloc(6 * 4 * 4, v))), {
      raw: { width: 6, height: 8, channels: 4, pageHeight: 4 },
    });
    expect(await isAnimated(blob(await frames.webp({ delay: [50, 50] }).toBuffer()))).toBe(true);
    expect(await isAnimated(blob(await picture(1).webp().toBuffer()))).toBe(false);
    expect(await isAnimated(blob(await picture(1).png().toBuffer()))).toBe(false);
  });

  test('a damaged still is said to be damaged, with its name', async () => {
    await expect(readStill(new Blob(['not a picture']), 'rail', 'image/jpeg')).rejects.toMatchObject({
      code: 'bad-media',
      sentence: expect.stringContaining('“rail” is damaged'),
    });
  });

  test('alpha is told from the pixels', async () => {
    for (const [alpha, want] of [
      [1, false],
      [0.5, true],
    ] as const) {
      const { data, info } = await picture(alpha).raw().toBuffer({ resolveWithObject: true });
      expect(hasAlpha({ data: new Uint8ClampedArray(data), width: info.width, height: info.height })).toBe(want);
    }
  });
});

describe('orientation', () => {
  // what each EXIF orientation asks for: turn clockwise, then mirror; as in CIPA DC-008
  const ASKED: Record<number, [number, boolean]> = {
    1: [0, false],
    2: [0, true],
    3: [180, false],
    4: [180, true],
    5: [90, true],
    6: [90, false],
    7: [270, true],
    8: [270, false],
  };
  test.each(Object.keys(ASKED).map(Number))('%d is turned as another program turns it', async (orientation) => {
    const [width, height] = [5, 3];
    const data = Uint8ClampedArray.from({ length: width * height * 4 }, (_, i) => (i % 4 === 3 ? 255 : (i * 37) % 251));
    const tagged = await sharp(Buffer.from(data), { raw: { width, height, channels: 4 } })
      .withMetadata({ orientation })
      .png()
      .toBuffer();
    const turned = await sharp(tagged).rotate().raw().toBuffer({ resolveWithObject: true });
    const got = upright({ data, width, height }, ...ASKED[orientation]!);
    expect([got.width, got.height]).toEqual([turned.info.width, turned.info.height]);
    expect([...got.data]).toEqual([...turned.data]);
  });
});
