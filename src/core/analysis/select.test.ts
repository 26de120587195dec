import { beforeAll, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { TOWER_STROKES } from '../../../demo/strokes';
import { select, type Pixels } from './select';

const DEMO = join(import.meta.dirname, '../../../demo');
let tower: Pixels;
let truth: Uint8Array;
beforeAll(async () => {
  const still = await sharp(readFileSync(join(DEMO, 'media/signal-tower-still.webp')))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  tower = { w: still.info.width, h: still.info.height, data: still.data };
  const { data, info } = await sharp(readFileSync(join(DEMO, 'truth/tower/matte.png')))
    .raw()
    .toBuffer({ resolveWithObject: true });
  truth = Uint8Array.from({ length: info.width * info.height }, (_, i) => data[i * info.channels]!);
});
const error = (matte: Uint8Array): number =>
  matte.reduce((sum, v, i) => sum + Math.abs(v - truth[i]!), 0) / matte.length / 255;

describe('smart selection', () => {
  test('three strokes on the signal tower tell it from the sky', () => {
    const found = select(tower, TOWER_STROKES);
    expect(error(found.matte)).toBeLessThanOrEqual(0.02);
    expect(found.confidence).toBeGreaterThan(0.5);
  });

  test('strokes are kept to, whatever the colours say', () => {
    const found = select(tower, [
      ...TOWER_STROKES,
      {
        keep: false,
        radius: 10,
        points: [
          [300, 650],
          [500, 650],
        ],
      },
    ]);
    expect(found.matte[650 * 1280 + 400]).toBe(0);
    expect(found.matte[160 * 1280 + 842]).toBe(255);
  });

  test('a matte carried over is corrected by a stroke, and kept where nothing speaks against it', () => {
    const before = Uint8Array.from(truth);
    const same = select(tower, [], before);
    expect(error(same.matte)).toBeLessThan(0.012);
    const cut = select(
      tower,
      [
        {
          keep: false,
          radius: 20,
          points: [
            [870, 95],
            [930, 95],
          ],
        },
      ],
      before,
    );
    expect(cut.matte[95 * 1280 + 900]).toBe(0);
    expect(error(cut.matte)).toBeLessThan(0.03);
  });

  test('colours that cannot be told apart are reported as unsure', () => {
    const grey: Pixels = { w: 200, h: 120, data: new Uint8Array(200 * 120 * 4).fill(120) };
    const found = select(grey, [
      { keep: true, radius: 6, points: [[40, 60]] },
      { keep: false, radius: 6, points: [[160, 60]] },
    ]);
    expect(found.confidence).toBeLessThan(0.3);
  });
});
