// How much a key's matte changes from one frame to the next, and how far it is from the truth, on noisy scenes from seeds.
import { layerSpace, runPasses } from '../execute/backends/wasm/passes';
import { PictureCache } from '../execute/cache';
import { calmMoments } from '../passes/calm';
import type { Picture } from '../picture/picture';
import { alphaOf, onePick, pickedKey, type TruthFrame } from './key-truth';
import { sceneOf } from './plates/scene';
import { floatsOf, pictureOf, planned, type TestRig } from './rig';

const NOISE = 0.03;

/**
 * A new key after one pick, on two frames that follow each other.
 * @param still whether the subject stands still @param calm frames to each side that are taken together
 * @returns means over the pixels at which the truth is between 2 and 98 %
 */
export function boiling(
  rig: TestRig,
  seed: number,
  size: { w: number; h: number },
  { still, calm }: { still: boolean; calm: number },
): { change: number; error: number } {
  const scene = sceneOf(seed, { count: 2 * calm + 2, size, still, fixed: { noise: NOISE } });
  const frames: TruthFrame[] = scene.frames.map(({ pixels, truth }) => ({
    ...{ width: size.w, height: size.h },
    ...{ frame: Buffer.from(pixels), foreground: Buffer.from(truth) },
  }));
  const rect = { x: 0, y: 0, ...size };
  const pictures = frames.map(({ frame }) =>
    pictureOf(
      rig,
      rect,
      Float32Array.from(frame, (v) => v / 255),
    ),
  );
  const values = pickedKey(rig, frames[0]!, [onePick(frames[0]!, 8, 8, 16)]);
  const matteAt = (at: number): Float32Array => {
    const moments = calmMoments({ calm }).map((by) => String(at + by));
    const space = { ...layerSpace(rig, size), moment: (key: string) => pictures[Number(key)] };
    const key = { id: 'p' as never, type: 'colour-key', values: planned('colour-key', { ...values, calm }) };
    const pass = { ...key, area: null, key: 'k', moments };
    const cut = runPasses(
      { ...rig, cache: new PictureCache<Picture>(0) },
      space,
      [pass],
      pictures[at]!.retain(),
      'last',
    );
    const floats = floatsOf(rig, cut);
    cut.release();
    return alphaOf(floats);
  };
  const [now, next] = [matteAt(calm), matteAt(calm + 1)];
  pictures.forEach((picture) => picture.release());
  let [change, error, n] = [0, 0, 0];
  now.forEach((alpha, i) => {
    const truth = frames[calm]!.foreground[i * 4 + 3]! / 255;
    if (truth <= 0.02 || truth >= 0.98) return;
    [change, error, n] = [change + Math.abs(alpha - next[i]!), error + Math.abs(alpha - truth), n + 1];
  });
  return { change: change / n, error: error / n };
}
