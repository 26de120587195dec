// A new colour key after one pick, on scenes that come from seeds, beside two plain keys.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { boiling } from '../testing/boiling';
import { testRig, type TestRig } from '../testing/rig';
import {
  alphaOf,
  chromaDistanceMatte,
  compositeError,
  cutBy,
  onePick,
  pickedCuts,
  plainDifferenceMatte,
  score,
  type TruthFrame,
} from '../testing/key-truth';
import { sceneOf } from '../testing/plates/scene';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(256e6);
});
const SIZE = { w: 640, h: 360 };

/** A frame as the camera gave it, without a codec. */
function plateOf(seed: number): TruthFrame[] {
  return sceneOf(seed, { count: 1, size: SIZE }).frames.map(({ pixels, truth }) => ({
    width: SIZE.w,
    height: SIZE.h,
    frame: Buffer.from(pixels),
    foreground: Buffer.from(truth),
  }));
}

describe.each([
  [5, 'wide motion, much spill and a pale subject', 0.06],
  [9, 'sharp hair and spill that reaches inside', 0.1],
  [17, 'motion, defocus, noise and glass', 0.08],
] as const)('the plate of seed %i: %s', (seed, _, most) => {
  test('is cut better than by two plain keys, with a solid inside and a clear screen', () => {
    const frames = plateOf(seed);
    const pick = onePick(frames[0]!, 8, 8, 16);
    const cuts = pickedCuts(rig, frames, [pick]);
    const own = score(frames, cuts.map(alphaOf));
    expect(own.edge).toBeLessThan(most);
    expect(own.solid).toBeGreaterThan(0.95);
    expect(own.clear).toBeLessThan(0.03);
    const composite = compositeError(frames, cuts);
    for (const key of [chromaDistanceMatte, plainDifferenceMatte]) {
      const plain = frames.map((frame) => cutBy(frame, key(frame, pick)));
      expect(own.edge).toBeLessThan(score(frames, plain.map(alphaOf)).edge);
      expect(composite).toBeLessThan(compositeError(frames, plain));
    }
  });
});

describe('frames taken together', () => {
  const judged = (still: boolean, calm: number) => boiling(rig, 2, SIZE, { still, calm });

  test('edges of a subject that stands still boil less by far, and are nearer the truth', () => {
    const [alone, together] = [judged(true, 0), judged(true, 3)];
    expect(together.change).toBeLessThan(alone.change / 3);
    expect(together.error).toBeLessThan(alone.error * 0.8);
  });
  test('those of one that moves are no worse', () => {
    const [alone, together] = [judged(false, 0), judged(false, 3)];
    expect(together.error).toBeLessThan(alone.error * 1.05);
  });
});
