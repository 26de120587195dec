import { beforeAll, describe, expect, test } from '@jest/globals';
import { toLinear } from '../picture/light';
import { testRig, pictureOf, type TestRig } from '../testing/rig';
import { keyMatte, onePick, score, truthFrames } from '../testing/key-truth';
import { screenIn } from '../measures/find-screen';
import { CELL, modelScreen } from './screen-model';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(512e6);
});

describe('the model of a screen', () => {
  test('an uneven light under a subject is carried on from both sides', () => {
    const [w, h] = [320, 160];
    const lit = (x: number) => 0.25 + (0.6 * x) / w;
    // green of one hue whose light grows to the right; a grey card in the middle third
    const at = (i: number) => {
      const x = i % w;
      const inside = x > 100 && x < 220;
      const k = lit(x);
      return inside ? [0.5, 0.5, 0.5, 1] : [0.3 * k, 0.66 * k, 0.35 * k, 1];
    };
    const picture = pictureOf(rig, { x: 0, y: 0, w, h }, Array.from({ length: w * h }, (_, i) => at(i)).flat());
    const model = modelScreen(rig, picture, 1, [[0.15, 0.33, 0.175].map(toLinear) as [number, number, number]]);
    picture.release();
    expect(model.seen).toBeGreaterThan(0.55);
    expect(model.seen).toBeLessThan(0.7);
    for (const x of [40, 90, 160, 230, 300]) {
      const cell = Math.floor(80 / CELL) * model.w + Math.floor(x / CELL);
      const want = toLinear(0.66 * lit(Math.floor(x / CELL) * CELL + CELL / 2));
      // straight in between where it was not seen; light as encoded is not quite straight in linear light
      expect(Math.abs(model.cells[cell * 4 + 1]! - want) / want).toBeLessThan(x > 100 && x < 220 ? 0.15 : 0.03);
    }
  });
});

describe('finding the screen', () => {
  test.each(['even', 'uneven', 'noisy'] as const)(
    'on the %s plate what is found keys as well as a pick',
    async (plate) => {
      const [frame] = await truthFrames(plate, 1);
      const found = screenIn(frame!.frame, frame!.width, frame!.height)!;
      expect(found.share).toBeGreaterThan(0.5);
      const [picked, proposed] = [[onePick(frame!)], found.samples].map((samples) =>
        score([frame!], [keyMatte(rig, frame!, samples)]),
      );
      expect(proposed!.mean).toBeLessThan(picked!.mean + 0.002);
      expect(proposed!.clear).toBeLessThanOrEqual(0.03);
      expect(proposed!.solid).toBeGreaterThanOrEqual(0.97);
    },
  );

  test('in grey nothing is found', () => {
    expect(screenIn(new Uint8Array(100 * 60 * 4).fill(128), 100, 60)).toBeNull();
  });
});
