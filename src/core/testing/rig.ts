import { readFileSync } from 'node:fs';
import { PictureCache } from '../execute/cache';
import { MaskStore } from '../execute/backends/wasm/masks';
import { layerSpace, runPasses } from '../execute/backends/wasm/passes';
import { PlateStore } from '../execute/backends/wasm/plates';
import type { CoveragePlan } from '../masks/coverage';
import type { PlainValues } from '../params/registry';
import { passOf } from '../passes/registry';
import { Arena } from '../picture/arena';
import { bindKernels, type Kernels } from '../picture/kernels';
import { Picture } from '../picture/picture';
import { EMPTY_LINE } from '../text/fonts';
import type { Rect } from '../picture/rect';

export interface TestRig {
  arena: Arena;
  kernels: Kernels;
  masks: MaskStore;
  plates: PlateStore;
}

/** Masks whose pictures and texts are empty. */
export const plainMasks = (tools: { kernels: Kernels; arena: Arena }): MaskStore =>
  new MaskStore(
    tools,
    () => Promise.reject(new Error('no pictures here')),
    () => Promise.resolve(EMPTY_LINE),
  );

/** Kernels and memory for tests and measurements in Node. */
export async function testRig(limit = 512e6): Promise<TestRig> {
  const module = await WebAssembly.compile(readFileSync(new URL('../../../build/kernels.wasm', import.meta.url)));
  const arena = new Arena(limit);
  const kernels = await bindKernels(module, arena);
  return {
    arena,
    kernels,
    masks: plainMasks({ kernels, arena }),
    plates: new PlateStore({ kernels, arena }, () => Promise.reject(new Error('no pictures here'))),
  };
}

/** A picture from premultiplied floats, four a pixel. */
export function pictureOf({ arena }: TestRig, rect: Rect, values: ArrayLike<number>): Picture {
  const picture = Picture.make(arena, rect);
  arena.floats(picture.at, values.length).set(values);
  return picture;
}

/** A copy of a picture's floats. */
export const floatsOf = ({ arena }: TestRig, picture: Picture): Float32Array =>
  arena.floats(picture.at, picture.pixels * 4).slice();

/** The floats of a picture of a size, w×h×4: clear where what is held of it does not reach. */
export function wholeFloats(rig: TestRig, picture: Picture, { w, h }: { w: number; h: number }): Float32Array {
  const [held, out] = [floatsOf(rig, picture), new Float32Array(w * h * 4)];
  const { rect } = picture;
  for (let y = 0; y < rect.h; y++)
    out.set(held.subarray(y * rect.w * 4, (y + 1) * rect.w * 4), ((rect.y + y) * w + rect.x) * 4);
  return out;
}

export const NO_MASKS: CoveragePlan = { masks: [], side: 'inside', scale: 1, centre: [0, 0] };

/** A pass's defaults as they come out of a plan, with some values of its own. */
export function planned(type: string, values: PlainValues): PlainValues {
  const params = Object.entries(passOf(type)!.params);
  return {
    ...Object.fromEntries(params.map(([name, param]) => [name, param.kind === 'masks' ? NO_MASKS : param.default])),
    ...values,
  };
}

/** Runs one pass over a picture. @param picture given up @returns owned by the caller */
export function runPass(
  rig: TestRig,
  type: string,
  values: PlainValues,
  picture: Picture,
  area: CoveragePlan | null = null,
  size = { w: picture.rect.w, h: picture.rect.h },
): Picture {
  const space = layerSpace(rig, size);
  return runPasses(
    { ...rig, cache: new PictureCache<Picture>(0) },
    space,
    [{ id: 'p' as never, type, values: planned(type, values), area, key: 'k' }],
    picture,
    'last',
  );
}

export type RGB = [number, number, number];
/** What a pass makes of straight colours, at an alpha. */
export function coloursThrough(
  rig: TestRig,
  type: string,
  values: PlainValues,
  colours: readonly RGB[],
  alpha = 1,
): RGB[] {
  const flat = colours.flatMap((c) => [...c.map((v) => v * alpha), alpha]);
  const out = runPass(rig, type, values, pictureOf(rig, { x: 0, y: 0, w: colours.length, h: 1 }, flat));
  const floats = floatsOf(rig, out);
  out.release();
  return colours.map((_, i) => [0, 1, 2].map((c) => floats[i * 4 + c]! / alpha) as RGB);
}
