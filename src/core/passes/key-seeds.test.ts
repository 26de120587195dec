// A new colour key after one pick, on scenes that come from seeds, beside two plain keys.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { layerSpace, runPasses } from '../execute/backends/wasm/passes';
import { PictureCache } from '../execute/cache';
import type { Picture } from '../picture/picture';
import { floatsOf, pictureOf, planned, testRig, type TestRig } from '../testing/rig';
import {
  alphaOf,
  chromaDistanceMatte,
  compositeError,
  cutBy,
  onePick,
  pickedCuts,
  pickedKey,
  plainDifferenceMatte,
  score,
  type TruthFrame,
} from '../testing/key-truth';
import { calmMoments } from './calm';
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
  const count = 8;
  /** Mattes of two frames that follow each other. */
  function twoOf(frames: readonly TruthFrame[], calm: number): Float32Array[] {
    const pictures = frames.map(({ frame }) => pictureOf(rig, { x: 0, y: 0, ...SIZE }, straightFloats(frame)));
    const values = pickedKey(rig, frames[0]!, [onePick(frames[0]!, 8, 8, 16)]);
    const mattes = [3, 4].map((at) => {
      const moments = calmMoments({ calm }).map((by) => String(at + by));
      const space = { ...layerSpace(rig, SIZE), moment: (key: string) => pictures[Number(key)] };
      const pass = { id: 'p' as never, type: 'colour-key', values: planned('colour-key', { ...values, calm }) };
      const own = { ...pass, area: null, key: 'k', moments };
      const cut = runPasses(
        { ...rig, cache: new PictureCache<Picture>(0) },
        space,
        [own],
        pictures[at]!.retain(),
        'last',
      );
      const floats = floatsOf(rig, cut);
      cut.release();
      return alphaOf(floats);
    });
    pictures.forEach((picture) => picture.release());
    return mattes;
  }
  const straightFloats = (bytes: Uint8Array): Float32Array => Float32Array.from(bytes, (v) => v / 255);
  /** Mean change of the matte, and its error, where the truth is an edge. */
  function judged(still: boolean, calm: number): { change: number; error: number } {
    const scene = sceneOf(2, { count, size: SIZE, still, fixed: { noise: 0.03 } });
    const frames = scene.frames.map(({ pixels, truth }) => ({
      ...{ width: SIZE.w, height: SIZE.h },
      ...{ frame: Buffer.from(pixels), foreground: Buffer.from(truth) },
    }));
    const [now, next] = twoOf(frames, calm);
    let [change, error, n] = [0, 0, 0];
    now!.forEach((alpha, i) => {
      const truth = frames[3]!.foreground[i * 4 + 3]! / 255;
      if (truth <= 0.02 || truth >= 0.98) return;
      [change, error, n] = [change + Math.abs(alpha - next![i]!), error + Math.abs(alpha - truth), n + 1];
    });
    return { change: change / n, error: error / n };
  }

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
