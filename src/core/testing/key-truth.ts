import { readFileSync, existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { readPlate } from '../analysis/key-plate';
import { PlateStore } from '../execute/backends/wasm/plates';
import type { PassPlan } from '../plan/types';
import type { Colour } from '../params/define';
import { readValues, type ReadingParam } from '../params/reading';
import { beginningOf, type PlainValues } from '../params/registry';
import { passOf } from '../passes/registry';
import { Picture } from '../picture/picture';
import { runPass, type TestRig } from './rig';

// taken once: looking globals up is slow where tests run
const { abs, floor, hypot, max, min, round, sqrt } = Math;
const TRUTH = join(import.meta.dirname, '../../../demo/truth');
export type Plate = 'even' | 'uneven' | 'noisy';
export const PLATES: readonly Plate[] = ['even', 'uneven', 'noisy'];

export interface TruthFrame {
  width: number;
  height: number;
  /** the decoded frame, straight 8-bit RGBA */
  frame: Buffer;
  /** the true foreground, straight, with the true matte as alpha */
  foreground: Buffer;
}

const rgba = (file: string) => sharp(readFileSync(file)).ensureAlpha().raw().toBuffer({ resolveWithObject: true });

/** Decoded frames of a plate with what is true of them. The two steady plates show the same captain. */
export async function truthFrames(plate: Plate, most = 12): Promise<TruthFrame[]> {
  const folder = join(TRUTH, plate);
  const names = readdirSync(folder)
    .filter((name) => name.endsWith('-frame.png'))
    .sort();
  const step = names.length / min(most, names.length);
  const chosen = Array.from({ length: min(most, names.length) }, (_, i) => names[floor(i * step)]!);
  return Promise.all(
    chosen.map(async (name) => {
      const truth = name.replace('frame', 'foreground');
      const [frame, foreground] = [
        await rgba(join(folder, name)),
        await rgba(existsSync(join(folder, truth)) ? join(folder, truth) : join(TRUTH, 'even', truth)),
      ];
      return { width: frame.info.width, height: frame.info.height, frame: frame.data, foreground: foreground.data };
    }),
  );
}

/** One pick: the mean of a small square, upper left of the middle of the screen. */
export function onePick({ frame, width }: TruthFrame, x0 = 250, y0 = 200, size = 24): Colour {
  const sum = [0, 0, 0];
  for (let y = y0; y < y0 + size; y++)
    for (let x = x0; x < x0 + size; x++) for (let c = 0; c < 3; c++) sum[c]! += frame[(y * width + x) * 4 + c]!;
  return sum.map((v) => v / (size * size * 255)) as unknown as Colour;
}

/** Premultiplied floats of what a pass with a clean plate makes of a frame. @param clean straight 8-bit RGBA of the frame's size */
export async function passWithPlate(
  rig: TestRig,
  truth: TruthFrame,
  type: string,
  values: PlainValues,
  clean: Uint8Array,
): Promise<Float32Array> {
  const { width, height } = truth;
  const plates = new PlateStore(rig, () => Promise.resolve({ data: clean, width, height }));
  const own = { ...values, plate: { stock: 'clean', name: 'clean', file: 'clean', seconds: [0] } };
  await plates.prepare([{ type, values: own } as unknown as PassPlan], { w: width, h: height });
  return passAlone({ ...rig, plates }, truth, type, own);
}

function pictureIn({ arena, kernels }: TestRig, { width: w, height: h, frame }: TruthFrame): Picture {
  const picture = Picture.make(arena, { x: 0, y: 0, w, h });
  arena.scratch(w * h * 4, (at) => {
    arena.bytes(at, w * h * 4).set(frame);
    kernels.widen(at, picture.at, w * h);
  });
  return picture;
}
/** What a pass makes of a frame, premultiplied. */
export function passAlone(rig: TestRig, truth: TruthFrame, type: string, values: PlainValues): Float32Array {
  const { arena } = rig;
  const picture = pictureIn(rig, truth);
  const out = runPass(rig, type, values, picture);
  const floats = arena.floats(out.at, out.pixels * 4).slice();
  out.release();
  return floats;
}

export const alphaOf = (cut: Float32Array): Float32Array => filled(cut.length / 4, (i) => cut[4 * i + 3]!);
/** Much quicker than Float32Array.from. */
function filled(length: number, value: (i: number) => number): Float32Array {
  const out = new Float32Array(length);
  for (let i = 0; i < length; i++) out[i] = value(i);
  return out;
}

/** What the colour key cuts out, with default dials but for those given, premultiplied. */
export const keyCut = (
  rig: TestRig,
  truth: TruthFrame,
  screen: readonly Colour[],
  values: PlainValues = {},
): Float32Array => passAlone(rig, truth, 'colour-key', { screen, ...values });
/** The values of a new colour key after one pick on a frame. */
export function pickedKey(rig: TestRig, truth: TruthFrame, screen: readonly Colour[]): PlainValues {
  const params = passOf('colour-key')!.params;
  const begun = Object.fromEntries(
    Object.entries(params).flatMap(([name, param]) =>
      param.begins === undefined ? [] : [[name, beginningOf(param)] as const],
    ),
  );
  const picture = pictureIn(rig, truth);
  const { reading } = rig.arena.lending((scratch) => readPlate(picture, screen, 0, { ...rig, scratch }))!;
  picture.release();
  return { ...begun, screen, ...readValues('reading', params['reading'] as ReadingParam, reading) };
}
/** What a new colour key cuts out of frames after one pick on the first, premultiplied. */
export function pickedCuts(rig: TestRig, frames: readonly TruthFrame[], screen: readonly Colour[]): Float32Array[] {
  const values = pickedKey(rig, frames[0]!, screen);
  return frames.map((frame) => passAlone(rig, frame, 'colour-key', values));
}
/** The colour key's matte with default dials. */
export const keyMatte = (rig: TestRig, truth: TruthFrame, screen: readonly Colour[]): Float32Array =>
  alphaOf(keyCut(rig, truth, screen));

/** The frame's own colours cut by a matte, premultiplied: what a key without a clean foreground gives. */
export const cutBy = ({ frame }: TruthFrame, matte: Float32Array): Float32Array =>
  filled(matte.length * 4, (i) => (i % 4 === 3 ? 1 : frame[i]! / 255) * matte[i >> 2]!);

/** New backgrounds: night blue, warm card, pale sky. */
const BACKGROUNDS = [
  [0.1, 0.15, 0.3],
  [0.7, 0.5, 0.35],
  [0.9, 0.92, 0.95],
] as const;
/** Mean error of what was cut out over three new backgrounds against the true foreground over them, where the truth is half clear. */
export function compositeError(frames: readonly TruthFrame[], cuts: readonly Float32Array[]): number {
  let [sum, count] = [0, 0];
  frames.forEach(({ foreground }, f) => {
    const cut = cuts[f]!;
    for (let i = 0; i < cut.length; i += 4) {
      const alpha = foreground[i + 3]! / 255;
      if (alpha <= 0.02 || alpha >= 0.98) continue;
      for (const ground of BACKGROUNDS)
        for (let c = 0; c < 3; c++)
          sum += abs(
            cut[i + c]! +
              (1 - cut[i + 3]!) * ground[c]! -
              ((foreground[i + c]! / 255) * alpha + (1 - alpha) * ground[c]!),
          );
      count += 9;
    }
  });
  return sum / count;
}

/** A plain key: distance in chroma from the picked colour, with a ramp. */
export function chromaDistanceMatte({ frame }: TruthFrame, screen: Colour): Float32Array {
  const luma = (r: number, g: number, b: number) => 0.2126 * r + 0.7152 * g + 0.0722 * b;
  const [red, , blue] = screen;
  const y = luma(...screen);
  const [u, v] = [(blue - y) / 1.8556, (red - y) / 1.5748];
  const reach = hypot(u, v);
  return filled(frame.length / 4, (i) => {
    const r = frame[4 * i]! / 255;
    const b = frame[4 * i + 2]! / 255;
    const l = luma(r, frame[4 * i + 1]! / 255, b);
    const [cu, cv] = [(b - l) / 1.8556 - u, (r - l) / 1.5748 - v];
    return min(1, max(0, (sqrt(cu * cu + cv * cv) / reach - 0.1) / 0.8));
  });
}

/** A plain key: colour difference on display-encoded values against one screen colour. */
export function plainDifferenceMatte({ frame }: TruthFrame, screen: Colour): Float32Array {
  const whole = screen[1] - max(screen[0], screen[2]);
  return filled(frame.length / 4, (i) => {
    const [r, g, b] = [frame[4 * i]! / 255, frame[4 * i + 1]! / 255, frame[4 * i + 2]! / 255];
    return min(1, max(0, 1 - (g - max(r, b)) / whole));
  });
}

export interface KeyScore {
  /** mean absolute error of the matte, over everything and where the truth is between 0.02 and 0.98 */
  mean: number;
  edge: number;
  /** 1st percentile of the matte where the truth is solid, 99th where it is clear */
  solid: number;
  clear: number;
}

/** Scores mattes of frames against the truth. Erosion keeps the coded edge out of "solid" and "clear". */
export function score(frames: readonly TruthFrame[], mattes: readonly Float32Array[]): KeyScore {
  let [sum, count, edgeSum, edgeCount] = [0, 0, 0, 0];
  const solid = new Uint32Array(1001);
  const clear = new Uint32Array(1001);
  frames.forEach(({ foreground, width, height }, f) => {
    const truth = (x: number, y: number) => foreground[(y * width + x) * 4 + 3]! / 255;
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        const got = mattes[f]![y * width + x]!;
        const want = truth(x, y);
        sum += abs(got - want);
        count++;
        if (want > 0.02 && want < 0.98) {
          edgeSum += abs(got - want);
          edgeCount++;
        } else if (flat(truth, x, y, width, height, want))
          (want >= 0.98 ? solid : clear)[round(min(1, max(0, got)) * 1000)]!++;
      }
    }
  });
  return {
    mean: sum / count,
    edge: edgeSum / edgeCount,
    solid: percentile(solid, 0.01),
    clear: percentile(clear, 0.99),
  };
}

/** True when the truth is the same a few pixels away on all sides. */
function flat(
  truth: (x: number, y: number) => number,
  x: number,
  y: number,
  w: number,
  h: number,
  want: number,
): boolean {
  const far = 4;
  const same = (i: number, j: number) => i < 0 || j < 0 || i >= w || j >= h || abs(truth(i, j) - want) < 0.02;
  return (
    same(x - far, y) &&
    same(x + far, y) &&
    same(x, y - far) &&
    same(x, y + far) &&
    same(x - 3, y - 3) &&
    same(x + 3, y + 3) &&
    same(x + 3, y - 3) &&
    same(x - 3, y + 3)
  );
}

function percentile(counts: Uint32Array, share: number): number {
  const total = counts.reduce((sum, n) => sum + n, 0);
  let seen = 0;
  for (let i = 0; i < counts.length; i++) {
    seen += counts[i]!;
    if (seen >= share * total) return i / 1000;
  }
  return 1;
}
